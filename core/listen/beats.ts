import MusicTempo from 'music-tempo';
import { firstPlace, sum } from '../base';
import type { Flux } from './flux';
import type { HeardOnset } from './strokes-heard';

const { abs, ceil, exp, floor, log, log2, max, min, round } = Math;

/** A beat that is proposed: quarters a minute and where the beats lie. */
export interface BeatChoice {
  /** Beats a minute, in the middle of the recording. */
  readonly bpm: number;
  /** Seconds of every beat from the first stroke to the last. */
  readonly beats: readonly number[];
  /** Which of the beats is the first 1. */
  readonly first: number;
  /** Share of the beats on which something is struck, 0–1. */
  readonly struck: number;
}

/** At most so many seconds are given to the search for a tempo: it takes as long again for each. */
const LOOKED_AT = 30;
/** Tempos that are beaten, in beats a minute, and the one that is beaten most. */
const BEATEN = { least: 45, most: 230, usual: 108, octaves: 0.62 } as const;
/** The package counts double or half at times, and in threes. */
const TIMES = [1, 1 / 2, 2, 2 / 3, 3 / 2, 1 / 3, 3, 4 / 3, 3 / 4] as const;
/** A beat is on a stroke that is so near, in seconds. */
const NEAR = 0.045;
/** How much it is worth that the first stroke is on a beat. */
const BEGINS = 0.6;
/** And how much more, where its beats lie, of one that comes after silence: whoever begins, begins on a beat. */
const AFTER_SILENCE = 1;
/** Silence before the first stroke is at least so long, in seconds. */
const SILENT = 0.2;
/** How much less alike bars of another number of beats than four are taken to be. */
const OTHER_BAR = 0.15;
/** And that all beats are struck. */
const STRUCK = 1.2;
/** How much even beats are worth against strong ones. */
const EVEN = 120;

/**
 * The beats of a recording, the likeliest first, so that half and double stand beside it; empty where no beat is found.
 * A package finds the tempo in the part with the most strokes; which of its multiples is beaten, and where each beat
 * lies, follows from what is struck: beats are laid by dynamic programming over what is new (after Ellis, 2007) and
 * drawn to the strokes beside them.
 * @param samples one channel
 * @param rate samples a second
 * @example
 * beatsHeard(new Float32Array(44100), 44100, fluxOf(new Float32Array(44100), 44100), []) // => []
 */
export function beatsHeard(
  samples: Float32Array,
  rate: number,
  flux: Flux,
  onsets: readonly HeardOnset[],
): readonly BeatChoice[] {
  if (onsets.length < 4) return [];
  const found = packageTempo(samples, rate, onsets);
  if (found === null) return [];
  const afterSilence = (onsets[0]?.at ?? 0) > SILENT;
  const tried = TIMES.map((t) => found * t).filter((bpm) => bpm >= BEATEN.least && bpm <= BEATEN.most);
  return tried
    .map((bpm) => {
      const places = placesOf(bpm, flux, onsets).map((choice) => {
        const begins = near(onsets.slice(0, 1), choice.beats[0] ?? -1) !== null;
        const worth = worthOf(choice, flux, onsets) + (begins ? BEGINS : 0);
        return { choice, worth, here: worth + (begins && afterSilence ? AFTER_SILENCE : 0) };
      });
      // What a tempo is worth is told apart from where its beats lie.
      const { choice } = places.reduce((a, b) => (b.here > a.here ? b : a));
      return { choice, worth: max(...places.map((p) => p.worth)) };
    })
    .sort((a, b) => b.worth - a.worth)
    .map((c) => c.choice)
    .filter((c, i, all) => all.findIndex((o) => abs(o.bpm / c.bpm - 1) < 0.03) === i);
}

function packageTempo(samples: Float32Array, rate: number, onsets: readonly HeardOnset[]): number | null {
  // The package knows one rate only.
  const long = min(samples.length / rate, LOOKED_AT);
  const from = max(0, min(busiest(onsets, long), samples.length / rate - long));
  const at = (i: number): number => samples[floor((from + i / 44_100) * rate)] ?? 0;
  const part = Float32Array.from({ length: floor(long * 44_100) }, (_, i) => at(i));
  try {
    const { tempo } = new MusicTempo(part, { timeStep: 441 / 44_100, hopSize: 441 });
    const bpm = Number(tempo);
    return Number.isFinite(bpm) && bpm > 0 ? bpm : null;
  } catch {
    // It throws words where there is nothing to find.
    return null;
  }
}

