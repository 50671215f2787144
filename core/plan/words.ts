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

/** "needed for the show on Friday"; empty without a day. */
function whenWords({ phrase: { by } }: Candidate, today: number): string {
  if (!by) return '';
  if (by.day < today) return 'its date has passed';
  return ['needed', DAYS[by.what], dayWords(by.day, today)].filter(Boolean).join(' ');
}

/** What to do in a block, and why it stands there: a tempo or two, and one number for the reason. */
export function blockWords(c: Candidate, today: number): string {
  const { from, to, worth, phrase } = c;
  const bare = c.stage === 'bare' && c.kind !== 'mend' ? ' Sticking only, without a kit.' : '';
  switch (c.kind) {
    case 'keep':
      return `Play it once or twice at ${to}. ${sentence(since(c, today))}.${bare}`;
    case 'mend':
      return `${phrase.fix ? findingWords(phrase.fix.finding) : ''} ${oftenWords(phrase.fix?.times ?? 0)} Drill it alone from ${from}, then in the phrase.${bare}`;
    case 'new':
      return `New. Start at ${from}${whenWords(c, today) && `, ${whenWords(c, today)}`}.${bare}`;
    case 'rise':
    default: {
      const first = to > from ? `Start at ${from}, try ${to}.` : `Play it at ${from}.`;
      // One number says why: how far it is.
      const far = phrase.best === null ? 'No clean try yet' : `${chanceWords(worth.sure)} chance at its goal`;
      const by = whenWords(c, today);
      return `${first} ${sentence(far)}${by && `, ${by}`}.${bare}`;
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
export function noMinutesWords(c: Candidate, why: 'minutes' | 'load' | 'one-new'): string {
  if (why === 'one-new') return 'New. One new phrase a day is enough; this is next.';
  const chance = `${chanceWords(c.worth.sure)} chance`;
  return why === 'load' ? `Left out to spare your hands: ${chance} at its goal.` : `${sentence(chance)} at its goal.`;
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
