import { checkedAt } from '../base';
import { barTicks, type Schools } from '../time';
import { countOfStroke, loopTicks, type Pattern } from '../pattern';
import type { KeptFinding, Measured, NamedStroke, CountedPlace } from '../drill';
import { findingsOf, type Finding, type Strictness, type TakeVerdict } from './findings';
import type { TakeReading } from './reading';

/**
 * Clean, close or loose: clean when there is nothing to say, close when all there is to say is small. It follows from
 * the same findings as the words do, so that a clean take has no fault and a close one never says nothing.
 */
export function verdictOf(
  r: TakeReading,
  slotSeconds: number,
  strictness: Strictness = 'usual',
  heights: number | null = null,
): TakeVerdict {
  const findings = findingsOf(r, slotSeconds, strictness, heights);
  if (findings.length === 0) return 'clean';
  return findings.every((f) => f.small) ? 'close' : 'loose';
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

/** The one thing to fix first. */
export interface Fix {
  readonly finding: KeptFinding;
  /** Index of the stroke it is about; null for the whole. */
  readonly index: number | null;
}

/** What to fix first: the first of the findings, as its facts. Null when there is nothing to say. */
export function firstFix(
  pattern: Pattern,
  r: TakeReading,
  slotSeconds: number,
  schools: Schools,
  strictness: Strictness = 'usual',
  heights: number | null = null,
): Fix | null {
  const [first] = findingsOf(r, slotSeconds, strictness, heights);
  return first ? factsOf(first, pattern, r, schools) : null;
}

/**
 * What was heard beside the playing and is nobody's fault: notes that were never taught, hits that a pad sent twice.
 * @example
 * uncountedHits({ unknown: 1, doubled: 0 }) // => ["One hit came from a MIDI note your kit does not know, so it is not counted. Teach it under Kit."]
 * uncountedHits({ unknown: 0, doubled: 2 }) // => ["The pad sent 2 strokes twice; they count once."]
 */
export function uncountedHits({ unknown, doubled }: Pick<TakeReading, 'unknown' | 'doubled'>): readonly string[] {
  const many = unknown === 1 ? 'One hit' : `${unknown} hits`;
  return [
    ...(unknown > 0
      ? [
          `${many} came from a MIDI note your kit does not know, so ${unknown === 1 ? 'it is' : 'they are'} not counted. Teach it under Kit.`,
        ]
      : []),
    ...(doubled > 0
      ? [
          `The pad sent ${doubled === 1 ? 'one stroke' : `${doubled} strokes`} twice; ${doubled === 1 ? 'it counts' : 'they count'} once.`,
        ]
      : []),
  ];
}

/** A finding with names for what it points at by number: who, on which voice, at which count. */
function factsOf(f: Finding, pattern: Pattern, r: TakeReading, schools: Schools): Fix {
  const whole = (finding: KeptFinding): Fix => ({ finding, index: null });
  const placeOf = (index: number): CountedPlace | null => {
    const s = pattern.strokes[index];
    return s ? placeAt(pattern, s.at, schools) : null;
  };
  const strokeOf = (index: number): NamedStroke | null => {
    const s = pattern.strokes[index];
    return s ? { limb: s.limb, voice: s.voice, place: placeAt(pattern, s.at, schools) } : null;
  };
  switch (f.kind) {
    case 'silence':
      return whole({ kind: 'silence' });
    case 'part':
      return { finding: partFacts(pattern, f, schools), index: f.first };
    case 'begins':
      return whole({ kind: 'begins', beats: f.beats, stays: f.shifted });
    case 'stops':
      return whole({ kind: 'stops', loops: f.turn });
    case 'tempo':
      return whole({ kind: 'tempo', share: f.share });
    case 'shift':
    case 'off-beats':
      return whole({ kind: f.kind, off: f.off });
    case 'drift':
      return whole({ kind: 'drift', off: f.off, seconds: Math.round(f.seconds * 10) / 10 });
    case 'swing':
      return whole({ kind: 'swing', on: f.on, percent: f.percent, meant: f.meant, off: f.off, limb: f.limb });
    case 'left-out':
      return { finding: { kind: 'left-out', stroke: strokeOf(f.index), times: f.times }, index: f.index };
    case 'grace': {
      const ornament = checkedAt(pattern.strokes, f.index, 'stroke').ornament ?? 'flam';
      return { finding: { kind: 'grace', ornament, place: placeOf(f.index), times: f.times }, index: f.index };
    }
    case 'extra':
      return whole({ kind: 'extra', many: f.many });
    case 'limb': {
      const stroke = f.index === null ? null : strokeOf(f.index);
      return { finding: { kind: 'limb', limb: f.limb, off: f.off, stroke }, index: f.index };
    }
    case 'place':
      return { finding: { kind: 'place', limb: f.limb, off: f.off, stroke: strokeOf(f.index) }, index: f.index };
    case 'uneven':
      return whole({ kind: 'uneven', spread: f.spread });
    case 'hands':
      return whole({ kind: 'hands', softer: f.softer });
    case 'heights':
      return whole({ kind: 'heights', heard: f.heard, meant: f.meant });
  }
}

/** A tick of a pattern as it is counted. */
function placeAt(pattern: Pattern, at: number, schools: Schools): CountedPlace {
  const bar = barTicks(pattern.meter);
  if (pattern.start + at < 0) {
    const { beat, syllable } = countOfStroke(pattern, at + bar, schools);
    return { bar: null, beat, syllable, lead: true };
  }
  const { bar: number, beat, syllable } = countOfStroke(pattern, at, schools);
  return { bar: pattern.start + pattern.length > bar ? number : null, beat, syllable };
}

/** Which part was not played: a half of the loop, where it is cut so; else from where to where. */
function partFacts(pattern: Pattern, f: Extract<Finding, { kind: 'part' }>, schools: Schools): KeptFinding {
  const [first, last] = [pattern.strokes[f.first], pattern.strokes[f.last]];
  const loop = loopTicks(pattern);
  const told = { kind: 'part', half: null, from: null, until: null } as const;
  if (!first || !last || loop <= 0) return told;
  const before = pattern.strokes[f.first - 1];
  const after = pattern.strokes[f.last + 1];
  const place = (at: number): CountedPlace => placeAt(pattern, at, schools);
  // The middle lies between the last stroke that is played and the first that is not, or the other way round.
  const middle = loop / 2 - pattern.start;
  if (!after && before && before.at < middle && first.at >= middle) return { ...told, half: 1 };
  if (!before && after && last.at < middle && after.at >= middle) return { ...told, half: 2 };
  if (!after) return { ...told, from: place(first.at) };
  if (!before) return { ...told, until: place(after.at) };
  return { ...told, from: place(first.at), until: place(last.at) };
}

/** What the log keeps of a reading. */
export function measuredOf(r: TakeReading, fix: Fix | null): Measured {
  const one = (n: number): number => Math.round(n * 10) / 10;
  return {
    mean: one(r.mean),
    spread: one(r.spread),
    missed: r.missed,
    extra: r.extra,
    strokes: r.strokes,
    drift: one(r.drift),
    limbs: r.byLimb.map((l) => ({ limb: l.limb, mean: one(l.mean), spread: one(l.spread) })),
    ...(fix && { finding: fix.finding }),
  };
}
