import { count } from '../base';
import { countWords } from '../time';
import { LIMB_WORDS, VOICE, type Limb, type Voice } from '../stroke';
import type { FixKind, KeptFinding, NamedStroke, CountedPlace } from '../drill';

/** What each kind of fix is called, as the answer to "why?". */
export const FIX_NAMES: Readonly<Record<FixKind, string>> = Object.freeze({
  late: 'early or late',
  uneven: 'uneven',
  'left-out': 'left out',
  extra: 'strokes too many',
  heights: 'hands and heights',
  ornament: 'without its grace',
  swing: 'swung otherwise',
  tempo: 'off the tempo',
  part: 'only a part',
  silence: 'nothing heard',
});

/**
 * A finding in a sentence.
 * @example
 * findingWords({ kind: 'limb', limb: 'L', off: 18, stroke: null }) // => "The left hand drags 18 ms."
 * findingWords({ kind: 'left-out', stroke: { limb: 'K', voice: 'kick', place: { bar: 2, beat: 3, syllable: '&' } }, times: 2 }) // => "The kick on bar 2, the & of 3 is left out 2 times."
 * findingWords({ kind: 'begins', beats: 1, stays: true }) // => "It begins a beat late and stays so."
 */
export function findingWords(f: KeptFinding): string {
  switch (f.kind) {
    case 'silence':
      return 'Nothing was heard. Check what listens, and its latency.';
    case 'part':
      return partWords(f);
    case 'begins':
      return `It begins ${beatWords(f.beats)} late${f.stays ? ' and stays so' : ''}.`;
    case 'stops':
      return f.loops <= 0 ? 'It stops before the loop is over.' : `It stops after ${count(f.loops, 'loop')}.`;
    case 'tempo': {
      const percent = Math.abs(f.share - 1) * 100;
      return `The tempo is steady, but ${oneDigit(percent)} % ${f.share < 1 ? 'slower' : 'faster'} than the click.`;
    }
    case 'shift':
      return `All of it lies ${ms(f.off)} ${f.off > 0 ? 'behind' : 'ahead of'} the click.`;
    case 'swing': {
      const how = `${f.on === '8ths' ? 'eighths' : '16ths'} swung ${Math.round(f.percent)} %`;
      const meant = f.meant === 50 ? 'where straight ones are meant' : `where ${Math.round(f.meant)} % is meant`;
      return f.limb
        ? `The ${LIMB_WORDS[f.limb]} ${drags(f.off)} ${ms(f.off)}, as in ${how}, ${meant}.`
        : `It is played as ${how}, ${meant}.`;
    }
    case 'off-beats':
      return `The strokes off the beat ${f.off > 0 ? 'drag' : 'hurry'} ${ms(f.off)}.`;
    case 'left-out':
      return `The ${strokeWords(f.stroke)} is left out ${count(f.times, 'time')}.`;
    case 'grace': {
      const where = f.place ? ` on ${placeWords(f.place)}` : '';
      const grace = f.ornament === 'flam' ? 'stroke' : 'strokes';
      return `The ${f.ornament}${where} is played without its grace ${grace} ${count(f.times, 'time')}.`;
    }
    case 'extra':
      return `${count(f.many, 'stroke')} too many.`;
    case 'limb':
      return `The ${f.stroke ? strokeWords(f.stroke) : LIMB_WORDS[f.limb]} ${drags(f.off)} ${ms(f.off)}.`;
    case 'place':
      return `The ${strokeWords(f.stroke)} ${drags(f.off)} ${ms(f.off)}.`;
    case 'drift':
      return `It ${f.off > 0 ? 'falls back' : 'runs away'} by ${ms(f.off)} a minute.`;
    case 'uneven':
      return `Uneven: strokes scatter by ${ms(f.spread)}.`;
    case 'hands':
      return `The ${f.softer === 'L' ? 'left' : 'right'} hand is softer than the other.`;
    case 'heights':
      return `Heights too alike: loud strokes are ${f.heard.toFixed(1)} times as loud as soft ones, ${f.meant.toFixed(1)} are meant.`;
    case 'earlier':
      return f.words;
  }
}

/** The hand, or the voice of a foot, and where. */
function strokeWords(stroke: NamedStroke | null): string {
  return stroke ? `${named(stroke.limb, stroke.voice)} on ${placeWords(stroke.place)}` : 'one stroke';
}

function named(limb: Limb, voice: Voice): string {
  return limb === 'R' || limb === 'L' ? LIMB_WORDS[limb] : VOICE[voice].name;
}

function placeWords({ bar, beat, syllable, lead }: CountedPlace): string {
  const words = countWords({ bar: bar ?? 1, beat, syllable, text: '' }, bar !== null);
  return lead ? `${words} before the 1` : words;
}

function partWords({ half, from, until }: Extract<KeptFinding, { kind: 'part' }>): string {
  if (half !== null) return `Only the ${half === 1 ? 'first' : 'second'} half of the loop is played.`;
  if (from && until)
    return `Only part of the loop is played: nothing from ${placeWords(from)} to ${placeWords(until)}.`;
  if (from) return `Only part of the loop is played: nothing from ${placeWords(from)} on.`;
  if (until) return `Only part of the loop is played: nothing before ${placeWords(until)}.`;
  return 'Only part of the loop is played.';
}

function drags(off: number): string {
  return off > 0 ? 'drags' : 'hurries';
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
