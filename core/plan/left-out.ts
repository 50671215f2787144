import { count } from '../base';
import type { LeftOut, NotToday, PlanPhrase, TodayAsked, TodayPlan } from './block';
import { isExtra, type Candidate, type CandidateLength } from './candidates';
import { isEasy } from './load';
import { dayName } from './day-words';
import { noMinutesWords, notTodayWords } from './words';

/** Left-out phrases that are named. */
const MOST_LEFT = 12;

/** What was left out, the most wanted first, with why. */
export function leftOut(
  found: readonly Candidate[],
  picked: readonly { readonly length: CandidateLength }[],
  not: readonly { readonly phrase: PlanPhrase; readonly why: NotToday }[],
  {
    asked,
    night,
    wished,
  }: {
    readonly asked: TodayAsked;
    readonly night: number | null;
    /** What would be played if it were not for the hands; empty where they need no regard. */
    readonly wished: readonly { readonly length: CandidateLength }[];
  },
): Pick<TodayPlan, 'left' | 'more'> {
  const { day } = asked;
  const inPlan = new Set(picked.map(({ length }) => length.candidate.phrase.id));
  const spared = new Set(wished.map(({ length }) => length.candidate.phrase.id));
  const aNew = picked.some(({ length }) => isExtra(length.candidate));
  const most = (c: Candidate): number => Math.max(...c.lengths.map((l) => l.value / l.minutes));
  // Of two things that could be done with a phrase the first is named.
  const each = new Map([...found].reverse().map((c) => [c.phrase.id, c]));
  const others = [...each.values()]
    .filter((c) => !inPlan.has(c.phrase.id))
    .map((c) => ({ c, value: most(c) }))
    .sort((a, b) => b.value - a.value || (a.c.id < b.c.id ? -1 : 1))
    .map(({ c }): LeftOut => {
      const why = isExtra(c) && aNew ? 'one-new' : spared.has(c.phrase.id) ? 'load' : 'minutes';
      return { phrase: c.phrase.id, name: c.phrase.name, kind: c.kind, why, words: noMinutesWords(c, why) };
    });
  const said = not
    .filter((n) => n.why !== 'done')
    .map(({ phrase, why }): LeftOut => {
      const due = phrase.known.memory.lastDay === null ? null : phrase.known.memory.dueDay;
      const kind = phrase.known.tries === 0 ? 'new' : 'keep';
      return { phrase: phrase.id, name: phrase.name, kind, why, words: notTodayWords(why, day, due, night) };
    });
  // What the player dropped can be taken back: it stands first.
  const dropped = new Set(asked.dropped);
  const fixed = (['warm-up', 'play'] as const).flatMap((id): LeftOut[] =>
    dropped.has(id)
      ? [
          {
            phrase: id,
            name: id === 'play' ? 'Free play' : 'Warm-up',
            kind: id,
            why: 'dropped',
            words: notTodayWords('dropped', day, null, night),
          },
        ]
      : [],
  );
  const all = [
    ...fixed,
    ...said.filter((l) => dropped.has(l.phrase)),
    ...others,
    ...said.filter((l) => !dropped.has(l.phrase)),
  ];
  return { left: all.slice(0, MOST_LEFT), more: Math.max(0, all.length - MOST_LEFT) };
}

/** What to know about the whole day. */
export function notesOf(
  asked: TodayAsked,
  night: number | null,
  most: number | null,
  { cut, anything }: { readonly cut: boolean; readonly anything: boolean },
): readonly string[] {
  const { day, place } = asked;
  return [
    ...(night === null
      ? []
      : [
          night === day ? 'Show tonight: nothing new today.' : `Show on ${dayName(night, day)}: nothing new before it.`,
        ]),
    ...(place === 'kit' || !anything
      ? []
      : [`${place === 'pad' ? 'On a pad' : 'Without a kit or pad'} you play the sticking only.`]),
    ...(cut && most !== null
      ? [
          `Kept to ${(Math.round(most / 100) * 100).toLocaleString('en')} strokes per hand, ${isEasy(most) ? 'an easy half hour after a quiet week' : 'half more than your usual day'}. Build up over weeks, not days. At pain, tingling or numbness stop, and see a doctor or physiotherapist.`,
        ]
      : []),
    ...(most === null && asked.minutes >= 60 && anything
      ? [`You have not played for a week. Start with less than ${count(asked.minutes, 'minute')}.`]
      : []),
  ];
}
