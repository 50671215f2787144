import { count, listed } from '../base';
import { FIX_NAMES, lateWords } from '../take';
import { LIMB_WORDS } from '../stroke';
import type { Standing } from './beside';
import type { AboutPart, LessonChange } from './update';

const ABOUT: Readonly<Record<AboutPart, string>> = {
  title: 'The title is another.',
  from: 'The name of who gives it is another.',
  note: 'The note on all of it is another.',
  due: 'The date is another.',
};

/**
 * What one change of a lesson does, in a sentence.
 * @example
 * changeWords({ kind: 'new', item: 'a', name: 'Rope' }) // => "“Rope” comes new."
 * changeWords({ kind: 'own', item: 'a', name: 'Rope' }) // => "“Rope”: you both changed it. Yours stays."
 */
export function changeWords(change: LessonChange): string {
  switch (change.kind) {
    case 'order':
      return 'The phrases stand in another order.';
    case 'about':
      return ABOUT[change.part];
    case 'answer':
      return `Your question is answered: ${change.words.slice(0, 200)}`;
    default:
      return `“${change.name.slice(0, 80)}”${PHRASE_WORDS[change.kind]}`;
  }
}

const PHRASE_WORDS: Readonly<Record<Exclude<LessonChange['kind'], 'order' | 'about' | 'answer'>, string>> = {
  new: ' comes new.',
  back: ' is in the lesson again.',
  phrase: ' is changed. Yours follows; how it was stays under Earlier versions.',
  goal: ' has another goal.',
  own: ': you both changed it. Yours stays.',
  gone: ' is left out. It stays on your shelf.',
  off: ' you took off the shelf. It stays off.',
  words: ' has other notes.',
  drill: ' has other stages or another ladder.',
};

/**
 * Where a pupil is with a phrase, in a line.
 * @example
 * standingWords({ stands: 'as it came', tries: 0, minutes: 0, lastAt: null, best: null, goal: 100, stages: [], at: null, breaks: null, limb: null }) // => "Not begun."
 * standingWords({ stands: null, tries: 0, minutes: 0, lastAt: null, best: null, goal: 100, stages: [], at: null, breaks: null, limb: null }) // => "Not in this report yet."
 */
export function standingWords({ stands, tries, best, goal, at }: Standing): string {
  if (stands === null) return 'Not in this report yet.';
  if (tries === 0) return stands === 'taken off' ? 'Taken off, never played.' : 'Not begun.';
  if (best !== null && best >= goal) return `Clean at the goal, ${best}.`;
  if (best !== null) return `Clean at ${best} of ${goal}.`;
  if (!at) return `${count(tries, 'try', 'tries')}, none clean.`;
  return `${at.title}: ${at.clean === null ? 'not clean yet' : `clean at ${at.clean}`}.`;
}

/**
 * What breaks there and which limb is off, in a line; empty where nothing was named.
 * @example
 * breaksWords({ breaks: { kind: 'late', times: 3, of: 4 }, limb: { limb: 'L', off: 21 } }) // => "Mostly early or late (3 of 4), left hand 21 ms late"
 * breaksWords({ breaks: null, limb: null }) // => ""
 */
export function breaksWords({ breaks, limb }: Pick<Standing, 'breaks' | 'limb'>): string {
  return [
    breaks ? `Mostly ${FIX_NAMES[breaks.kind]} (${breaks.times} of ${breaks.of})` : '',
    limb ? `${LIMB_WORDS[limb.limb]} ${lateWords(limb.off)}` : '',
  ]
    .filter((w) => w !== '')
    .join(', ');
}

/**
 * What a report will hold, so that it is known before it is written.
 * @example
 * reportHolds(2, 31, 1) // => "2 phrases of this lesson with 31 tries, 1 question and your name as typed."
 */
export function reportHolds(phrases: number, tries: number, questions: number): string {
  const parts = [
    `${count(phrases, 'phrase')} of this lesson with ${count(tries, 'try', 'tries')}`,
    ...(questions > 0 ? [count(questions, 'question')] : []),
    'your name as typed',
  ];
  return `${listed(parts)}.`;
}
