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
  | { readonly kind: 'heights'; readonly heard: number; readonly meant: number }
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
 * stopped, another tempo, all of it late, swung), then what costs the ear most, whatever its kind, and what makes a
 * take messy before what leaves it close. Nothing that chance explains. Verdict and words both follow from it.
 * `heights` is by how many decibels accents must lie above ghosts, where that was made a condition.
 */
export function findingsOf(
  r: TakeReading,
  slotSeconds: number,
  strictness: Strictness = 'usual',
  heights: number | null = null,
): readonly Finding[] {
  if (r.many === 0) return [{ kind: 'silence', small: false }];
  const wide = WIDER[strictness];
  return [
    ...wholeFindings(r, wide),
    ...[
      ...countFindings(r),
      ...faultFindings(r, wide),
      ...restFindings(r, slotSeconds, strictness),
      ...heightFindings(r, wide, heights),
    ]
      .map((finding) => ({ finding, cost: costOf(finding, r) }))
      .sort((a, b) => Number(a.finding.small) - Number(b.finding.small) || b.cost - a.cost)
      .map(({ finding }) => finding),
  ];
}

/**
 * What a stroke that is not there, one too many, a grace stroke that is not there, and a decibel too little between
 * accents and ghosts cost, in milliseconds off.
 */
const AS_FAR_OFF = { lost: 60, extra: 45, grace: 30, decibel: 3 } as const;
/** All of it late together is heard least, and a scatter is half made of what nobody hears. */
const HEARD = { shift: 1 / 4, uneven: 1 / 2 } as const;

/**
 * What a finding costs the ear: how far the strokes it is about are off, squared, by their share of all: the part of
 * the mean square that would go with it.
 */
function costOf(f: Finding, r: TakeReading): number {
  const share = (many: number): number => many / Math.max(1, r.strokes);
  switch (f.kind) {
    case 'left-out':
      return share(f.times) * AS_FAR_OFF.lost ** 2;
    case 'extra':
      return share(f.many) * AS_FAR_OFF.extra ** 2;
    case 'grace':
      return share(f.times) * AS_FAR_OFF.grace ** 2;
    case 'limb':
      return share(r.byLimb.find((l) => l.limb === f.limb)?.many ?? 0) * f.off ** 2;
    case 'place':
      return share(r.byPlace.find((p) => p.index === f.index)?.many ?? 0) * f.off ** 2;
    case 'off-beats':
      return f.off ** 2 / 2;
    case 'shift':
      return HEARD.shift * f.off ** 2;
    case 'drift':
      return ((f.off * f.seconds) / 60) ** 2 / 12;
    case 'uneven':
      return HEARD.uneven * f.spread ** 2;
    case 'hands':
      return 0;
    case 'heights':
      // As a condition it is missed by so much; else it is named where there is nothing else.
      return f.small ? 0 : (AS_FAR_OFF.decibel * decibels(f.meant / Math.max(1e-3, f.heard))) ** 2;
    // These stand first, and are not compared.
    case 'silence':
    case 'part':
    case 'begins':
    case 'stops':
    case 'tempo':
    case 'swing':
      return Infinity;
  }
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
  return found;
}

/** So many decibels short of what was asked for is near it, and twice as many is small. */
const NEAR = 1;

/**
 * By how many decibels one loudness lies above another, of which it is so many times.
 * @example
 * decibels(2).toFixed(1) // => "6.0"
 */
export const decibels = (times: number): number => 20 * Math.log10(times);

/** Accents against ghosts: as a condition where it was chosen, else only where they are hardly apart. */
function heightFindings(r: TakeReading, wide: number, heights: number | null): Finding[] {
  const { accentGhost: heard, meantRatio } = r;
  if (heard === null || meantRatio === null) return [];
  if (heights === null)
    // Less than half of the difference that was meant is heard as none.
    return heard < 1 + (meantRatio - 1) / 2 ? [{ kind: 'heights', heard, meant: meantRatio, small: true }] : [];
  // A tenth of a decibel is more than anything here can measure.
  const short = Math.round(10 * (heights - decibels(heard))) / 10;
  return short > NEAR * wide
    ? [{ kind: 'heights', heard, meant: 10 ** (heights / 20), small: short <= 2 * NEAR * wide }]
    : [];
}
