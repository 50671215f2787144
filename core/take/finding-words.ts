import { count, sentence } from '../base';
import { countWords } from '../time';
import { LIMB_WORDS, VOICE, type Limb, type Voice } from '../stroke';
import { lateWords } from './late-words';
import type { FixKind, KeptFinding, NamedStroke, CountedPlace } from '../drill';

/** What each kind of fix is called, as the answer to "why?". */
export const FIX_NAMES: Readonly<Record<FixKind, string>> = Object.freeze({
  late: 'early or late',
  uneven: 'uneven',
  'left-out': 'missed strokes',
  extra: 'extra strokes',
  heights: 'loudness',
  ornament: 'missing grace strokes',
  swing: 'swing',
  tempo: 'off tempo',
  part: 'incomplete',
  silence: 'no hits heard',
});

/**
 * A finding in a sentence.
 * @example
 * findingWords({ kind: 'limb', limb: 'L', off: 18, stroke: null }) // => "The left hand is 18 ms late."
 * findingWords({ kind: 'left-out', stroke: { limb: 'K', voice: 'kick', place: { bar: 2, beat: 3, syllable: '&' } }, times: 2 }) // => "The kick on the & of 3 in bar 2 was missed twice."
 * findingWords({ kind: 'begins', beats: 1, stays: true }) // => "You came in a beat late and stayed there."
 */
export function findingWords(f: KeptFinding): string {
  switch (f.kind) {
    case 'silence':
      return 'No hits heard. Check that the pad or microphone is on, then its delay.';
    case 'part':
      return partWords(f);
    case 'begins':
      return `You came in ${beatWords(f.beats)} late${f.stays ? ' and stayed there' : ''}.`;
    case 'stops':
      return f.loops <= 0 ? 'You stopped before the loop was over.' : `You stopped after ${count(f.loops, 'loop')}.`;
    case 'tempo': {
      const percent = Math.abs(f.share - 1) * 100;
      return `Steady, but ${oneDigit(percent)}% ${f.share < 1 ? 'slower' : 'faster'} than the click.`;
    }
    case 'shift':
      return `Everything is ${lateWords(f.off)}.`;
    case 'swing': {
      const on = f.on === '8ths' ? 'eighths' : '16ths';
      const played = `${Math.round(f.percent)}%`;
      const isStraight = f.meant === 50;
      if (f.limb) {
        const cause = isStraight ? `it swings the ${on} (${played})` : `it swings the ${on} ${played}`;
        const cure = isStraight ? 'Play them straight.' : `The phrase swings ${Math.round(f.meant)}%.`;
        return `${sentence(LIMB_WORDS[f.limb])} ${lateWords(f.off)}: ${cause}. ${cure}`;
      }
      const meant = isStraight ? 'the phrase is straight' : `the phrase swings ${Math.round(f.meant)}%`;
      return `You swing the ${on} (${played}); ${meant}.`;
    }
    case 'off-beats':
      return `Your off-beats are ${lateWords(f.off)}.`;
    case 'left-out':
      return `${sentence(strokeWords(f.stroke))} was missed ${timesWords(f.times)}.`;
    case 'grace': {
      const where = f.place ? ` on ${placeWords(f.place)}` : '';
      const grace = f.ornament === 'flam' ? 'stroke' : 'strokes';
      return `The ${f.ornament}${where} came without its grace ${grace} ${timesWords(f.times)}.`;
    }
    case 'extra':
      return `${count(f.many, 'extra stroke')}.`;
    case 'limb':
      return `${sentence(f.stroke ? strokeWords(f.stroke) : `the ${LIMB_WORDS[f.limb]}`)} is ${lateWords(f.off)}.`;
    case 'place':
      return `${sentence(strokeWords(f.stroke))} is ${lateWords(f.off)}.`;
    case 'drift':
      return `You ${f.off > 0 ? 'slow down' : 'speed up'}${driftWords(f)}.`;
    case 'uneven':
      return `Uneven: your strokes spread ${ms(f.spread)} round the beat.`;
    case 'hands':
      return `The ${f.softer === 'L' ? 'left' : 'right'} hand is softer than the other.`;
    case 'heights':
      return `Accents and ghosts are too alike. Accents ${oneDigit(f.heard)}× as loud; aim for ${oneDigit(f.meant)}×.`;
    case 'earlier':
      return f.words;
  }
}

/** Of what was measured for less than this, in seconds, nothing is told by the minute. */
export const BY_THE_MINUTE = 30;

/** ": 14 ms early by the end of 7 s", or by the minute where it was measured for long enough. */
function driftWords({ off, seconds }: Extract<KeptFinding, { kind: 'drift' }>): string {
  if (seconds === undefined || seconds >= BY_THE_MINUTE) return ` by ${ms(off)} each minute`;
  return `: ${ms((off * seconds) / 60)} ${off > 0 ? 'late' : 'early'} by the end of ${Math.round(seconds)} s`;
}

/** The hand, or the voice of a foot, and where. */
function strokeWords(stroke: NamedStroke | null): string {
  return stroke ? `the ${named(stroke.limb, stroke.voice)} on ${placeWords(stroke.place)}` : 'one stroke';
}

function named(limb: Limb, voice: Voice): string {
  return limb === 'R' || limb === 'L' ? LIMB_WORDS[limb] : VOICE[voice].name;
}

function placeWords({ bar, beat, syllable, lead }: CountedPlace): string {
  const words = countWords({ bar: bar ?? 1, beat, syllable, text: '' }, bar !== null);
  return lead ? `${words} before the 1` : words;
}

function partWords({ half, from, until }: Extract<KeptFinding, { kind: 'part' }>): string {
  if (half !== null) return `You played only the ${half === 1 ? 'first' : 'second'} half of the loop.`;
  if (from && until)
    return `You played only part of the loop: nothing from ${placeWords(from)} to ${placeWords(until)}.`;
  if (from) return `You played only part of the loop: nothing from ${placeWords(from)} on.`;
  if (until) return `You played only part of the loop: nothing before ${placeWords(until)}.`;
  return 'You played only part of the loop.';
}

function timesWords(times: number): string {
  return times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`;
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
