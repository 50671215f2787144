import { planToday, type PlanPhrase, type TodayAsked } from '@core/plan';
import { learnt, unknownYet, type PaceDay } from '@core/player';
import { byPlan, roundTheShelf, term, worstFirst } from '../core/testing/terms';
import { median } from './measure';

const TODAY = 20_784;

/** A phrase with forty days of practice, 200 tries. */
function phrase(i: number): PlanPhrase {
  let known = unknownYet(130, TODAY - 60);
  const days: PaceDay[] = [];
  for (let d = 0; d < 40; d++) {
    const day = TODAY - 60 + d;
    known = learnt(
      known,
      Array.from({ length: 5 }, (_, j) => ({ day, bpm: 70 + ((i * 7 + d) % 40), clean: (i + j) % 3 > 0, weight: 0.8 })),
    );
    days.push({ day, seconds: 200, belief: known.belief });
  }
  return {
    id: `p${i}`,
    name: `Phrase ${i}`,
    family: 'fill',
    goal: 80 + (i % 50),
    by: i % 3 ? null : { day: TODAY + 20, what: 'night' },
    ceiling: 130,
    best: 90,
    known,
    days,
    hands: { R: 2, L: 2 },
    kit: true,
    fix: null,
  };
}

const asked = (minutes: number, week: readonly number[]): TodayAsked => ({
  day: TODAY,
  minutes,
  place: 'kit',
  order: 'in-turn',
  held: [],
  dropped: [],
  arranged: [],
  done: [],
  strokes: { today: 0, week },
});

console.log('\na day planned (baseline: 100 phrases, 35 minutes, same run)');
const shelf = Array.from({ length: 1000 }, (_, i) => phrase(i));
const few = shelf.slice(0, 100);
const base = median(() => planToday(few, asked(35, [])));
for (const [many, minutes, week] of [
  [100, 35, []],
  [1000, 35, []],
  [1000, 180, []],
  [1000, 35, [1200, 900]],
  [1000, 180, [6000, 5000]],
] as const) {
  const us = median(() => planToday(shelf.slice(0, many), asked(minutes, week)));
  console.log(
    `${many} phrases, ${minutes} min${week.length > 0 ? ', hands spared' : ''}: ${(us / 1000).toFixed(1)} ms = ${(us / base).toFixed(1)} × baseline`,
  );
}

console.log(
  '\nsixty days to a night, phrases ready (baselines: round the shelf in order, and the worst first, same run)',
);
for (const [phrases, minutes] of [
  [36, 20],
  [48, 30],
  [24, 30],
] as const) {
  const sum = [byPlan, roundTheShelf, worstFirst].map((choose) =>
    Array.from({ length: 16 }, (_, seed) => term(seed + 1, phrases, minutes, choose)).reduce((a, b) => a + b, 0),
  );
  const [plan = 0, round = 1, worst = 1] = sum;
  console.log(
    `${phrases} phrases, ${minutes} min a day: by the plan ${(plan / 16).toFixed(1)} = ${(plan / round).toFixed(2)} × round the shelf, ${(plan / Math.max(1, worst)).toFixed(1)} × the worst first`,
  );
}
