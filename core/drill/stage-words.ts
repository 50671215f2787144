import { count, sentence } from '../base';
import { barTicks, USUAL_SCHOOLS } from '../time';
import { differenceWords, partOf, type Pattern } from '../pattern';
import type { Stage, StageKind, StageMark, StagePart } from './stage';

/** What each kind of stage is called, and why it is played. */
const WORDS: Readonly<Record<StageKind, { readonly title: string; readonly why: string }>> = {
  say: {
    title: 'Say it first',
    why: 'One turn is counted and played to you, one turn is yours: aloud, sticks down. What can be said is played sooner.',
  },
  bare: { title: 'Bare sticking, one surface', why: 'The hands learn the order before they learn the ways.' },
  dynamics: { title: 'Accents and ghosts, one surface', why: 'Heights of the stick, without moving round the kit.' },
  skeleton: { title: 'The skeleton', why: 'Kick, backbeat and accents alone: what the groove stands on.' },
  'no-time': {
    title: 'Without the timekeeping',
    why: 'The hand that keeps time comes in last, when the rest is sure.',
  },
  voices: { title: 'All voices, no accents', why: 'The ways round the kit at one height.' },
  whole: { title: 'The whole phrase', why: 'All of it, on the kit, up to the goal.' },
  record: {
    title: 'With the record',
    why: 'The bars it was heard in go round beneath you, evened out, at any tempo of the ladder.',
  },
  'every-beat': {
    title: 'From every beat of the bar',
    why: 'Bar by bar it begins a beat later, with time round it: known from the 1 alone is half known.',
  },
  'steady-foot': {
    title: 'With a steady foot',
    why: 'The hi-hat foot on every beat shows whether the time holds without thinking.',
  },
  free: {
    title: 'Play freely',
    why: 'Bars of time, then as many that are yours. Nothing is measured but the time.',
  },
  tight: {
    title: 'The tight spot',
    why: 'The two strokes that come too near each other, with the beat that leads to them.',
  },
  // These three say which part; without one they are as they were before that was kept.
  part: { title: 'A part', why: '' },
  grow: { title: 'The beginning', why: 'A little more each time.' },
  context: { title: 'In context', why: '' },
};

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/**
 * What a stage is called.
 * @example
 * stageTitle({ id: 'a', kind: 'whole' }) // => "The whole phrase"
 * stageTitle({ id: 'a', kind: 'context', bars: 1, family: 'fill' }) // => "One bar of time, then the fill"
 * stageTitle({ id: 'a', kind: 'context', bars: 3, family: 'lick' }) // => "Three bars of time, then the lick"
 * stageTitle({ id: 'a', kind: 'part', part: { of: 'bars', first: 2, last: 3 } }) // => "Bars 2 and 3"
 */
export function stageTitle({ kind, part, bars = 1, family = 'fill' }: Omit<StageMark, 'id'>): string {
  if (kind === 'context') {
    const many = NUMBERS[bars];
    const time = many ? sentence(`${many} ${bars === 1 ? 'bar' : 'bars'}`) : count(bars, 'bar');
    return `${time} of time, then the ${family}`;
  }
  return part ? partTitle(part) : WORDS[kind].title;
}

/** Why a stage is played, of the phrase as it stands; empty where nothing is to be said. */
export function stageWhy({ kind, part, family = 'fill' }: Omit<Stage, 'id'>, phrase: Pattern): string {
  if (kind === 'context') return `A ${family} is known when it comes out of time and lands on the next 1.`;
  return part ? partWhy(part, phrase) : WORDS[kind].why;
}

const barsWords = (first: number, last: number): string =>
  first === last ? `Bar ${first}` : `Bars ${first} ${last === first + 1 ? 'and' : 'to'} ${last}`;

function partTitle(part: StagePart): string {
  switch (part.of) {
    case 'half':
      return part.half === 1 ? 'The first half' : 'The second half';
    case 'bars':
      return barsWords(part.first, part.last);
    case 'join':
      return `${barsWords(part.first, part.last)} joined`;
    case 'difference':
      return `Only what bar ${part.bar} does otherwise`;
    case 'asked':
      return sentence(part.said);
    case 'beats':
      return part.many === 1 ? 'The first beat' : `The first ${part.many} beats`;
    case 'notes':
      return `The first ${part.many}`;
    case 'earlier':
      return part.title;
  }
}

function partWhy(part: StagePart, phrase: Pattern): string {
  switch (part.of) {
    case 'half':
      return part.half === 1
        ? 'Half a bar at a time is short enough to hear every stroke.'
        : 'The other half, begun on its own count.';
    case 'bars':
      return part.first === 1 ? 'The beginning, until it runs by itself.' : 'What comes next, until it runs by itself.';
    case 'join':
      return 'The join is where it breaks.';
    case 'difference': {
      const known = `The rest of bar ${part.bar} you know already from bar ${part.known}.`;
      const [before, own] = [barOf(phrase, part.known), barOf(phrase, part.bar)];
      // A phrase that was changed since may not have the bars any more.
      return before && own ? `${known} Against it: ${differenceWords(before, own, USUAL_SCHOOLS)}` : known;
    }
    case 'asked':
      return 'The part you asked for.';
    case 'beats':
      return 'One beat more each time, over the bar lines too.';
    case 'notes':
      return part.each === 1 ? 'One stroke more each time: no stroke is hurried past.' : 'Four more each time.';
    case 'earlier':
      return part.why;
  }
}

/** A bar of a phrase, counted from 1; null where it has none such. */
function barOf(phrase: Pattern, n: number): Pattern | null {
  const bar = barTicks(phrase.meter);
  const from = Math.max(0, (n - 1) * bar - phrase.start);
  const until = Math.min(phrase.length, n * bar - phrase.start);
  return until > from ? partOf(phrase, from, until) : null;
}
