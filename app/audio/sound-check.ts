import { eventsIn, sampleAt, secondsAt, type Anchor, type Program } from '@core/playback';
import { hand, makeBank, whenOf } from './sounding';

/** What a sound check found: how many sounds were rendered, and how far the worst one was off, in samples. */
export interface SoundCheck {
  readonly sounds: number;
  readonly worst: number;
  readonly rate: number;
}

const SLICE_SECONDS = 4;
const EARLY_SECONDS = 0.1;

/**
 * Renders a program offline through the same code that plays it, with single-sample sounds, and looks on which samples they arrive.
 * Sounds that fall on the same sample are counted once.
 */
export async function checkSound(program: Program, ticks: number, bpm: number, rate = 48_000): Promise<SoundCheck> {
  const anchor: Anchor = { tick: 0, seconds: 0, bpm };
  const events = eventsIn(program, 0, ticks).filter((e) => e.offset >= 0);
  const expected = [...new Set(events.map((e) => sampleAt(secondsAt(anchor, e.at) + e.offset, rate)))].sort((a, b) => a - b);
  const context = new OfflineAudioContext(1, (expected.at(-1) ?? 0) + 64, rate);
  const bank = makeBank(context, () => Float32Array.of(1));
  const due = events.map((event) => ({ event, when: whenOf(event, anchor, rate) }));
  const handFor = (from: number): void => {
    for (const { event, when } of due)
      if (when >= from && when < from + SLICE_SECONDS) hand(context, bank, context.destination, event, when);
  };
  handFor(0);
  // Sounds are handed over slice by slice, as they are live: thousands at once would each be looked at in every block.
  for (let from = SLICE_SECONDS; from < context.length / rate; from += SLICE_SECONDS) {
    void context.suspend(from - EARLY_SECONDS).then(() => {
      handFor(from);
      return context.resume();
    });
  }
  const heard = onsets((await context.startRendering()).getChannelData(0));
  if (heard.length !== expected.length) return { sounds: heard.length, worst: Infinity, rate };
  return { sounds: heard.length, worst: heard.reduce((most, at, i) => Math.max(most, Math.abs(at - (expected[i] ?? 0))), 0), rate };
}

function onsets(samples: Float32Array): number[] {
  const found: number[] = [];
  samples.forEach((v, i) => {
    if (v !== 0) found.push(i);
  });
  return found;
}
