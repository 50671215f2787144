// Sixty days to a show whose spots may be filled by any of a shelf's phrases: what a way of practising makes of it.
import { GRID, meter } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText } from '../pattern';
import { learnt, unknownYet, type DatedTry, type Known, type PaceDay } from '../player';
import type { PlanPhrase } from '../plan';
import { factsOf, type Cue, type Show, type Spot } from '../shelf';
import { chanceOn, choicesOf, filledShow, goalUnder, wantsOf, withChoices, type ShowPhrase } from '../show';
import { dice } from './learners';
import { isReady, owned, practise, type Owned } from './pupils';
import { byPlan, FIRST_DAY, TERM_DAYS } from './terms';

interface Followed {
  readonly id: string;
  readonly own: Owned;
  readonly facts: ShowPhrase['facts'];
  known: Known;
  days: readonly PaceDay[];
}

/** How a day is practised: by the show, the shelf in order, or what is farthest from its goal first. */
export type ShowWay = 'by the show' | 'in order' | 'worst first';

/** A sticking of eight slots that no other number has. */
function stickingOf(n: number): string {
  return Array.from({ length: 8 }, (_, i) => ((n >> i) & 1 ? 'R' : 'L')).join(' ');
}

function someShow(roll: () => number, spots: number, slowest: number, typical: number): Show {
  const cues = Array.from({ length: Math.ceil(spots / 2) }, (_, i): Cue => ({
    id: `c${i}`,
    name: `Cue ${i}`,
    tempo: Math.round(typical * (slowest + 0.4 * roll())),
    meter: '4/4',
    feel: { kind: 'straight' },
    grid: null,
    bars: 32,
    groove: null,
    note: '',
    spots: [8, 16].map((bar): Spot => ({
      id: `c${i}-${bar}`,
      what: 'fill',
      bar,
      from: 10_080,
      length: 10_080,
      hits: [],
      free: [],
      lands: 'any',
      phrase: null,
      pinned: false,
    })),
  }));
  return { id: 's', name: 'Show', place: '', day: FIRST_DAY + TERM_DAYS, most: 1, cues, changed: 1 };
}

export interface ShowTerm {
  readonly phrases: number;
  readonly spots: number;
  /** Minutes a day. */
  readonly minutes: number;
  /** The slowest cue as a share of what the player wishes for; the fastest is 0.4 above it. */
  readonly slowest: number;
}

/** How many spots are ready on the night, by what is true of the player; of as many as the show has. */
export function showTerm(seed: number, { phrases, spots, minutes, slowest }: ShowTerm, way: ShowWay): number {
  const roll = dice(seed);
  const all = Array.from({ length: phrases }, (_, i): Followed => {
    const own = owned(roll);
    const read = parseStrokeText(stickingOf(i + 1));
    const facts = factsOf(patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths));
    return { id: `p${String(i).padStart(3, '0')}`, own, facts, known: unknownYet(own.ceiling, FIRST_DAY), days: [] };
  });
  const typical = all.reduce((sum, f) => sum + f.own.goal, 0) / phrases;
  const show = someShow(roll, spots, slowest, typical);
  const seen = (): readonly ShowPhrase[] =>
    all.map(({ id, own, facts, known, days }) => ({
      id,
      name: id,
      family: 'fill',
      tags: [],
      parent: null,
      facts,
      known,
      days,
      ceiling: own.ceiling,
    }));
  const filled = (today: number, before: Show): Show => {
    const now = seen();
    return withChoices(
      before,
      filledShow(before, choicesOf(before, now, { kit: null, today, patternOf: () => null }), now),
    );
  };
  const night = FIRST_DAY + TERM_DAYS;
  let planned = filled(FIRST_DAY, show);
  for (let day = FIRST_DAY; day < night; day++) {
    // What is chosen is looked at again once a week.
    if (way === 'by the show' && (day - FIRST_DAY) % 7 === 0) planned = filled(day, show);
    for (const { id, minutes: some, from, goal } of dayOf(way, all, planned, day, minutes)) {
      const one = all.find((f) => f.id === id);
      if (!one) continue;
      // The player climbs to what they practise for.
      const tries = practise(roll, Object.assign(one.own, { goal }), day, some, from);
      one.known = learnt(
        one.known,
        tries.map((t): DatedTry => ({ ...t, day, weight: 0.8 })),
      );
      one.days = [...one.days, { day, seconds: some * 60, belief: one.known.belief }];
    }
  }
  const last = filled(night, show);
  return last.cues.flatMap((cue) =>
    cue.spots.filter((spot) => {
      const one = all.find((f) => f.id === spot.phrase);
      return one !== undefined && isReady({ ...one.own, goal: cue.tempo }, night);
    }),
  ).length;
}

type DayBlock = { readonly id: string; readonly minutes: number; readonly from: number; readonly goal: number };

function dayOf(
  way: ShowWay,
  all: readonly Followed[],
  planned: Show,
  day: number,
  minutes: number,
): readonly DayBlock[] {
  const wants = wantsOf([planned], day);
  const goalFor = (f: Followed) => {
    const phrase = { known: f.known, days: f.days, ceiling: f.own.ceiling };
    const own = { goal: Math.round(f.own.ceiling * 0.8), by: null };
    return goalUnder(own, wants.get(f.id) ?? [], (tempo, night) => chanceOn(phrase, tempo, { today: day, night }, 0));
  };
  const goals = new Map(all.map((f) => [f.id, goalFor(f)]));
  const goalOf = (id: string): number => goals.get(id)?.goal ?? 100;
  if (way === 'by the show') {
    const shelf = all.map((f): PlanPhrase => ({
      id: f.id,
      name: f.id,
      family: 'fill',
      goal: goalOf(f.id),
      by: goals.get(f.id)?.by ?? null,
      ceiling: f.own.ceiling,
      best: null,
      known: f.known,
      days: f.days,
      hands: { R: 2, L: 2 },
      kit: true,
      fix: null,
    }));
    return byPlan(shelf, day, minutes).map((b) => ({ ...b, goal: goalOf(b.id) }));
  }
  const playing = minutes > 25 ? minutes - 3 : minutes;
  const many = Math.max(1, Math.floor(playing / 6));
  const inShow = all.filter((f) => wants.has(f.id));
  const first = ((day - FIRST_DAY) * many) % all.length;
  const list =
    way === 'in order'
      ? [...all.slice(first), ...all.slice(0, first)]
      : [...inShow].sort(
          (a, b) => a.known.belief.mean - Math.log(goalOf(a.id)) - (b.known.belief.mean - Math.log(goalOf(b.id))),
        );
  return list.slice(0, many).map((f) => ({
    id: f.id,
    minutes: playing / many,
    from: Math.min(goalOf(f.id), Math.exp(f.known.belief.mean) * 0.86),
    goal: goalOf(f.id),
  }));
}
