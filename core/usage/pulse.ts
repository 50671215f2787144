import { sum } from '../base';
import { barTicks, quarterTempo, secondsOf, TEMPO, type Meter } from '../time';
import { beatsAlong, layOf, layTick, tempoBeat, type Lay } from '../listen';
import { VOICE } from '../stroke';
import type { Hit } from '../take';
import type { Came } from './recognise';

const { abs, ceil, exp, floor, log2, max, min, round } = Math;

/** A tempo that was found under what was played without a click. */
export interface Pulse {
  /** Counted beats a minute, in the middle of what was played. */
  readonly bpm: number;
  readonly lay: Lay;
  /** How far hits lie beside what they would be counted on, in ms on average. */
  readonly off: number;
}

/** Tempos that are beaten, in beats a minute, and the one that is beaten most. */
const BEATEN = { least: 50, most: 210, usual: 105, octaves: 0.6 } as const;
/** So many tempos are tried, and fewer hits tell none. */
const TRIED = 5;
const LEAST_HITS = 12;
/** Lags are looked at in so many milliseconds. */
const STEP = 4;
/** What is worth as much as so many ms beside the counts: a tempo an octave from the usual one, beats left out. */
const UNUSUAL = 9;
const EMPTY = 10;
/** Thirds of a beat are so much less usual than its quarters. */
const THIRDS = 1.25;
/** Hits at most that are compared with those after them. */
const COMPARED = 4000;

/**
 * The tempos under what was played without a click, the likeliest first: a tempo that drifts is followed. A tempo is
 * likely where hits lie on quarters and thirds of its beats, beats are struck, and people count so. Empty where too
 * little was played.
 * @example
 * pulsesIn([], meter(4, 4)) // => []
 */
export function pulsesIn(hits: readonly Hit[], meter: Meter): readonly Pulse[] {
  const struck = [...hits]
    .sort((a, b) => a.seconds - b.seconds)
    .map((h) => ({ at: h.seconds, force: h.velocity === null ? 0.7 : 0.3 + (0.7 * h.velocity) / 127 }));
  if (struck.length < LEAST_HITS) return [];
  return candidates(struck)
    .flatMap((tempo): (Pulse & { readonly cost: number })[] => {
      const beats = beatsAlong(struck, tempo);
      if (beats.length < 4) return [];
      const lay = layOf({ bpm: tempo, beats, first: firstOf(beats, hits, meter), struck: 0 }, meter);
      if (!lay) return [];
      const off = besideCounts(beats, struck);
      const bpm = (60 * (beats.length - 1)) / ((beats.at(-1) ?? 0) - (beats[0] ?? 0));
      if (bpm < TEMPO.least || bpm > TEMPO.most) return [];
      const far = abs(log2(bpm / BEATEN.usual));
      return [{ bpm, lay, off, cost: off + UNUSUAL * far ** 2 + EMPTY * (1 - struckShare(beats, struck)) }];
    })
    .sort((a, b) => a.cost - b.cost)
    .filter((c, i, all) => all.findIndex((o) => abs(o.bpm / c.bpm - 1) < 0.03) === i)
    .map(({ cost: _, ...pulse }) => pulse);
}

/** Where nothing of the shelf tells tempos apart, the likelier one is so much better. */
const FIRST = 1.2;

/**
 * Which of several tempos it is, by what of the shelf came in each: the place of the best, the likeliest first.
 * @param came what came at each tempo
 * @example
 * bestPulse([[], []]) // => 0
 */
export function bestPulse(came: readonly (readonly Pick<Came, 'chance' | 'struck'>[])[]): number {
  const worth = came.map((own, i) => own.reduce((all, c) => all + c.chance * c.struck, 0) * (i === 0 ? FIRST : 1));
  return worth.reduce((best, w, i) => (w > (worth[best] ?? 0) ? i : best), 0);
}

/**
 * Hits as they would lie over a click: seconds from the first bar line at an even tempo, none before it.
 * @param bpm counted beats a minute, the tempo they are laid on
 */
export function steadied(hits: readonly Hit[], lay: Lay, bpm: number): readonly Hit[] {
  const first = hits.reduce((least, h) => min(least, h.seconds), Infinity);
  if (!Number.isFinite(first)) return [];
  const bar = barTicks(lay.meter);
  const from = floor(layTick(lay, first) / bar + 0.02) * bar;
  const quarter = quarterTempo(bpm, lay.meter);
  return hits.map((h) => ({ ...h, seconds: secondsOf(layTick(lay, h.seconds) - from, quarter) }));
}

type Struck = readonly { readonly at: number; readonly force: number }[];

