import { count, sentence } from '../base';
import { findingWords } from '../take';
import { chanceWords } from '../player';
import type { GoalDay } from '../recipe';
import type { Candidate, NotToday } from './candidates';
import { dayName, dayWords } from './day-words';

/** What a day is, with its article. */
const DAYS: Readonly<Record<GoalDay['what'], string>> = Object.freeze({
  night: 'for the night',
  lesson: 'for the lesson',
  recording: 'for the recording',
  day: '',
});

/** "104 wanted for the night on Friday". */
function wanted({ phrase: { goal, by } }: Candidate, today: number): string {
  if (!by) return `${goal} wanted`;
  if (by.day < today) return `${goal} was wanted ${dayWords(by.day, today)}`;
  return [`${goal} wanted`, DAYS[by.what], dayWords(by.day, today)].filter(Boolean).join(' ');
}

function clean({ phrase: { best } }: Candidate): string {
  return best === null ? 'nothing clean yet' : `${best} clean`;
}

/** Why a block stands there, with its numbers. */
export function blockWords(c: Candidate, today: number): string {
  const { from, to, worth, phrase } = c;
  const bare = c.stage === 'bare' && c.kind !== 'mend' ? ' Bare sticking, as there is no kit.' : '';
  switch (c.kind) {
    case 'keep':
      return `${sentence(wanted(c, today))}, ${chanceWords(worth.sure)} sure: once or twice at ${to}, ${since(c, today)}.${bare}`;
    case 'mend':
      return `${phrase.fix ? findingWords(phrase.fix.finding) : ''} Named ${phrase.fix?.times === 2 ? 'twice' : count(phrase.fix?.times ?? 0, 'time')} of late: by itself from ${from}, then back in.${bare}`;
    case 'new':
      return `New: ${wanted(c, today)}. From ${from}, about ${chanceWords(worth.sure)} sure at the goal before any try.${bare}`;
    case 'rise':
    default: {
      const last = to > from ? `From ${from}; ${to} is worth trying` : `At ${from}`;
      return `${sentence(clean(c))}, ${wanted(c, today)}, ${chanceWords(worth.sure)} sure. ${last}.${bare}`;
    }
  }
}

function since({ phrase: { known } }: Candidate, today: number): string {
  const { lastDay } = known.memory;
  return lastDay === null ? 'never played yet' : `last played ${dayWords(lastDay, today)}`;
}

/** Why a phrase is left out that could be played today. */
export function noMinutesWords(c: Candidate, today: number, why: 'minutes' | 'load' | 'one-new'): string {
  if (why === 'one-new') return 'New, and one new phrase a day is enough: next in line.';
  const first = why === 'load' ? 'Left out to spare the hands' : 'No minutes left for it';
  return `${first}: ${wanted(c, today)}, ${chanceWords(c.worth.sure)} sure.`;
}

/** Why a phrase is not for today. Empty where it needs no words. */
export function notTodayWords(why: NotToday, today: number, due: number | null, night: number | null): string {
  switch (why) {
    case 'dropped':
      return 'Not today, as you wished.';
    case 'kept':
      return due === null ? 'Sure enough for now.' : `Sure enough: due ${dayWords(Math.max(due, today + 1), today)}.`;
    case 'no-hands':
      return 'It is for the feet: at the kit.';
    case 'before-night':
      return `New ones wait until after ${night === null ? 'the night' : dayName(night, today)}.`;
    case 'done':
      return 'Done for today.';
  }
}
