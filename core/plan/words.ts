import { sentence } from '../base';
import { findingWords } from '../take';
import { chanceWords } from '../player';
import type { GoalDay } from '../recipe';
import type { NotToday } from './block';
import type { Candidate } from './candidates';
import { dayName, dayWords } from './day-words';

/** What a day is, with its article. */
const DAYS: Readonly<Record<GoalDay['what'], string>> = Object.freeze({
  night: 'for the show',
  lesson: 'for the lesson',
  recording: 'for the recording',
  day: '',
});

/** "goal 104 for the show on Friday". */
function goalWords({ phrase: { goal, by } }: Candidate, today: number): string {
  if (!by) return `goal ${goal}`;
  if (by.day < today) return `goal ${goal}, its date has passed`;
  return [`goal ${goal}`, DAYS[by.what], dayWords(by.day, today)].filter(Boolean).join(' ');
}

/** Why a block stands there, with its numbers. */
export function blockWords(c: Candidate, today: number): string {
  const { from, to, worth, phrase } = c;
  const bare = c.stage === 'bare' && c.kind !== 'mend' ? ' Sticking only, without a kit.' : '';
  switch (c.kind) {
    case 'keep':
      return `Play it once or twice at ${to}. ${sentence(since(c, today))} (${chanceWords(worth.sure)} chance of a clean try).${bare}`;
    case 'mend':
      return `${phrase.fix ? findingWords(phrase.fix.finding) : ''} ${oftenWords(phrase.fix?.times ?? 0)} Drill it alone from ${from}, then in the phrase.${bare}`;
    case 'new':
      return `New. Start at ${from}, ${goalWords(c, today)}.${bare}`;
    case 'rise':
    default: {
      const first = to > from ? `Start at ${from}, try ${to}.` : `Play it at ${from}.`;
      const { best } = phrase;
      const reached = best === null ? 'No clean try yet' : `Best ${best}`;
      return `${first} ${reached}, ${goalWords(c, today)} (${chanceWords(worth.sure)} chance).${bare}`;
    }
  }
}

function oftenWords(times: number): string {
  return times === 2 ? 'This came up twice lately.' : `This came up ${times} times lately.`;
}

function since({ phrase: { known } }: Candidate, today: number): string {
  const { lastDay } = known.memory;
  return lastDay === null ? 'not played yet' : `last played ${dayWords(lastDay, today)}`;
}

/** Why a phrase is left out that could be played today. */
export function noMinutesWords(c: Candidate, today: number, why: 'minutes' | 'load' | 'one-new'): string {
  if (why === 'one-new') return 'New. One new phrase a day is enough; this is next.';
  const chance = `${chanceWords(c.worth.sure)} chance`;
  return why === 'load'
    ? `Left out to spare your hands: ${goalWords(c, today)}, ${chance}.`
    : `Goal ${c.phrase.goal}, ${chance}.`;
}

/** Why a phrase is not for today. Empty where it needs no words. */
export function notTodayWords(why: NotToday, today: number, due: number | null, night: number | null): string {
  switch (why) {
    case 'dropped':
      return 'Not today: you skipped it.';
    case 'kept':
      return due === null ? 'Solid for now.' : `Solid for now. Refresh ${dayWords(Math.max(due, today + 1), today)}.`;
    case 'no-hands':
      return 'Only feet play it, so it needs the kit.';
    case 'before-night':
      return `New phrases wait until after ${night === null ? 'the show' : dayName(night, today)}.`;
    case 'done':
      return 'Done for today.';
  }
}
