import fc from 'fast-check';
import type { Attempt } from '../drill';
import { below, dice, grower, learner, WAYS_TO_GROW, type WayToGrow } from '../testing/learners';
import {
  afterMinutes,
  chanceReady,
  learnt,
  onDay,
  paceOf,
  practised,
  projected,
  readyTempo,
  unknownYet,
  type PaceDay,
} from '.';

/** The tries of a simulated learner up to one of them, day by day. */
function upTo(tries: ReturnType<typeof learner>['tries'], ceiling: number, many: number) {
  let known = unknownYet(ceiling, tries[0]!.day);
  const days: PaceDay[] = [];
  let n = 0;
  for (; n < many || tries[n]!.day === tries[n - 1]!.day; n++) {
    const t = tries[n]!;
    known = learnt(known, [{ day: t.day, bpm: t.bpm, clean: t.clean, weight: 1 }]);
    const before = days.at(-1)?.day === t.day ? days.pop() : undefined;
    days.push({ day: t.day, seconds: (before?.seconds ?? 0) + 40, belief: known.belief });
  }
  return { known, days, n, today: tries[n - 1]!.day, last: tries[n - 1]! };
}

/** What is told of a goal 3 to 25 % ahead after some days of practice, and the day that came true. */
function foretold(roll: () => number, way: WayToGrow, after: number) {
  const { ceiling, days: all } = grower(roll, way, 200);
  let known = unknownYet(ceiling, 20_000);
  const days = all.slice(0, after).map(({ day, seconds, tries }): PaceDay => {
    known = learnt(
      known,
      tries.map((t) => ({ ...t, day, weight: 1 })),
    );
    return { day, seconds, belief: known.belief };
  });
  const { day: today = 0, ready = 0 } = all[after - 1] ?? {};
  const goal = ready * (1.03 + 0.22 * roll());
  return {
    says: projected(onDay(known, today), days, goal, today),
    truth: all.slice(after).find((d) => d.ready >= goal)?.day ?? Infinity,
    today,
    end: all.at(-1)?.day ?? 0,
  };
}

