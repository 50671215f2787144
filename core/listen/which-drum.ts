import FFT from 'fft.js';
import { sum } from '../base';
import { USUAL_SOUNDS } from './usual-sounds';

const { PI, ceil, cos, exp, log: ln, log10, max, min, round, sqrt } = Math;

/** What can be told apart by ear alone: low, in the middle, bright. */
export const HEARD_KINDS = ['kick', 'drum', 'cymbal'] as const;
export type HeardKind = (typeof HEARD_KINDS)[number];

/** What a stroke brought into each band: in its first 23 ms and from 35 ms on, as energies. */
export interface StrokeSound {
  readonly early: readonly number[];
  readonly late: readonly number[];
  /** Loudness of the attack in dB. */
  readonly loud: number;
}

/** What a stroke is taken for, and how sure that is: 1 certain, 0.5 or less a guess. */
export interface Proposal {
  readonly kinds: readonly HeardKind[];
  readonly sure: number;
}

/** A stroke that the player named. */
export interface Named {
  readonly sound: StrokeSound;
  readonly kinds: readonly HeardKind[];
}

/** Lower edges of the bands in Hz. */
const BANDS = [0, 70, 120, 250, 500, 1000, 2500, 6000] as const;
/** How much each band counts: what is bright has little energy and says as much. */
const COUNTS = [0.2, 0.2, 0.4, 0.7, 1, 2, 5, 10] as const;
/** Samples of the attack, and of what rings on: there low tones are told apart. */
const FRAME = { early: 1024, late: 2048 } as const;
/** Seconds after the attack from which on what rings is looked at; and before it, where what rang already ends. */
const LATE = 0.025;
const BEFORE = 0.003;
/** As many examples of each are asked. */
const NEAREST = 3;
/** How much louder one of two together is than in its example, as energies. */
const MIXES = [0.15, 0.5, 1.5] as const;
/** Two together are believed only where they fit so much better than one. */
const TOGETHER: Readonly<Record<string, number>> = { 'kick+cymbal': 0.5, 'drum+cymbal': 1.0, 'kick+drum': 1.6 };
/** And so much better again where one of them was never named. */
const UNNAMED = 0.4;
/** A share of all energy under which a band is empty. */
const EMPTY = 0.01;
/** What rings on tells half as much as what is struck. */
const RINGS = 0.5;

/**
 * What each stroke brought into the bands, without what rang before it. `ats` in seconds, ascending.
 * @example
 * soundsOf(new Float32Array(44100), 44100, [0.5])[0].early // => [0, 0, 0, 0, 0, 0, 0, 0]
 */
export function soundsOf(samples: Float32Array, rate: number, ats: readonly number[]): readonly StrokeSound[] {
  // The attack itself counts whole: only the end of its frame is faded.
  const struck = spectrumOf(samples, rate, FRAME.early, (i) => i < FRAME.early / 2);
  const short = spectrumOf(samples, rate, FRAME.early, () => false);
  const long = spectrumOf(samples, rate, FRAME.late, () => false);
  return ats.map((at) => {
    const from = round((at - 0.0005) * rate);
    const before = from - round(BEFORE * rate);
    const over = (now: readonly number[], rang: readonly number[]): number[] =>
      now.map((e, b) => max(0, e - 1.2 * (rang[b] ?? 0)));
    const early = over(struck(from), short(before - FRAME.early));
    const late = over(long(from + round(LATE * rate)), long(before - FRAME.late));
    return { early, late, loud: 10 * log10(sum(early) + 1e-12) };
  });
}

/** The energies of the bands in a frame that begins at a sample; `whole` says which of its samples are not faded. */
function spectrumOf(
  samples: Float32Array,
  rate: number,
  size: number,
  whole: (i: number) => boolean,
): (from: number) => readonly number[] {
  const fft = new FFT(size);
  const hann = (i: number): number => 0.5 - 0.5 * cos((2 * PI * (i + 0.5)) / size);
  const bell = Float64Array.from({ length: size }, (_, i) => (whole(i) ? 1 : hann(i)));
  const weight = sum(Array.from(bell, (w) => w * w));
  const frame: number[] = new Array<number>(size).fill(0);
  const spectrum = new Array<number>(2 * size).fill(0);
  const edges = [...BANDS.map((f) => max(1, round((f * size) / rate))), size / 2];
  return (from) => {
    for (let i = 0; i < size; i++) frame[i] = (samples[from + i] ?? 0) * (bell[i] ?? 0);
    fft.realTransform(spectrum, frame);
    return BANDS.map((_, b) => {
      let e = 0;
      for (let k = edges[b] ?? 0; k < (edges[b + 1] ?? 0); k++)
        e += (spectrum[2 * k] ?? 0) ** 2 + (spectrum[2 * k + 1] ?? 0) ** 2;
      return (e / weight) * (COUNTS[b] ?? 1);
    });
  };
}

