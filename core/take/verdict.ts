import { count } from '../base';
import type { Schools } from '../time';
import { LIMB_WORDS, VOICE } from '../stroke';
import { placeWords, type Pattern } from '../pattern';
import type { Measured, StageKind } from '../drill';
import type { Reading } from './reading';

export const STRICTNESS = ['easy', 'usual', 'strict'] as const;
export type Strictness = (typeof STRICTNESS)[number];

/** By how much the limits are wider or narrower. */
const WIDER: Readonly<Record<Strictness, number>> = { easy: 1.5, usual: 1, strict: 0.7 };

/**
 * Limits of a clean take, in milliseconds and shares: a spread of 8 ms is near the least that trained drummers keep
 * with a metronome (Repp 2005, Sensorimotor synchronization: a review); 6 % of a slot leaves wide slots their room; 10
 * ms is where two strokes begin to be heard as two. `close` is what is within these many times the limits.
 */
export const LIMITS = Object.freeze({ spread: 8, slotShare: 0.06, mean: 10, close: 1.8, closeMissed: 0.03 });

export type TakeVerdict = 'clean' | 'close' | 'loose';

/** The least spread, in milliseconds, that a slot of so many seconds asks for. */
export function spreadLimit(slotSeconds: number, strictness: Strictness = 'usual'): number {
  return Math.max(LIMITS.spread, LIMITS.slotShare * slotSeconds * 1000) * WIDER[strictness];
}

/**
 * Clean, close or loose: clean when the spread is at most max(8 ms, 6 % of a slot), the mean within 10 ms and nothing
 * missed.
 * @example
 * verdictOf({ mean: 4, spread: 7, missed: 0, extra: 0, strokes: 64 }, 0.125) // => "clean"
 * verdictOf({ mean: 4, spread: 12, missed: 0, extra: 0, strokes: 64 }, 0.125) // => "close"
 * verdictOf({ mean: 4, spread: 30, missed: 0, extra: 0, strokes: 64 }, 0.125) // => "loose"
 */
export function verdictOf(
  r: Pick<Reading, 'mean' | 'spread' | 'missed' | 'extra' | 'strokes'>,
  slotSeconds: number,
  strictness: Strictness = 'usual',
): TakeVerdict {
  const wide = WIDER[strictness];
  const spread = r.spread / spreadLimit(slotSeconds, strictness);
  const mean = Math.abs(r.mean) / (LIMITS.mean * wide);
  const wrong = r.missed + r.extra;
  if (spread <= 1 && mean <= 1 && wrong === 0) return 'clean';
  if (spread <= LIMITS.close && mean <= LIMITS.close && wrong <= Math.max(1, r.strokes * LIMITS.closeMissed))
    return 'close';
  return 'loose';
}

/**
 * What is said of a try that was decided by its loops, so that it never contradicts the decision: clean when enough
 * loops in a row were, else close at best, though all of it together may lie within the limits.
 * @example
 * tryVerdict('close', true) // => "clean"
 * tryVerdict('clean', false) // => "close"
 * tryVerdict('loose', false) // => "loose"
 */
export function tryVerdict(together: TakeVerdict, passed: boolean): TakeVerdict {
  if (passed) return 'clean';
  return together === 'clean' ? 'close' : together;
}

/** The one thing to fix first, in words, and the kind of stage that fixes it. */
export interface Fix {
  readonly words: string;
  readonly stage: StageKind | null;
  /** Index of the stroke it is about; null for the whole. */
  readonly index: number | null;
}

/** A drift, in ms a minute, below this is nobody's fault; and it must have led somewhere that can be heard. */
const LEAST_DRIFT = 40;

/** A fault of a limb or place counts when it is this many ms from the rest. */
const LEAST_FAULT = 6;

/**
 * What to fix first: what was left out, then a limb or a place that drags or hurries against the rest, then the whole
 * lying late or early, running away, unevenness. Null when nothing is worth saying.
 */
