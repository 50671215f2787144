import { eventsIn, retempo, sampleAt, secondsAt, type Anchor, type Program } from '@core/playback';
import { schedule, makeBank, whenOf } from './sounding';

/** What a sound check found: how many sounds were rendered, and how far the worst one was off, in samples. */
export interface SoundCheck {
  readonly sounds: number;
  readonly worst: number;
  readonly rate: number;
}

const SLICE_SECONDS = 4;
const EARLY_SECONDS = 0.1;

/**
 * Renders a program offline through the same code that plays it, with single-sample sounds, and looks on which samples
 * they arrive. With several tempos the ticks are shared between them, and each change is made as it is made live.
 * Sounds that fall on the same sample are counted once.
 */
export async function checkSound(
  program: Program,
  ticks: number,
  bpms: readonly number[],
  rate = 48_000,
): Promise<SoundCheck> {
  const part = Math.ceil(ticks / Math.max(1, bpms.length));
  const anchors = bpms.reduce<Anchor[]>((all, bpm, i) => {
    const last = all.at(-1);
    return [...all, last ? retempo(last, i * part, bpm) : { tick: 0, seconds: 0, bpm }];
  }, []);
  const due = anchors.flatMap((anchor, i) =>
    eventsIn(program, i * part, Math.min(ticks, (i + 1) * part))
      .filter((e) => e.offset >= 0)
      .map((event) => ({
        event,
        when: whenOf(event, anchor, rate),
        sample: sampleAt(secondsAt(anchor, event.at) + event.offset, rate),
      })),
  );
  const expected = [...new Set(due.map((d) => d.sample))].sort((a, b) => a - b);
  const context = new OfflineAudioContext(1, (expected.at(-1) ?? 0) + 64, rate);
  const bank = makeBank(context, () => Float32Array.of(1));
  let next = 0;
  const handUntil = (until: number): void => {
    for (let d = due[next]; d && d.when < until; d = due[++next])
      schedule(context, bank, context.destination, d.event, d.when);
  };
  due.sort((a, b) => a.when - b.when);
  handUntil(SLICE_SECONDS);
  // Sounds are handed over slice by slice, as they are live: thousands at once would each be looked at in every block.
  for (let from = SLICE_SECONDS; from < context.length / rate; from += SLICE_SECONDS) {
    void context.suspend(from - EARLY_SECONDS).then(() => {
      handUntil(from + SLICE_SECONDS);
      return context.resume();
    });
  }
  const heard = onsets((await context.startRendering()).getChannelData(0));
  if (heard.length !== expected.length) return { sounds: heard.length, worst: Infinity, rate };
  return {
    sounds: heard.length,
    worst: heard.reduce((most, at, i) => Math.max(most, Math.abs(at - (expected[i] ?? 0))), 0),
    rate,
  };
}

function onsets(samples: Float32Array): number[] {
  const found: number[] = [];
  samples.forEach((v, i) => {
    if (v !== 0) found.push(i);
  });
  return found;
}