type Point = readonly number[];

/** A sound as a place: the log shares of its bands, then and later, and how it dies away below and above. */
function placeOf({ early, late }: Pick<StrokeSound, 'early' | 'late'>): Point {
  const whole = sum(early) + 1e-12;
  const ringing = sum(late) + 1e-12;
  const share = (e: number, of: number): number => ln(EMPTY + e / of);
  const part = (all: readonly number[], from: number, to: number): number => sum(all.slice(from, to));
  const dies = (from: number, to: number): number =>
    ln((part(late, from, to) + EMPTY * whole) / (part(early, from, to) + EMPTY * whole));
  return [
    ...early.map((e) => share(e, whole)),
    ...late.map((e) => RINGS * share(e, ringing)),
    RINGS * dies(0, 3),
    RINGS * dies(6, 8),
    RINGS * ln((ringing + EMPTY * whole) / whole),
  ];
}

interface Example {
  readonly place: Point;
  /** What speaks against it beforehand. */
  readonly against: number;
  readonly kinds: readonly HeardKind[];
}

/**
 * What each stroke is taken for: by the nearest of the strokes that the player named, and of two of them together; by
 * usual kits where nothing was named yet. Always a proposal, with how sure it is.
 * @example
 * proposedKinds([], []) // => []
 */
export function proposedKinds(sounds: readonly StrokeSound[], named: readonly Named[]): readonly Proposal[] {
  const examples = examplesFrom(named);
  return sounds.map((sound) => proposal(placeOf(sound), examples));
}

function examplesFrom(named: readonly Named[]): readonly Example[] {
  const singles = HEARD_KINDS.flatMap((kind) => {
    const own = named.filter((n) => n.kinds.length === 1 && n.kinds[0] === kind);
    // One that was never named is known by usual kits only.
    return own.length > 0 ? own : USUAL.filter((u) => u.kinds[0] === kind);
  });
  const pairs = singles.flatMap((a, i) =>
    singles.slice(i + 1).flatMap((b) =>
      a.kinds[0] === b.kinds[0]
        ? []
        : MIXES.map((much): Example => ({
            place: placeOf(together(a.sound, b.sound, much)),
            kinds: both(a, b),
            against: (TOGETHER[both(a, b).join('+')] ?? 0) + (named.includes(a) && named.includes(b) ? 0 : UNNAMED),
          })),
    ),
  );
  const own = named.filter((n) => n.kinds.length > 1);
  return [...[...singles, ...own].map((n) => ({ place: placeOf(n.sound), kinds: n.kinds, against: 0 })), ...pairs];
}

function both(a: Named, b: Named): readonly HeardKind[] {
  return HEARD_KINDS.filter((k) => a.kinds.includes(k) || b.kinds.includes(k));
}

function together(a: StrokeSound, b: StrokeSound, much: number): Pick<StrokeSound, 'early' | 'late'> {
  const scale = (much * (sum(a.early) + 1e-12)) / (sum(b.early) + 1e-12);
  const mixed = (x: readonly number[], y: readonly number[]): number[] => x.map((e, k) => e + scale * (y[k] ?? 0));
  return { early: mixed(a.early, b.early), late: mixed(a.late, b.late) };
}

/** How far two places lie apart. A plain loop: it is asked hundreds of times for every stroke. */
function apart(a: Point, b: Point): number {
  let whole = 0;
  for (let k = 0; k < a.length; k++) whole += ((a[k] ?? 0) - (b[k] ?? 0)) ** 2;
  return sqrt(whole);
}

function proposal(place: Point, examples: readonly Example[]): Proposal {
  const far = new Map<string, { readonly kinds: readonly HeardKind[]; readonly near: number[] }>();
  for (const e of examples) {
    const key = e.kinds.join('+');
    const d = e.against + apart(e.place, place);
    const known = far.get(key);
    if (known) known.near.push(d);
    else far.set(key, { kinds: e.kinds, near: [d] });
  }
  const ranked = [...far.values()]
    .map(({ kinds, near }) => {
      // The nearest few of each: one odd example does not decide.
      const few = near.sort((a, b) => a - b).slice(0, min(NEAREST, ceil(near.length / 2)));
      return { kinds, far: sum(few) / few.length };
    })
    .sort((a, b) => a.far - b.far);
  const [first, second] = ranked;
  if (!first) return { kinds: ['drum'], sure: 0 };
  const sure = second ? 1 / (1 + exp(-2.2 * (second.far - first.far))) : 1;
  return { kinds: first.kinds, sure };
}

const USUAL: readonly Named[] = USUAL_SOUNDS.map(([kind, early, late]) => ({
  kinds: [kind],
  sound: { early: early.map((e) => exp(e)), late: late.map((e) => exp(e)), loud: 0 },
}));