export function firstFix(pattern: Pattern, r: Reading, slotSeconds: number, schools: Schools): Fix | null {
  if (r.many === 0)
    return { words: 'Nothing was heard. Check what listens, and its latency.', stage: null, index: null };
  const lost = [...r.byPlace].sort((a, b) => b.missed - a.missed)[0];
  if (lost && lost.missed > 0 && r.missed > 0) {
    const s = pattern.strokes[lost.index];
    return {
      words: `${s ? `The ${s.limb === 'K' || s.limb === 'J' ? VOICE[s.voice].name : LIMB_WORDS[s.limb]} on ${placeWords(pattern, s.at, schools)}` : 'A stroke'} is left out ${count(lost.missed, 'time')}.`,
      stage: 'part',
      index: lost.index,
    };
  }
  const fault = placeFault(pattern, r, schools) ?? limbFault(r);
  if (fault) return fault;
  if (Math.abs(r.drift) > LEAST_DRIFT && (Math.abs(r.drift) * r.seconds) / 60 > LIMITS.mean)
    return {
      words: `It ${r.drift > 0 ? 'falls back' : 'runs away'} by ${ms(r.drift)} a minute.`,
      stage: 'steady-foot',
      index: null,
    };
  if (Math.abs(r.mean) > LIMITS.mean)
    return {
      words: `All of it lies ${ms(r.mean)} ${r.mean > 0 ? 'behind' : 'ahead of'} the click.`,
      stage: 'bare',
      index: null,
    };
  if (r.spread > spreadLimit(slotSeconds))
    return { words: `Uneven: strokes scatter by ${ms(r.spread)}.`, stage: 'bare', index: null };
  if (r.extra > 0) return { words: `${count(r.extra, 'stroke')} too many.`, stage: 'bare', index: null };
  if (r.leftRight !== null && Math.abs(r.leftRight) > 12)
    return {
      words: `The ${r.leftRight > 0 ? 'left' : 'right'} hand is softer than the other.`,
      stage: 'dynamics',
      index: null,
    };
  // Less than half of the difference that was meant is heard as none.
  if (r.accentGhost !== null && r.meantRatio !== null && r.accentGhost < 1 + (r.meantRatio - 1) / 2)
    return {
      words: `Heights too alike: loud strokes are ${r.accentGhost.toFixed(1)} times as loud as soft ones, ${r.meantRatio.toFixed(1)} are meant.`,
      stage: 'dynamics',
      index: null,
    };
  return null;
}

function ms(n: number): string {
  return `${Math.round(Math.abs(n))} ms`;
}

/** A place that stands out from its own limb, and by more than its own scatter explains. */
function placeFault(pattern: Pattern, r: Reading, schools: Schools): Fix | null {
  const found = r.byPlace
    .filter((p) => p.many >= 2)
    .map((p) => ({ ...p, off: p.mean - r.mean }))
    .filter((p) => Math.abs(p.off) > Math.max(LEAST_FAULT, (2.5 * p.spread) / Math.sqrt(p.many)))
    .sort((a, b) => Math.abs(b.off) - Math.abs(a.off))[0];
  const s = found ? pattern.strokes[found.index] : undefined;
  if (!found || !s) return null;
  const what = s.limb === 'R' || s.limb === 'L' ? LIMB_WORDS[s.limb] : VOICE[s.voice].name;
  return {
    words: `The ${what} on ${placeWords(pattern, s.at, schools)} ${found.off > 0 ? 'drags' : 'hurries'} ${ms(found.off)}.`,
    stage: s.limb === 'R' || s.limb === 'L' ? 'part' : 'skeleton',
    index: found.index,
  };
}

function limbFault(r: Reading): Fix | null {
  const found = r.byLimb
    .filter((l) => l.many >= 3)
    .map((l) => ({ ...l, off: l.mean - r.mean }))
    .filter((l) => Math.abs(l.off) > LEAST_FAULT)
    .sort((a, b) => Math.abs(b.off) - Math.abs(a.off))[0];
  if (!found) return null;
  const foot = found.limb !== 'R' && found.limb !== 'L';
  return {
    words: `The ${LIMB_WORDS[found.limb]} ${found.off > 0 ? 'drags' : 'hurries'} ${ms(found.off)}.`,
    stage: foot ? 'skeleton' : 'bare',
    index: null,
  };
}

/** What the log keeps of a reading. */
export function measuredOf(r: Reading, fix: Fix | null): Measured {
  const one = (n: number): number => Math.round(n * 10) / 10;
  return {
    mean: one(r.mean),
    spread: one(r.spread),
    missed: r.missed,
    extra: r.extra,
    strokes: r.strokes,
    drift: one(r.drift),
    limbs: r.byLimb.map((l) => ({ limb: l.limb, mean: one(l.mean), spread: one(l.spread) })),
    fix: fix?.words ?? '',
  };
}
