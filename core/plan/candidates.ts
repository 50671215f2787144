import { readyTempo, SURE, tempoAt } from '../player';
import { clamp } from '../base';
import { TEMPO } from '../time';
import { remedyFor, type StageKind } from '../drill';
import type { BlockKind, NotToday, PlanPhrase, PlanPlace, TodayAsked } from './block';
import type { Length } from './knapsack';
import { FRESH, worthOf, type Worth } from './worth';

/** What could be done with a phrase today, for some minutes. */
export interface Candidate {
  readonly id: string;
  readonly kind: BlockKind;
  readonly phrase: PlanPhrase;
  readonly worth: Worth;
  readonly stage: StageKind | null;
  readonly from: number;
  readonly to: number;
  readonly lengths: readonly CandidateLength[];
}

export interface CandidateLength extends Length {
  readonly candidate: Candidate;
}

/** Within so many days before its night nothing new is begun. */
export const NOTHING_NEW = 2;
/** Where to end: the next rung worth trying. */
const WORTH_TRYING = 0.7;
/** What was named so often is mended by itself. */
const NAMED_OFTEN = 2;
const MEND = 1.1;
/** Away from the kit a phrase that needs one gets this share of its worth, by the bare sticking. */
const AWAY: Readonly<Record<PlanPlace, number>> = Object.freeze({ kit: 1, pad: 0.5, none: 0.3 });
/** What is ready by this chance is not raised any more. */
const CERTAIN = 0.97;
/** A new phrase begins at such shares of its goal and of the ceiling, the lower of them. */
const NEW = { ofGoal: 0.6, ofCeiling: 0.7 };
/** Of a block's time so much is played. */
const PLAYED = 0.7;
/** Loads are counted in so many strokes of the busier hand, to the nearest. */
export const LOAD_UNIT = 300;

const MINUTES: Readonly<Record<'keep' | 'rise' | 'mend' | 'new', readonly number[]>> = Object.freeze({
  keep: [2, 3],
  rise: [3, 4, 5, 6, 7, 8, 9, 10, 12],
  mend: [3, 4, 5, 6, 8],
  new: [4, 5, 6, 8, 10],
});

const tempo = (bpm: number): number => clamp(Math.round(bpm), TEMPO.least, TEMPO.most);

/** Strokes of the busier hand in some minutes at a tempo, in units of load. */
export function loadOf({ hands }: Pick<PlanPhrase, 'hands'>, bpm: number, minutes: number): number {
  return Math.round((minutes * bpm * Math.max(hands.R, hands.L) * PLAYED) / LOAD_UNIT);
}

/** Whether it is new and nobody waits for it: of those one a day is enough. What has a day must be begun in time. */
export const isExtra = ({ kind, worth }: Candidate): boolean => kind === 'new' && worth.left === null;

/** Whether any night is so near that nothing new is begun. */
export function nightNear(phrases: readonly PlanPhrase[], day: number): number | null {
  const near = phrases.flatMap(({ by }) =>
    by?.what === 'night' && by.day >= day && by.day - day <= NOTHING_NEW ? [by.day] : [],
  );
  return near.length > 0 ? Math.min(...near) : null;
}

/** What can be done with a phrase today, one of them, or why nothing. */
export function candidatesOf(
  phrase: PlanPhrase,
  asked: TodayAsked,
  night: number | null,
): readonly Candidate[] | NotToday {
  const { day, place } = asked;
  if (asked.dropped.includes(phrase.id)) return 'dropped';
  const away = place !== 'kit' && phrase.kit;
  if (away && phrase.hands.R + phrase.hands.L === 0) return 'no-hands';
  const worth = worthOf(phrase, day);
  if (phrase.known.tries === 0 && night !== null) return 'before-night';
  if (asked.done.some((d) => d.id.endsWith(`:${phrase.id}`))) return 'done';
  const kinds = kindsOf(phrase, worth);
  return kinds.length === 0 ? 'kept' : kinds.map((kind) => candidate(phrase, kind, worth, place));
}

/** Where a new phrase begins: as a drill of it does, and never at its goal. */
function begun({ goal, ceiling }: PlanPhrase, { belief }: Worth): number {
  const start = Math.min(NEW.ofGoal * goal, NEW.ofCeiling * ceiling, tempoAt(belief, SURE));
  return tempo(Math.max(TEMPO.least, start >= 10 ? Math.floor(start / 5) * 5 : start));
}

/** The same of a kind that the player wants, whatever it is worth. */
export function candidate(
  phrase: PlanPhrase,
  kind: 'keep' | 'rise' | 'mend' | 'new',
  worth: Worth,
  place: PlanPlace,
): Candidate {
  const away = place !== 'kit' && phrase.kit;
  const share = away || place === 'none' ? AWAY[place] : 1;
  const ready = Math.min(phrase.goal, readyTempo(worth.belief).bpm);
  const keeps = kind === 'keep';
  const from =
    kind === 'new' ? begun(phrase, worth) : tempo(keeps ? ready : Math.min(phrase.goal, tempoAt(worth.belief, SURE)));
  const to = tempo(keeps ? ready : Math.max(from, Math.min(phrase.goal, tempoAt(worth.belief, WORTH_TRYING))));
  const value = (minutes: number): number => {
    if (keeps)
      return (worth.owned ? worth.keep : Math.max(worth.keep, worth.rise(minutes))) * (minutes >= 3 ? 1.08 : 1);
    return worth.rise(minutes) * (kind === 'mend' ? MEND : 1);
  };
  const made: Candidate & { lengths: CandidateLength[] } = {
    id: `${kind}:${phrase.id}`,
    kind,
    phrase,
    worth,
    stage: away ? 'bare' : kind === 'mend' && phrase.fix ? remedyFor(phrase.fix.finding) : null,
    from,
    to,
    lengths: [],
  };
  for (const minutes of MINUTES[kind])
    made.lengths.push({
      minutes,
      value: share * value(minutes),
      load: loadOf(phrase, (from + to) / 2, minutes),
      candidate: made,
    });
  return made;
}

/** What is sure needs nothing until it is due; what could be surer can be either kept or raised. */
function kindsOf(phrase: PlanPhrase, worth: Worth): readonly ('keep' | 'rise' | 'mend' | 'new')[] {
  if (phrase.known.tries === 0) return ['new'];
  const towards = phrase.fix !== null && phrase.fix.times >= NAMED_OFTEN ? 'mend' : 'rise';
  const near = worth.left !== null && worth.left <= FRESH;
  // What is clean at its goal is not raised: it is kept, until it is sure.
  const isThere = phrase.best !== null && phrase.best >= phrase.goal;
  if (isThere && !worth.owned) return towards === 'mend' ? ['mend', 'keep'] : ['keep'];
  if (worth.owned)
    return [
      ...(worth.keep > 0 ? (['keep'] as const) : []),
      ...(near && worth.ready < CERTAIN && !isThere ? ([towards] as const) : []),
    ];
  return [towards];
}
