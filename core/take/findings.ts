import type { Limb } from '../stroke';
import type { Fault } from './faults';
import type { TakeReading } from './reading';

export const STRICTNESS = ['easy', 'usual', 'strict'] as const;
export type Strictness = (typeof STRICTNESS)[number];

/** By how much the limits are wider or narrower. */
const WIDER: Readonly<Record<Strictness, number>> = { easy: 1.5, usual: 1, strict: 0.7 };

/**
 * Limits of a clean take, in milliseconds and shares: a spread of 8 ms is near the least that trained drummers keep
 * with a metronome (Repp 2005, Sensorimotor synchronization: a review); 6 % of a slot leaves wide slots their room; 10
 * ms is where two strokes begin to be heard as two. A limb or a place counts from 6 ms. What is within `close` times
 * its limit is small.
 */
export const LIMITS = Object.freeze({
  spread: 8,
  slotShare: 0.06,
  mean: 10,
  fault: 6,
  close: 1.8,
  closeFault: 3,
  closeMissed: 0.03,
  /** Milliseconds a minute: less drift is nobody's fault. */
  drift: 40,
  /** Swing, in percent of a pair, by which it must differ from what is meant. */
  swing: 3,
  /** MIDI velocity by which one hand is softer. */
  hands: 12,
});

/** A shift of the whole that is so large comes before everything else: a latency, or another beat. In milliseconds. */
const LATE = 40;
/** Standard errors that a shift, and a drift, must lie from nothing. */
const SURE = { shift: 2.5, drift: 3 } as const;

export type TakeVerdict = 'clean' | 'close' | 'loose';

/** One thing there is to say of a take. `small` leaves it close. Times in milliseconds, above 0 late. */
export type Finding = { readonly small: boolean } & (
  | { readonly kind: 'silence' }
  | { readonly kind: 'part'; readonly first: number; readonly last: number }
  | { readonly kind: 'begins'; readonly beats: number; readonly shifted: boolean }
  | { readonly kind: 'stops'; readonly turn: number }
  | { readonly kind: 'tempo'; readonly share: number }
  | { readonly kind: 'shift'; readonly off: number }
  | {
      readonly kind: 'swing';
      readonly on: '8ths' | '16ths';
      readonly percent: number;
      readonly meant: number;
      readonly off: number;
      readonly limb: Limb | null;
    }
  | { readonly kind: 'off-beats'; readonly off: number }
  | { readonly kind: 'left-out'; readonly index: number; readonly times: number }
  | { readonly kind: 'grace'; readonly index: number; readonly times: number }
  | { readonly kind: 'extra'; readonly many: number }
  | { readonly kind: 'limb'; readonly limb: Limb; readonly off: number; readonly index: number | null }
  | { readonly kind: 'place'; readonly limb: Limb; readonly index: number; readonly off: number }
  | { readonly kind: 'drift'; readonly off: number; readonly seconds: number }
  | { readonly kind: 'uneven'; readonly spread: number }
  | { readonly kind: 'hands'; readonly softer: 'R' | 'L' }
  | { readonly kind: 'heights' }
);

/**
 * The least spread, in milliseconds, that a slot of so many seconds asks for.
 * @example
 * spreadLimit(0.05) // => 8
 * spreadLimit(0.5) // => 30
 */
export function spreadLimit(slotSeconds: number, strictness: Strictness = 'usual'): number {
  return Math.max(LIMITS.spread, LIMITS.slotShare * slotSeconds * 1000) * WIDER[strictness];
}

/**
 * Everything there is to say of a take, the first to be fixed first: the take as a whole (a part only, begun late,
 * stopped, another tempo, all of it late, swung), then what was left out and added, then a limb, then a place, then
 * drift, unevenness and loudness. Nothing that chance explains. Verdict and words both follow from it.
 */
export function findingsOf(r: TakeReading, slotSeconds: number, strictness: Strictness = 'usual'): readonly Finding[] {
  if (r.many === 0) return [{ kind: 'silence', small: false }];
  const wide = WIDER[strictness];
  return [
    ...wholeFindings(r, wide),
    ...countFindings(r),
    ...faultFindings(r, wide),
    ...restFindings(r, slotSeconds, strictness),
  ];
}

