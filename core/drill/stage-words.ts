import { count, NUMBER_WORDS, sentence } from '../base';
import { barTicks, USUAL_SCHOOLS } from '../time';
import { differenceWords, partOf, type Pattern } from '../pattern';
import type { Ingredient, Stage, StageKind, StageMark, StagePart } from './stage';

/** What each kind of stage is called, and why it is played. */
const WORDS: Readonly<Record<StageKind, { readonly title: string; readonly why: string }>> = {
  say: {
    title: 'Say it first',
    why: 'Hear one loop, then say the next aloud, sticks down. What you can say, you learn sooner.',
  },
  bare: { title: 'Sticking only, one surface', why: 'Learn the sticking first, on one drum.' },
  dynamics: { title: 'Accents and ghosts, one surface', why: 'Add the stick heights, still on one drum.' },
  skeleton: { title: 'The skeleton', why: 'Only kick, backbeat and accents: the bones of the groove.' },
  'no-time': {
    title: 'Without the timekeeping',
    why: 'Add the hand that keeps time last, when the rest is solid.',
  },
  voices: { title: 'On the kit, no accents', why: 'Learn the travel round the kit, all at one stick height.' },
  whole: { title: 'The whole phrase', why: 'Everything, on the kit, up to the goal.' },
  record: {
    title: 'With the recording',
    why: 'The recording loops while you play, at the tempo of each rung.',
  },
  'every-beat': {
    title: 'From every beat of the bar',
    why: 'It starts one beat later each time, inside a groove. Then you can start it anywhere.',
  },
  'steady-foot': {
    title: 'With a steady foot',
    why: 'Play the hi-hat foot on every beat. It shows whether your time is steady.',
  },
  free: {
    title: 'Free play',
    why: 'Bars of groove, then as many bars to fill as you like. Only your timing is measured.',
  },
  tight: {
    title: 'The hard spot',
    why: 'The two strokes with the least time between them, and the beat before.',
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
 * stageTitle({ id: 'a', kind: 'context', bars: 1, family: 'fill' }) // => "One bar of groove, then the fill"
 * stageTitle({ id: 'a', kind: 'context', bars: 3, family: 'lick' }) // => "Three bars of groove, then the lick"
 * stageTitle({ id: 'a', kind: 'part', part: { of: 'bars', first: 2, last: 3 } }) // => "Bars 2 and 3"
 */
export function stageTitle({ kind, part, bars = 1, family = 'fill' }: Omit<StageMark, 'id'>): string {
  if (kind === 'context') {
    const many = NUMBERS[bars];
    const time = many ? sentence(`${many} ${bars === 1 ? 'bar' : 'bars'}`) : count(bars, 'bar');
    return `${time} of groove, then the ${family}`;
  }
  return part ? partTitle(part) : WORDS[kind].title;
}

/** Why a stage is played, of the phrase as it stands; empty where nothing is to be said. */
export function stageWhy({ kind, part }: Omit<Stage, 'id'>, phrase: Pattern): string {
  if (kind === 'context') return 'Come out of the groove and land on the next 1.';
  return part ? partWhy(part, phrase) : WORDS[kind].why;
}

const INGREDIENT_WORDS: Readonly<Record<Ingredient, { readonly title: string; readonly why: string }>> = {
  bones: { title: 'Kick and snare', why: 'What carries it, before anything is put on top.' },
  time: { title: 'With the time', why: 'The hand that keeps time comes in over what you have.' },
  ghosts: { title: 'With the ghosts', why: 'What fills between, as low as you can.' },
  graces: { title: 'With the grace strokes', why: 'Flams, drags and ruffs come last.' },
};

const barsWords = (first: number, last: number): string =>
  first === last ? `Bar ${first}` : `Bars ${first} ${last === first + 1 ? 'and' : 'to'} ${last}`;

function partTitle(part: StagePart): string {
  switch (part.of) {
    case 'half':
      return part.half === 1 ? 'The first half' : 'The second half';
    case 'bars':
      return barsWords(part.first, part.last);
    case 'join':
      // Of what goes round, the last joins the first.
      return part.first > part.last
        ? `Bar ${part.first} joined to bar ${part.last}`
        : `${barsWords(part.first, part.last)} joined`;
    case 'difference':
      return `Only what differs in bar ${part.bar}`;
    case 'asked':
      return sentence(part.said);
    case 'beats':
      return part.many === 1 ? 'The first beat' : `The first ${part.many} beats`;
    case 'notes':
      return `The first ${part.many}`;
    case 'ingredients':
      return INGREDIENT_WORDS[part.upTo].title;
    case 'earlier':
      return part.title;
  }
}

/** A small number in words, a larger one in figures. */
const numberWords = (n: number): string => NUMBER_WORDS[n - 1] ?? String(n);

function partWhy(part: StagePart, phrase: Pattern): string {
  switch (part.of) {
    case 'half':
      return part.half === 1
        ? 'Half a bar at a time is short enough to hear every stroke.'
        : 'The other half, starting on its own count.';
    case 'bars':
      return part.first === 1
        ? 'The beginning, until you play it without thinking.'
        : 'The next part, until you play it without thinking.';
    case 'join':
      return 'Most phrases break where two parts meet.';
    case 'difference': {
      const known = `You already know the rest of bar ${part.bar} from bar ${part.known}.`;
      const [before, own] = [barOf(phrase, part.known), barOf(phrase, part.bar)];
      // A phrase that was changed since may not have the bars any more.
      return before && own ? `${known} Against it: ${differenceWords(before, own, USUAL_SCHOOLS)}` : known;
    }
    case 'asked':
      return 'The part you asked for.';
    case 'beats':
      return 'One beat more each time, across the bar lines too.';
    case 'notes':
      if (part.each === 1) return 'One stroke more each time, so none is rushed.';
      return part.many === part.each ? 'To begin with.' : `${sentence(numberWords(part.each))} more than before.`;
    case 'ingredients':
      return INGREDIENT_WORDS[part.upTo].why;
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
