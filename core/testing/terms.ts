// Sixty days to a night: what a way of choosing makes of a show's phrases.
import { learnt, unknownYet, type DatedTry, type Known, type PaceDay } from '../player';
import { planToday, type PlanPhrase } from '../plan';
import { dice } from './learners';
import { isReady, owned, practise, type Owned } from './pupils';

/** What is practised on a day: places of phrases with minutes and the tempo to begin at. */
type Choose = (
  shelf: readonly PlanPhrase[],
  day: number,
  minutes: number,
) => readonly { readonly id: string; readonly minutes: number; readonly from: number }[];

export const FIRST_DAY = 20_000;
export const TERM_DAYS = 60;

/** A phrase as the pupil has it, and what the application knows of it. */
interface Followed {
  readonly id: string;
  readonly own: Owned;
  known: Known;
  days: readonly PaceDay[];
  best: number | null;
}

function planned({ id, own, known, days, best }: Followed, night: number): PlanPhrase {
  return {
    id,
    name: id,
    family: 'fill',
    goal: own.goal,
    by: { day: night, what: 'night' },
    ceiling: own.ceiling,
    best,
    known,
    days,
    hands: { R: 2, L: 2 },
    kit: true,
    fix: null,
  };
}

/** Phrases ready on the night after sixty days of so many minutes, of as many as the show has. */
export function term(seed: number, phrases: number, minutes: number, choose: Choose): number {
  const roll = dice(seed);
  const show = new Map(
    Array.from({ length: phrases }, (_, i): [string, Followed] => {
      const own = owned(roll);
      const id = `p${String(i).padStart(3, '0')}`;
      return [id, { id, own, known: unknownYet(own.ceiling, FIRST_DAY), days: [], best: null }];
    }),
  );
  const night = FIRST_DAY + TERM_DAYS;
  for (let day = FIRST_DAY; day < night; day++) {
    const shelf = [...show.values()].map((f) => planned(f, night));
    for (const { id, minutes: some, from } of choose(shelf, day, minutes)) {
      const one = show.get(id);
      if (!one) throw new Error(`no phrase ${id}`);
      const tries = practise(roll, one.own, day, some, from);
      one.known = learnt(
        one.known,
        tries.map((t): DatedTry => ({ ...t, day, weight: 0.8 })),
      );
      for (const t of tries) if (t.clean) one.best = Math.max(one.best ?? 0, t.bpm);
      const before = one.days.at(-1)?.day === day ? one.days.at(-1) : undefined;
      one.days = [
        ...one.days.filter((d) => d !== before),
        { day, seconds: (before?.seconds ?? 0) + some * 60, belief: one.known.belief },
      ];
    }
  }
  return [...show.values()].filter((f) => isReady(f.own, night)).length;
}

/** By the plan: what it lays for phrases; its warm-up and free play count as played and teach nothing. */
export const byPlan: Choose = (shelf, day, minutes) =>
  planToday(shelf, {
    day,
    minutes,
    place: 'kit',
    order: 'in-turn',
    held: [],
    dropped: ['warm-up', 'play'],
    arranged: [],
    done: [],
    strokes: { today: 0, week: [] },
  }).blocks.flatMap((b) =>
    b.phrase && b.kind !== 'warm-up' ? [{ id: b.phrase, minutes: b.minutes, from: b.from ?? 60 }] : [],
  );

/** Six minutes each, with the same break as the plan has. */
function sixEach(list: readonly PlanPhrase[], minutes: number) {
  const playing = minutes > 25 ? minutes - 3 : minutes;
  return list.slice(0, Math.max(1, Math.floor(playing / 6))).map((p) => ({
    id: p.id,
    minutes: playing / Math.max(1, Math.floor(playing / 6)),
    from: Math.min(p.goal, Math.exp(p.known.belief.mean) * 0.86),
  }));
}

/** Round the shelf in order, going on where it ended the day before. */
export const roundTheShelf: Choose = (shelf, day, minutes) => {
  const many = sixEach(shelf, minutes).length;
  const first = ((day - FIRST_DAY) * many) % shelf.length;
  return sixEach([...shelf.slice(first), ...shelf.slice(0, first)], minutes);
};

/** What is farthest from its goal first. */
export const worstFirst: Choose = (shelf, _day, minutes) =>
  sixEach(
    [...shelf].sort((a, b) => a.known.belief.mean - Math.log(a.goal) - (b.known.belief.mean - Math.log(b.goal))),
    minutes,
  );