function wholeFindings(r: TakeReading, wide: number): Finding[] {
  const found: Finding[] = [];
  const { part, begins, stops } = r.gaps;
  if (part) found.push({ kind: 'part', first: part.first, last: part.last, small: false });
  const { shift } = r;
  const beats = shift / r.beat;
  const byBeat = beats > 0.8;
  if (begins > 0) found.push({ kind: 'begins', beats: (begins * 1000) / r.beat, shifted: false, small: false });
  else if (byBeat) found.push({ kind: 'begins', beats, shifted: true, small: false });
  if (stops !== null) found.push({ kind: 'stops', turn: stops, small: false });
  if (r.tempo !== 1) found.push({ kind: 'tempo', share: r.tempo, small: Math.abs(r.tempo - 1) < 0.01 });
  if (!byBeat && Math.abs(shift) > LATE * wide) found.push({ kind: 'shift', off: shift, small: false });
  found.push(...r.faults.flatMap((f) => (f.kind === 'swing' ? (swingOf(r, f, wide) ?? []) : [])));
  return found;
}

function countFindings(r: TakeReading): Finding[] {
  const few = Math.max(1, r.strokes * LIMITS.closeMissed);
  const lost = [...r.byPlace].filter((p) => p.missed > 0).sort((a, b) => b.missed - a.missed);
  const small = r.missed + r.extra <= few;
  return [
    ...lost.slice(0, 3).map((p): Finding => ({ kind: 'left-out', index: p.index, times: p.missed, small })),
    ...[...r.graces]
      .sort((a, b) => b.missed - a.missed)
      .slice(0, 3)
      .map((g): Finding => ({ kind: 'grace', index: g.index, times: g.missed, small: g.missed * 4 <= g.wanted })),
    ...(r.extra > 0 ? [{ kind: 'extra', many: r.extra, small } as const] : []),
  ];
}

function faultFindings(r: TakeReading, wide: number): Finding[] {
  const large = (off: number): boolean => Math.abs(off) > LIMITS.fault * wide;
  const small = (off: number): boolean => Math.abs(off) <= LIMITS.closeFault * LIMITS.fault * wide;
  const offBeats: Finding[] = [];
  const limbs = r.faults.flatMap((f): Finding[] => {
    if (f.kind === 'place' || !large(f.off)) return [];
    if (f.kind === 'limb') return [{ ...f, small: small(f.off) }];
    // Strokes off the beat that come too early, or by less than is heard as swing: their limb, or all of them.
    if (swingOf(r, f, wide)) return [];
    if (f.limb) return [{ kind: 'limb', limb: f.limb, off: f.off, index: null, small: small(f.off) }];
    offBeats.push({ kind: 'off-beats', off: f.off, small: small(f.off) });
    return [];
  });
  const places = r.faults.flatMap((f): Finding[] =>
    f.kind === 'place' && large(f.off) ? [{ ...f, small: small(f.off) }] : [],
  );
  return [...limbs, ...places, ...offBeats];
}

/** Strokes off the beat as swing; null where they come before the middle, or by so little that it is none. */
function swingOf(r: TakeReading, f: Extract<Fault, { kind: 'swing' }>, wide: number): Finding | null {
  const meant = r.meantSwing[f.on];
  const percent = meant + (100 * f.off) / Math.max(1, f.on === '8ths' ? 2 * r.eighth : r.eighth);
  const apart = Math.abs(percent - meant);
  if (apart < LIMITS.swing * wide || percent < 50) return null;
  return { kind: 'swing', on: f.on, percent, meant, off: f.off, limb: f.limb, small: apart < 8 };
}

function restFindings(r: TakeReading, slotSeconds: number, strictness: Strictness): Finding[] {
  const wide = WIDER[strictness];
  const found: Finding[] = [];
  const drift = Math.abs(r.drift);
  const moved = (drift * r.seconds) / 60;
  if (drift > LIMITS.drift && moved > LIMITS.mean && drift > SURE.drift * r.driftError && r.driftsOn)
    found.push({ kind: 'drift', off: r.drift, seconds: r.seconds, small: moved <= 3 * LIMITS.mean });
  const { shift } = r;
  const late = Math.abs(shift);
  if (late > LIMITS.mean * wide && late <= LATE * wide && late > SURE.shift * r.error)
    found.push({ kind: 'shift', off: shift, small: late <= LIMITS.close * LIMITS.mean * wide });
  const limit = spreadLimit(slotSeconds, strictness);
  if (r.spread > limit) found.push({ kind: 'uneven', spread: r.spread, small: r.spread <= LIMITS.close * limit });
  if (r.leftRight !== null && Math.abs(r.leftRight) > LIMITS.hands * wide)
    found.push({ kind: 'hands', softer: r.leftRight > 0 ? 'L' : 'R', small: true });
  // Less than half of the difference that was meant is heard as none.
  if (r.accentGhost !== null && r.meantRatio !== null && r.accentGhost < 1 + (r.meantRatio - 1) / 2)
    found.push({ kind: 'heights', small: true });
  return found;
}