/** Where the seconds begin in which most is struck. */
function busiest(onsets: readonly HeardOnset[], long: number): number {
  let [best, most, end] = [0, 0, 0];
  onsets.forEach((o, i) => {
    while (end < onsets.length && (onsets[end]?.at ?? 0) < o.at + long) end++;
    if (end - i > most) [best, most] = [o.at, end - i];
  });
  return max(0, best - 0.1);
}

/**
 * Beats near a tempo, as they go along with what is played; and the same beats moved so that the first stroke is on
 * one, which is where recordings of a phrase begin.
 */
function placesOf(bpm: number, flux: Flux, onsets: readonly HeardOnset[]): readonly BeatChoice[] {
  const drawn = pathOf(bpm, flux, onsets);
  const [from, to] = [onsets[0]?.at ?? 0, onsets.at(-1)?.at ?? 0];
  const beats = reaching(drawn, from - NEAR, to + NEAR);
  const k = beats.findIndex((t) => t > from + NEAR);
  const [next, after] = [beats[k] ?? 0, beats[k + 1] ?? 0];
  const share = k >= 0 && after > next ? (next - from) / (after - next) : 0;
  const moved = [1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4].find((f) => abs(f - share) * (after - next) < NEAR);
  const all = [
    beats,
    ...(moved === undefined ? [] : [reaching(toStrokes(earlier(drawn, moved), onsets), from - NEAR, to + NEAR)]),
  ];
  return all.map((laidOut) => {
    const struck = laidOut.filter((t) => near(onsets, t) !== null).length / max(1, laidOut.length);
    return { bpm: tempoOf(laidOut) ?? bpm, beats: laidOut, first: firstOf(laidOut, flux, onsets), struck };
  });
}

/** Beats drawn to the strokes beside them. */
function toStrokes(times: readonly number[], onsets: readonly Struck[]): readonly number[] {
  return smoothed(
    times,
    times.map((t) => near(onsets, t)?.at ?? null),
  );
}

/** When something was struck, in seconds. */
type Struck = Pick<HeardOnset, 'at'>;

/** Beats near a tempo as they go along with a curve of what is new, drawn to what is struck beside them. */
function pathOf(bpm: number, { hop, all }: Pick<Flux, 'hop' | 'all'>, onsets: readonly Struck[]): readonly number[] {
  const path = laid(60 / bpm / hop, all).map((n) => n * hop);
  return toStrokes(path, onsets);
}

/**
 * Beats near a tempo through moments at which something was struck, ascending and in seconds, from the first to the
 * last: they follow a tempo that drifts. Empty where there are not two.
 * @example
 * beatsAlong([0, 0.5, 1, 1.5, 2].map((at) => ({ at, force: 1 })), 120).length // => 5
 */
export function beatsAlong(struck: readonly (Struck & { readonly force: number })[], bpm: number): readonly number[] {
  const [first, last] = [struck[0], struck.at(-1)];
  if (!first || !last || last.at <= first.at) return [];
  const hop = 0.006;
  const begin = first.at - 0.1;
  const all = new Float32Array(ceil((last.at - begin) / hop) + 20);
  for (const { at, force } of struck) {
    const n = round((at - begin) / hop);
    for (let k = -3; k <= 3; k++) all[n + k] = max(all[n + k] ?? 0, force * (1 - abs(k) / 4));
  }
  const own = struck.map(({ at }) => ({ at: at - begin }));
  const beats = reaching(pathOf(bpm, { hop, all }, own), first.at - begin - NEAR, last.at - begin + NEAR);
  return beats.length < 2 ? [] : beats.map((t) => t + begin);
}

/** Beats moved towards the beginning by a share of a beat. */
function earlier(beats: readonly number[], share: number): readonly number[] {
  return beats.map((b, i) => b - share * ((beats[i + 1] ?? b) - b || b - (beats[i - 1] ?? b)));
}

/** Beats from one moment to another: gone on with at both ends where they do not reach, cut where they reach over. */
function reaching(beats: readonly number[], from: number, to: number): readonly number[] {
  if (beats.length < 2) return beats;
  const all = [...beats];
  for (let gap = (all[1] ?? 0) - (all[0] ?? 0); gap > 0.1 && (all[0] ?? 0) - gap >= from;)
    all.unshift((all[0] ?? 0) - gap);
  for (let gap = (all.at(-1) ?? 0) - (all.at(-2) ?? 0); gap > 0.1 && (all.at(-1) ?? 0) + gap <= to;)
    all.push((all.at(-1) ?? 0) + gap);
  return all.filter((t) => t >= from && t <= to);
}