describe('when a goal will be ready', () => {
  it('lies within its interval for four of five of 1,800 simulated learners, early and late, near and far', () => {
    const roll = dice(20261128);
    let [insideAll, askedAll] = [0, 0];
    for (const many of [25, 40, 60]) {
      let [inside, asked, open] = [0, 0, 0];
      for (let i = 0; i < 600; i++) {
        const { ceiling, tries } = learner(roll, 240);
        const { known, days, n, today, last } = upTo(tries, ceiling, many);
        const goal = last.ready * (1 + (i % 2 === 0 ? 0.03 : 0.08) * roll());
        const says = projected(onDay(known, today), days, goal, today);
        if (says.kind !== 'on') continue;
        // The first day on which who knows the player would call it ready; never, where that is after all was played.
        const truth = tries.slice(n).find((t) => t.ready >= goal)?.day ?? Infinity;
        const until = says.until ?? Infinity;
        const end = tries.at(-1)!.day;
        if (truth >= (says.from ?? Infinity) && (truth <= until || (truth === Infinity && until > end))) inside++;
        if (says.until === null) open++;
        asked++;
      }
      expect(asked).toBeGreaterThan(400);
      expect(inside / asked).toBeGreaterThan(0.68);
      expect(inside / asked).toBeLessThan(0.88);
      insideAll += inside;
      askedAll += asked;
      // It says something: most have an end.
      expect(open / asked).toBeLessThan(0.5);
    }
    expect(insideAll / askedAll).toBeGreaterThan(0.75);
    expect(insideAll / askedAll).toBeLessThan(0.85);
  });
  it('of six kinds of players after 5, 10 and 20 days: four of five inside, half of the days too early, half too late', () => {
    const roll = dice(20261201);
    for (const after of [5, 10, 20]) {
      const ratios: number[] = [];
      let [inside, asked, open] = [0, 0, 0];
      for (const way of WAYS_TO_GROW) {
        let [own, of] = [0, 0];
        for (let i = 0; i < 80; i++) {
          const { says, truth, today, end } = foretold(roll, way, after);
          if (says.kind !== 'on') continue;
          const [from, until] = [says.from ?? Infinity, says.until ?? Infinity];
          if (truth >= from && (truth <= until || (truth === Infinity && until > end))) own++;
          if (until === Infinity && way !== 'still') open++;
          of++;
          if (truth < Infinity)
            ratios.push(says.day === null ? Infinity : Math.max(1, says.day - today) / (truth - today));
        }
        inside += own;
        asked += of;
        // No kind of player is told wrong for the sake of the others.
        expect([way, after, own / of > (way === 'steady' ? 0.75 : 0.55)]).toEqual([way, after, true]);
      }
      ratios.sort((a, b) => a - b);
      expect(inside / asked).toBeGreaterThan(0.75);
      expect(inside / asked).toBeLessThan(0.86);
      expect(ratios[ratios.length >> 1]).toBeGreaterThan(0.7);
      expect(ratios[ratios.length >> 1]).toBeLessThan(1.55);
      expect(open / asked).toBeLessThan(0.55);
    }
  });
  it('a standstill is told as one, and growth hardly ever', () => {
    const roll = dice(20261202);
    let [still, grew] = [0, 0];
    for (let i = 0; i < 80; i++) {
      const one = foretold(roll, 'still', 20);
      if (one.says.kind === 'on' && one.says.still !== null) still++;
      const other = foretold(roll, i % 2 === 0 ? 'power' : 'steady', 20);
      if (other.says.kind === 'on' && other.says.still !== null) grew++;
    }
    expect(still).toBeGreaterThan(40);
    expect(grew).toBeLessThan(4);
  });
  it('a climber of two per cent a day on the sixth and the ninth day is told of weeks, not of months', () => {
    for (const at of [6, 9]) {
      let known = unknownYet(180, 20_000);
      const days: PaceDay[] = [];
      for (let day = 0; day < at; day++) {
        const bpm = 80 * 1.02 ** day;
        const tries = [0.97, 1, 1.03, 1, 1.06, 0.98].map((f, i) => ({
          day: 20_000 + day,
          bpm: bpm * f,
          clean: i !== 4,
          weight: 1,
        }));
        known = learnt(known, tries);
        days.push({ day: 20_000 + day, seconds: 540, belief: known.belief });
      }
      const today = 20_000 + at - 1;
      const says = projected(known.belief, days, 112, today);
      if (says.kind !== 'on' || says.day === null) throw new Error('it is likely');
      // 22 days of two per cent are 112 from the start; that is 80 * 1.02 ** 17.
      expect(says.from).toBeLessThanOrEqual(20_018);
      expect(says.until ?? Infinity).toBeGreaterThanOrEqual(20_017);
      expect(says.day).toBeLessThan(20_060);
      expect(says.chance).toBeGreaterThan(0.7);
    }
  });
  const flat = (many: number, mean: (i: number) => number): PaceDay[] =>
    Array.from({ length: many }, (_, i) => ({
      day: 20_000 + 2 * i,
      seconds: 600,
      belief: { mean: mean(i), variance: 0.001 },
    }));
  it('is not said of fewer than four days, and is now where the goal is ready', () => {
    const belief = { mean: Math.log(100), variance: 0.001 };
    expect(
      projected(
        belief,
        flat(3, () => belief.mean),
        110,
        20_010,
      ),
    ).toEqual({ kind: 'unknown', days: 3 });
    expect(projected(belief, [], 110, 20_010)).toEqual({ kind: 'unknown', days: 0 });
    expect(projected(belief, [], 80, 20_010)).toEqual({ kind: 'ready' });
    expect(
      projected(
        belief,
        flat(9, () => belief.mean),
        readyTempo(belief).bpm * 0.97,
        20_010,
      ).kind,
    ).toBe('ready');
  });
  it('comes in the order from, day, until, never before today, and without practice it never comes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 30 }),
        fc.double({ min: 0, max: 0.04, noNaN: true }),
        fc.integer({ min: 80, max: 200 }),
        (many, up, goal) => {
          const days = flat(many, (i) => Math.log(90) + up * Math.log(1 + i));
          const today = days.at(-1)!.day + 1;
          const says = projected(days.at(-1)!.belief, days, goal, today);
          if (says.kind !== 'on') return;
          if (says.from !== null) expect(says.from).toBeGreaterThanOrEqual(today);
          if (says.day !== null) expect(says.day).toBeGreaterThanOrEqual(says.from!);
          if (says.until !== null) expect(says.until).toBeGreaterThanOrEqual(says.day!);
          expect(says.day === null).toBe(says.chance < 0.5);
          // Long after the last practice the pace is nought.
          const late = projected(days.at(-1)!.belief, days, goal, today + 100);
          expect(late).toEqual({ kind: 'resting', since: days.at(-1)!.day });
        },
      ),
    );
  });
});