/** Tempos at which what is struck comes again, the clearest first, with their halves and doubles. */
function candidates(struck: Struck): readonly number[] {
  const lags = ceil(60_000 / BEATEN.least / STEP);
  const again = new Float64Array(lags + 1);
  const some = struck.slice(0, COMPARED);
  some.forEach((a, i) => {
    for (let k = i + 1; k < some.length; k++) {
      const b = some[k];
      const lag = b ? round(((b.at - a.at) * 1000) / STEP) : Infinity;
      if (!b || lag > lags) break;
      for (let d = -4; d <= 4; d++) {
        const n = lag + d;
        if (n >= 0 && n <= lags) again[n] = (again[n] ?? 0) + a.force * b.force * (1 - abs(d) / 5);
      }
    }
  });
  const bpmOf = (n: number): number => 60_000 / (n * STEP);
  const peaks = Array.from({ length: lags - 1 }, (_, i) => i + 1)
    .filter((n) => bpmOf(n) <= BEATEN.most && (again[n] ?? 0) >= max(again[n - 1] ?? 0, again[n + 1] ?? 0))
    .map((n) => ({
      bpm: bpmOf(n),
      worth: (again[n] ?? 0) * exp(-0.5 * (log2(bpmOf(n) / BEATEN.usual) / BEATEN.octaves) ** 2),
    }))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, TRIED)
    .map((p) => p.bpm);
  const all = peaks.flatMap((bpm) => [bpm, bpm / 2, 2 * bpm]);
  return all
    .filter((bpm) => bpm >= BEATEN.least && bpm <= BEATEN.most)
    .filter((bpm, i, known) => known.findIndex((o) => abs(o / bpm - 1) < 0.02) === i);
}

/** How far hits lie beside quarters of a beat, or thirds where that is nearer for the beat: ms on average. */
function besideCounts(beats: readonly number[], struck: Struck): number {
  let n = 0;
  const offs = beats.slice(1).flatMap((end, i) => {
    const begin = beats[i] ?? end;
    while (n < struck.length && (struck[n]?.at ?? 0) < begin) n++;
    const inside: number[] = [];
    for (let k = n; k < struck.length && (struck[k]?.at ?? 0) < end; k++)
      inside.push(((struck[k]?.at ?? 0) - begin) / (end - begin));
    const off = (parts: number): number => sum(inside.map((x) => abs(x - round(x * parts) / parts)));
    // Four of one tempo are three of another: quarters are what is usual.
    const best = min(off(4), THIRDS * off(3));
    return inside.length === 0 ? [] : [{ ms: best * (end - begin) * 1000, many: inside.length }];
  });
  return sum(offs.map((o) => o.ms)) / max(1, sum(offs.map((o) => o.many)));
}

/** The share of beats that have something struck on them. */
function struckShare(beats: readonly number[], struck: Struck): number {
  let n = 0;
  const on = beats.filter((at) => {
    while (n < struck.length && (struck[n]?.at ?? 0) < at - 0.04) n++;
    return abs((struck[n]?.at ?? Infinity) - at) <= 0.04;
  });
  return on.length / max(1, beats.length);
}

/** Which of the first beats is a 1: where kicks and crashes are, and what is loudest, against the backbeat. */
function firstOf(beats: readonly number[], hits: readonly Hit[], meter: Meter): number {
  const many = max(1, round(barTicks(meter) / tempoBeat(meter)));
  const weights = new Float64Array(many);
  const sorted = [...hits].sort((a, b) => a.seconds - b.seconds);
  let n = 0;
  beats.forEach((at, i) => {
    while (n < sorted.length && (sorted[n]?.seconds ?? 0) < at - 0.04) n++;
    for (let k = n; k < sorted.length && (sorted[k]?.seconds ?? 0) <= at + 0.04; k++) {
      const hit = sorted[k];
      if (hit) weights[i % many] = (weights[i % many] ?? 0) + oneWorth(hit);
    }
  });
  // Whoever begins, begins on a 1.
  let best = 0;
  weights[0] = (weights[0] ?? 0) * 1.1 + 0.5;
  weights.forEach((w, i) => {
    if (w > (weights[best] ?? 0)) best = i;
  });
  return best;
}

/** How much a hit speaks for a 1. */
function oneWorth({ voice, limb, velocity }: Hit): number {
  const force = velocity === null ? 0.7 : velocity / 127;
  if (limb === 'K') return 1;
  if (voice === null) return force * 0.3;
  const { family } = VOICE[voice];
  if (family === 'foot') return voice === 'hat-foot' ? 0 : 1;
  return voice.startsWith('crash') ? 1.5 : voice.startsWith('snare') ? -0.5 * force : 0;
}