function near(onsets: readonly Struck[], at: number): Struck | null {
  let best: Struck | null = null;
  const next = firstPlace(onsets.length, (i) => (onsets[i]?.at ?? 0) >= at);
  for (const o of [onsets[next - 1], onsets[next]])
    if (o && abs(o.at - at) <= NEAR && (!best || abs(o.at - at) < abs(best.at - at))) best = o;
  return best;
}

/** Frames of beats so many frames apart that lie on what is new and come evenly. */
function laid(period: number, all: Float32Array): readonly number[] {
  const [closest, widest] = [round(period * 0.8), round(period * 1.25)];
  const cost = Float64Array.from({ length: widest + 1 }, (_, d) => (d < closest ? 0 : -EVEN * log(d / period) ** 2));
  const score = new Float64Array(all.length);
  const back = new Int32Array(all.length).fill(-1);
  const mean = max(1e-6, sum([...all]) / max(1, all.length));
  for (let n = 0; n < all.length; n++) {
    let [best, from] = [0, -1];
    for (let d = closest; d <= widest && d <= n; d++) {
      const s = (score[n - d] ?? 0) + (cost[d] ?? 0);
      if (s > best) [best, from] = [s, n - d];
    }
    score[n] = max(all[n] ?? 0, ((all[n - 1] ?? 0) + (all[n + 1] ?? 0)) * 0.4) / mean / 10 + best;
    back[n] = from;
  }
  let last = max(0, all.length - round(period));
  for (let n = last; n < all.length; n++) if ((score[n] ?? 0) > (score[last] ?? 0)) last = n;
  const path: number[] = [];
  for (let n = last; n >= 0; n = back[n] ?? -1) path.push(n);
  return path.reverse();
}

/**
 * Beats on a line through the strokes on their neighbours: one stroke that strays does not bend the grid, and a beat
 * without a stroke says nothing where there are others.
 */
function smoothed(beats: readonly number[], struck: readonly (number | null)[]): readonly number[] {
  const reach = 4;
  return beats.map((own, i) => {
    const from = max(0, i - reach);
    const some = beats
      .slice(from, i + reach + 1)
      .map((b, k) => ({ v: struck[from + k] ?? b, i: k, on: struck[from + k] !== null }));
    const on = some.filter((p) => p.on);
    return line(on.length >= FEW ? on : some, i - from) ?? own;
  });
}

/** So many strokes tell a line by themselves. */
const FEW = 4;

/** The value at a place on the line that fits points best, without the ones that lie far from it. */
function line(points: readonly { readonly v: number; readonly i: number }[], place: number): number | null {
  let kept = points;
  for (let round = 0; round < 2; round++) {
    const n = kept.length;
    if (n < 2) return null;
    const [mi, mv] = [sum(kept.map((k) => k.i)) / n, sum(kept.map((k) => k.v)) / n];
    const slope = sum(kept.map((k) => (k.i - mi) * (k.v - mv))) / max(1e-9, sum(kept.map((k) => (k.i - mi) ** 2)));
    const at = (i: number): number => mv + slope * (i - mi);
    const off = kept.map((k) => abs(k.v - at(k.i)));
    const usual = [...off].sort((a, b) => a - b)[floor(n / 2)] ?? 0;
    if (round === 1) return at(place);
    kept = kept.filter((_, k) => (off[k] ?? 0) <= max(0.006, usual * 2.5));
  }
  return null;
}

/** Beats a minute in the middle of some beats. */
function tempoOf(beats: readonly number[]): number | null {
  const gaps = beats.slice(1).map((b, i) => b - (beats[i] ?? 0));
  if (gaps.length < 2) return null;
  const sorted = [...gaps].sort((a, b) => a - b);
  const inner = sorted.slice(floor(sorted.length * 0.25), ceil(sorted.length * 0.75));
  return (60 * inner.length) / sum(inner);
}

/**
 * What a way to beat is worth: strong beats, weak places between them, beats that come round with the bar, and a tempo
 * that people beat.
 */