describe('a pace', () => {
  it('is the usual one before there are days, and what was shown after many', () => {
    const usual = paceOf([], 20_000);
    expect(usual.aDay).toEqual({ minutes: 0, days: 0 });
    const begin = { mean: 4.5, variance: 0.001 };
    expect(afterMinutes(begin, usual, 30).mean - 4.5).toBeGreaterThan(0.03);
    expect(afterMinutes(begin, usual, 30).mean - 4.5).toBeLessThan(0.2);
    // Ten minutes every other day, by a law written out here: so much for each e-fold of the minutes.
    for (const rate of [0.02, 0.06, 0.1]) {
      const days = Array.from({ length: 40 }, (_, i) => ({
        day: 20_000 + 2 * i,
        seconds: 600,
        belief: { mean: 4.5 + rate * Math.log(1 + (10 * (i + 1)) / 4), variance: 0.0004 },
      }));
      const pace = paceOf(days, 20_078);
      const ahead = rate * Math.log((404 + 200) / 404);
      expect(Math.abs(afterMinutes(begin, pace, 200).mean - 4.5 - ahead)).toBeLessThan(0.02);
      expect(pace.growth.minutes).toBeCloseTo(400, 6);
      expect(pace.aDay.minutes).toBeCloseTo(5, 0);
      expect(pace.aDay.days).toBeCloseTo(0.5, 1);
    }
  });
  it('goes on along the line: half now and half later come to the same', () => {
    const days = Array.from({ length: 6 }, (_, i) => ({
      day: 20_000 + i,
      seconds: 300,
      belief: { mean: 4.5 + 0.01 * i, variance: 0.002 },
    }));
    const pace = paceOf(days, 20_006);
    const belief = { mean: 4.6, variance: 0.002 };
    const whole = afterMinutes(belief, pace, 40);
    const half = afterMinutes(belief, pace, 15);
    const later = { ...pace, growth: { ...pace.growth, minutes: pace.growth.minutes + 15 } };
    expect(afterMinutes(half, later, 25).mean).toBeCloseTo(whole.mean, 12);
    expect(whole.mean).toBeGreaterThan(belief.mean);
    expect(whole.variance).toBe(belief.variance);
  });
  it('counts days off in, and not the days after the last as if they were more', () => {
    const on = (all: readonly number[]): PaceDay[] =>
      all.map((d) => ({ day: 20_000 + d, seconds: 600, belief: { mean: 4.5, variance: 0.001 } }));
    expect(paceOf(on([0, 1, 2, 3, 4]), 20_004).aDay).toEqual({ minutes: 10, days: 1 });
    expect(paceOf(on([0, 3, 6, 9]), 20_009).aDay.minutes).toBeCloseTo(10 / 3, 9);
    // Only the last four weeks count, whatever was before.
    expect(paceOf(on([0, 1, 2, 30, 44]), 20_044).aDay.minutes).toBeCloseTo(20 / 28, 9);
  });
  it('the chance to be ready is the share of the bell curve above', () => {
    for (let goal = 60; goal < 140; goal += 3) {
      const belief = { mean: Math.log(100), variance: 0.0049 };
      const z = (belief.mean - Math.log(4) * 0.052 - Math.log(goal)) / 0.07;
      expect(Math.abs(chanceReady(belief, goal) - below(z))).toBeLessThan(0.011);
    }
  });
});

describe('what was practised', () => {
  const DAY = 864e5;
  const dayOf = (at: number): number => Math.floor(at / DAY);
  const one = (n: number, at: number, more: Partial<Attempt> = {}): Attempt => ({
    id: String(n),
    phrase: 'a',
    at,
    bpm: 80,
    goal: 100,
    loops: 4,
    seconds: 30,
    verdict: 'clean',
    ...more,
  });
  it('by day is what plain loops count, and comes to the same belief as try by try', () => {
    const roll = dice(4);
    const tries = Array.from({ length: 120 }, (_, i) =>
      one(i, (20_000 + Math.floor(i / 7)) * DAY + i * 1000, {
        bpm: 60 + Math.floor(60 * roll()),
        seconds: Math.floor(90 * roll()),
        verdict: roll() < 0.6 ? 'clean' : 'messy',
        ...(i % 11 === 0 ? { source: 'simulated' } : {}),
      }),
    );
    const found = practised(tries, 130, 21_000, dayOf)!;
    const own = tries.filter((t) => t.source === undefined);
    expect(found.known.tries).toBe(own.length);
    let known = unknownYet(130, 20_000);
    for (let day = 20_000; day < 20_030; day++) {
      const ofDay = own.filter((t) => dayOf(t.at) === day);
      if (ofDay.length > 0)
        known = learnt(
          known,
          ofDay.map((t) => ({ day, bpm: t.bpm, clean: t.verdict === 'clean', weight: 0.8 })),
        );
    }
    expect(found.known.belief.mean).toBeCloseTo(known.belief.mean, 9);
    for (const d of found.days) {
      let [n, clean, seconds, beats, best, tried] = [0, 0, 0, 0, 0, 0];
      for (const t of own)
        if (dayOf(t.at) === d.day) {
          n++;
          seconds += t.seconds;
          beats += (t.seconds * t.bpm) / 60;
          tried = Math.max(tried, t.bpm);
          if (t.verdict === 'clean') [clean, best] = [clean + 1, Math.max(best, t.bpm)];
        }
      expect([d.tries, d.clean, d.seconds, d.beats, d.best ?? 0, d.tried]).toEqual([
        n,
        clean,
        seconds,
        Math.round(beats),
        best,
        tried,
      ]);
    }
  });
  it('leaves out tries from the future, takes a clock that was set back as the day before it, and bounds a try', () => {
    const at = 20_000 * DAY;
    const found = practised(
      [one(1, at), one(2, at - 40 * DAY), one(3, at + DAY, { seconds: 1e7 }), one(4, at + 900 * DAY)],
      120,
      20_010,
      dayOf,
    )!;
    expect(found.days.map((d) => [d.day, d.tries, d.seconds])).toEqual([
      [20_000, 2, 60],
      [20_001, 1, 1800],
    ]);
    expect(practised([one(1, at + 900 * DAY)], 120, 20_010, dayOf)).toBeNull();
    expect(practised([], 120, 20_010, dayOf)).toBeNull();
  });
});
