import { count } from '../base';
import type { Schools } from '../time';
import { LIMB_WORDS, VOICE, type Limb } from '../stroke';
import { loopTicks, placeWords, type Pattern } from '../pattern';
import type { Measured, StageKind } from '../drill';
import { findingsOf, type Finding, type Strictness, type TakeVerdict } from './findings';
import type { Reading } from './reading';

/**
 * Clean, close or loose: clean when there is nothing to say, close when all there is to say is small. It follows from
 * the same findings as the words do, so that a clean take has no fault and a close one never says nothing.
 */
export function verdictOf(r: Reading, slotSeconds: number, strictness: Strictness = 'usual'): TakeVerdict {
  const findings = findingsOf(r, slotSeconds, strictness);
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

/** The one thing to fix first, in words, and the kind of stage that fixes it. */
export interface Fix {
  readonly words: string;
  readonly stage: StageKind | null;
  /** Index of the stroke it is about; null for the whole. */
  readonly index: number | null;
}

/** What to fix first, in words: the first of the findings. Null when there is nothing to say. */
export function firstFix(
  pattern: Pattern,
  r: Reading,
  slotSeconds: number,
  schools: Schools,
  strictness: Strictness = 'usual',
): Fix | null {
  const [first] = findingsOf(r, slotSeconds, strictness);
  return first ? fixOf(first, pattern, r, schools) : null;
}

/**
 * What was heard beside the playing and is nobody's fault: notes that were never taught, hits that a pad sent twice.
 * @example
 * besides({ unknown: 1, doubled: 0 }) // => ["One hit came from a note that the kit does not know. Teach it under Kit, or leave it: it is not counted."]
 * besides({ unknown: 0, doubled: 2 }) // => ["The pad sent 2 strokes twice: they are counted once."]
 */
export function besides({ unknown, doubled }: Pick<Reading, 'unknown' | 'doubled'>): readonly string[] {
  const many = unknown === 1 ? 'One hit' : `${unknown} hits`;
  return [
    ...(unknown > 0
      ? [
          `${many} came from a note that the kit does not know. Teach it under Kit, or leave it: ${unknown === 1 ? 'it is' : 'they are'} not counted.`,
        ]
      : []),
    ...(doubled > 0
      ? [
          `The pad sent ${doubled === 1 ? 'one stroke' : `${doubled} strokes`} twice: ${doubled === 1 ? 'it is' : 'they are'} counted once.`,
        ]
      : []),
  ];
}

function fixOf(f: Finding, pattern: Pattern, r: Reading, schools: Schools): Fix {
  const whole = (words: string, stage: StageKind | null): Fix => ({ words, stage, index: null });
  const at = (index: number): string => {
    const s = pattern.strokes[index];
    return s ? `${named(s.limb, VOICE[s.voice].name)} on ${placeWords(pattern, s.at, schools)}` : 'one stroke';
  };
  const stageOf = (limb: Limb): StageKind => (limb === 'R' || limb === 'L' ? 'part' : 'skeleton');
  switch (f.kind) {
    case 'silence':
      return whole('Nothing was heard. Check what listens, and its latency.', null);
    case 'part':
      return { words: partWords(pattern, f, schools), stage: 'part', index: f.first };
    case 'begins':
      return whole(`It begins ${beatWords(f.beats)} late${f.shifted ? ' and stays so' : ''}.`, 'bare');
    case 'stops':
      return whole(
        f.turn <= 0 ? 'It stops before the loop is over.' : `It stops after ${count(f.turn, 'loop')}.`,
        'part',
      );
    case 'tempo': {
      const percent = Math.abs(f.share - 1) * 100;
      return whole(
        `The tempo is steady, but ${oneDigit(percent)} % ${f.share < 1 ? 'slower' : 'faster'} than the click.`,
        'steady-foot',
      );
    }
    case 'shift':
      return whole(`All of it lies ${ms(f.off)} ${f.off > 0 ? 'behind' : 'ahead of'} the click.`, 'bare');
    case 'swing': {
      const how = `${f.on === '8ths' ? 'eighths' : '16ths'} swung ${Math.round(f.percent)} %`;
      const meant = f.meant === 50 ? 'where straight ones are meant' : `where ${Math.round(f.meant)} % is meant`;
      return f.limb
        ? whole(
            `The ${LIMB_WORDS[f.limb]} ${f.off > 0 ? 'drags' : 'hurries'} ${ms(f.off)}, as in ${how}, ${meant}.`,
            'bare',
          )
        : whole(`It is played as ${how}, ${meant}.`, 'bare');
    }
    case 'off-beats':
      return whole(`The strokes off the beat ${f.off > 0 ? 'drag' : 'hurry'} ${ms(f.off)}.`, 'bare');
    case 'left-out':
      return { words: `The ${at(f.index)} is left out ${count(f.times, 'time')}.`, stage: 'part', index: f.index };
    case 'grace': {
      const ornament = pattern.strokes[f.index]?.ornament ?? 'flam';
      const s = pattern.strokes[f.index];
      const where = s ? ` on ${placeWords(pattern, s.at, schools)}` : '';
      return {
        words: `The ${ornament}${where} is played without its grace ${ornament === 'flam' ? 'stroke' : 'strokes'} ${count(f.times, 'time')}.`,
        stage: 'part',
        index: f.index,
      };
    }
    case 'extra':
      return whole(`${count(f.many, 'stroke')} too many.`, 'bare');
    case 'limb': {
      const foot = f.limb !== 'R' && f.limb !== 'L';
      const who = f.index === null ? LIMB_WORDS[f.limb] : at(f.index);
      return {
        words: `The ${who} ${f.off > 0 ? 'drags' : 'hurries'} ${ms(f.off)}.`,
        stage: foot ? 'skeleton' : 'bare',
        index: f.index,
      };
    }
    case 'place':
      return {
        words: `The ${at(f.index)} ${f.off > 0 ? 'drags' : 'hurries'} ${ms(f.off)}.`,
        stage: stageOf(f.limb),
        index: f.index,
      };
    case 'drift':
      return whole(`It ${f.off > 0 ? 'falls back' : 'runs away'} by ${ms(f.off)} a minute.`, 'steady-foot');
    case 'uneven':
      return whole(`Uneven: strokes scatter by ${ms(f.spread)}.`, 'bare');
    case 'hands':
      return whole(`The ${f.softer === 'L' ? 'left' : 'right'} hand is softer than the other.`, 'dynamics');
    case 'heights':
      return whole(
        `Heights too alike: loud strokes are ${(r.accentGhost ?? 1).toFixed(1)} times as loud as soft ones, ${(r.meantRatio ?? 1).toFixed(1)} are meant.`,
        'dynamics',
      );
  }
}

/** The hand, or the voice of a foot. */
function named(limb: Limb, voice: string): string {
  return limb === 'R' || limb === 'L' ? LIMB_WORDS[limb] : voice;
}

/** "half of the loop", where it is cut. */
function partWords(pattern: Pattern, f: Extract<Finding, { kind: 'part' }>, schools: Schools): string {
  const [first, last] = [pattern.strokes[f.first], pattern.strokes[f.last]];
  const loop = loopTicks(pattern);
  const after = pattern.strokes[f.last + 1];
  if (!first || !last || loop <= 0) return 'Only part of the loop is played.';
  const before = pattern.strokes[f.first - 1];
  // The middle lies between the last stroke that is played and the first that is not, or the other way round.
  const middle = loop / 2 - pattern.start;
  if (!after && before && before.at < middle && first.at >= middle) return 'Only the first half of the loop is played.';
  if (!before && after && last.at < middle && after.at >= middle) return 'Only the second half of the loop is played.';
  if (!after) return `Only part of the loop is played: nothing from ${placeWords(pattern, first.at, schools)} on.`;
  if (!before) return `Only part of the loop is played: nothing before ${placeWords(pattern, after.at, schools)}.`;
  return `Only part of the loop is played: nothing from ${placeWords(pattern, first.at, schools)} to ${placeWords(pattern, last.at, schools)}.`;
}

function beatWords(beats: number): string {
  const near = Math.round(beats);
  if (Math.abs(beats - near) < 0.2 && near > 0) return near === 1 ? 'a beat' : `${near} beats`;
  return `${oneDigit(beats)} beats`;
}

function oneDigit(n: number): string {
  return n >= 9.95 ? String(Math.round(n)) : n.toFixed(1).replace(/\.0$/, '');
}

function ms(n: number): string {
  return `${Math.round(Math.abs(n))} ms`;
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
