import { wavFile } from './wav-file';
import { renderStrokes, type Blow } from '../../sound/mixing';
import { LISTEN_RATE } from './sound-file';

/** Recordings that the application makes itself, to try listening with. */
export type DemoSound = 'groove' | 'lick';

interface Made {
  readonly name: string;
  readonly bpm: number;
  readonly perBeat: number;
  readonly bars: readonly string[];
}

/** Each letter is a slot: kick, snare, ghost, hat, both, a tom; capitals of the snare are loud. */
const MADE: Readonly<Record<DemoSound, Made>> = {
  groove: {
    name: 'Net Menders, rehearsal (made by Loop Shelf)',
    bpm: 88,
    perBeat: 4,
    bars: ['b.h.X.hgbgh.X.hg', 'b.hgX.h.hkb.X.hg', 'b.h.X.hgbgh.X.hg', 'b.hgX.h.SsktSkkt'],
  },
  lick: {
    name: 'Harbour Master, fill (made by Loop Shelf)',
    bpm: 96,
    perBeat: 4,
    bars: ['SgkSgtkkSgkS', 'gtkkSgkSgtkk', 'SgkSgtkkSgkS', 'gtkkSgkSgtkk'],
  },
};

const ON: Readonly<Record<string, readonly Omit<Blow, 'at'>[]>> = {
  k: [{ sound: 'kick', velocity: 104 }],
  s: [{ sound: 'snare', velocity: 88 }],
  S: [{ sound: 'snare', velocity: 118 }],
  g: [{ sound: 'snare', velocity: 42 }],
  t: [{ sound: 'floor-tom', velocity: 96 }],
  h: [{ sound: 'hat-closed', velocity: 88 }],
  b: [
    { sound: 'kick', velocity: 104 },
    { sound: 'hat-closed', velocity: 92 },
  ],
  X: [
    { sound: 'snare', velocity: 114 },
    { sound: 'hat-closed', velocity: 84 },
  ],
};

/** A made recording, played a little unevenly, as a WAV file. */
export function demoSound(which: DemoSound): { readonly sound: Blob; readonly name: string } {
  const { name, bpm, perBeat, bars } = MADE[which];
  const slots = bars.join('');
  const slot = 60 / bpm / perBeat;
  const blows = Array.from(slots).flatMap((letter, i): Blow[] => {
    // The same few milliseconds each time: nobody plays on the grid.
    const stray = Math.sin(i * 12.9898) * 0.005;
    return (ON[letter] ?? []).map((b) => ({ ...b, at: 0.5 + i * slot + stray }));
  });
  const samples = renderStrokes(blows, 0.5 + slots.length * slot + 1, LISTEN_RATE);
  return { sound: wavFile(samples, LISTEN_RATE), name };
}