function worthOf({ bpm, beats, struck }: BeatChoice, flux: Flux, onsets: readonly HeardOnset[]): number {
  if (beats.length < 3) return -Infinity;
  const at = (t: number): number => newAt(flux.all, flux.hop, t);
  const on = sum(beats.map(at)) / beats.length;
  const between = beats.slice(1).map((b, i) => (b + (beats[i] ?? 0)) / 2);
  const off = sum(between.map(at)) / max(1, between.length);
  const far = log2(bpm / BEATEN.usual) / BEATEN.octaves;
  const usual = sum(onsets.map((o) => at(o.at))) / onsets.length;
  const round = max(0, ...barsHeard(beats, flux).map((b) => b.alike - (b.beats === 4 ? 0 : OTHER_BAR)));
  return (on - 0.5 * off) / max(1e-6, usual) + exp(-0.5 * far * far) + 1.5 * round + STRUCK * struck;
}

/** How much is new round a moment. */
function newAt(curve: Float32Array, hop: number, at: number): number {
  const n = round(at / hop);
  let most = 0;
  for (let k = n - 4; k <= n + 4; k++) most = max(most, curve[k] ?? 0);
  return most;
}

/** A bar of so many beats, and how alike what is played in one is to the next: 1 for the same. */
export interface BarChoice {
  readonly beats: number;
  readonly alike: number;
}

/** Places in a beat that are looked at: eighths, triplets and 16ths are among them. */
const PLACES = 12;

/**
 * How alike beats are to those so many later, for bars of two to nine beats, the most alike first: what is played comes
 * round with the bar. Empty where there are too few beats to tell.
 */
export function barsHeard(beats: readonly number[], flux: Flux): readonly BarChoice[] {
  const rows = beats.slice(0, -1).map((b, i) => {
    const gap = (beats[i + 1] ?? b) - b;
    return Array.from({ length: PLACES }, (_, k) => b + (gap * k) / PLACES).flatMap((t) => [
      newAt(flux.low, flux.hop, t),
      newAt(flux.high, flux.hop, t),
    ]);
  });
  // What all beats share tells nothing.
  const mean = Array.from({ length: 2 * PLACES }, (_, k) => sum(rows.map((r) => r[k] ?? 0)) / max(1, rows.length));
  const bare = rows.map((r) => r.map((x, k) => x - (mean[k] ?? 0)));
  const dot = (a: readonly number[], b: readonly number[]): number => sum(a.map((x, k) => x * (b[k] ?? 0)));
  return [2, 3, 4, 5, 6, 7, 8, 9]
    .filter((many) => bare.length >= many + max(2, many / 2))
    .map((many) => {
      let [both, whole] = [0, 1e-9];
      for (let i = 0; i + many < bare.length; i++) {
        const [a, b] = [bare[i] ?? [], bare[i + many] ?? []];
        both += dot(a, b);
        whole += (dot(a, a) + dot(b, b)) / 2;
      }
      return { beats: many, alike: max(0, both / whole) };
    })
    .sort((a, b) => b.alike - a.alike);
}

/** Beats of a bar that comes round: what comes round in two bars of it comes round in one of them too. */
const BAR_OF: Readonly<Record<number, number>> = { 2: 4, 3: 3, 4: 4, 5: 5, 6: 3, 7: 7, 8: 4, 9: 3 };
/** Less alike than this, nothing is said of the bar, and four beats are supposed. */
const ALIKE = 0.3;

/** Which beat is the first 1: where bars begin low and strong, and what is heard first. */
function firstOf(beats: readonly number[], flux: Flux, onsets: readonly HeardOnset[]): number {
  const [most] = barsHeard(beats, flux);
  const bar = most && most.alike >= ALIKE ? (BAR_OF[most.beats] ?? 4) : 4;
  const begins = onsets[0]?.at ?? 0;
  const worth = Array.from({ length: min(bar, beats.length) }, (_, k) => {
    const ones = beats.filter((_, i) => i % bar === k);
    const low = sum(ones.map((t) => newAt(flux.low, flux.hop, t))) / ones.length;
    const all = sum(ones.map((t) => newAt(flux.all, flux.hop, t))) / ones.length;
    const first = abs((beats[k] ?? 0) - begins) < NEAR ? 1.5 : 0;
    return low + 0.5 * all + first;
  });
  return worth.reduce((best, w, k) => (w > (worth[best] ?? 0) ? k : best), 0);
}
