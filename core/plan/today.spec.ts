import fc from 'fast-check';
import { learnt, newMemory, recall, unknownYet, type Known, type PaceDay } from '../player';
import { byPlan, roundTheShelf, term, worstFirst } from '../testing/terms';
import { dice } from '../testing/learners';
import {
  BREAK_AFTER,
  dateWords,
  weekday,
  mostStrokes,
  planToday,
  type Block,
  type PlanPhrase,
  type TodayAsked,
  type TodayPlan,
} from '.';
import type { KeptFinding } from '../drill';

const LATE: KeptFinding = { kind: 'limb', limb: 'L', off: 18, stroke: null };
const TODAY = 20_784; // a Friday

const phrase = (id: string, more: Partial<PlanPhrase> = {}): PlanPhrase => ({
  id,
  name: `Phrase ${id}`,
  family: 'fill',
  goal: 100,
  by: null,
  ceiling: 130,
  best: null,
  known: unknownYet(130, TODAY),
  days: [],
  hands: { R: 2, L: 1 },
  kit: true,
  fix: null,
  ...more,
});

/** What is known after so many tries at a tempo, ending so many days ago. */
function known(bpm: number, clean: number, tries: number, ago: number, days = 4): { known: Known; days: PaceDay[] } {
  let now = unknownYet(130, TODAY - ago - days);
  const list: PaceDay[] = [];
  for (let d = 0; d < days; d++) {
    const day = TODAY - ago - days + 1 + d;
    now = learnt(
      now,
      Array.from({ length: tries }, (_, i) => ({ day, bpm, clean: i < clean, weight: 1 })),
    );
    list.push({ day, seconds: tries * 40, belief: now.belief });
  }
  return { known: now, days: list };
}

const asked = (more: Partial<TodayAsked> = {}): TodayAsked => ({
  day: TODAY,
  minutes: 35,
  place: 'kit',
  order: 'in-turn',
  held: [],
  dropped: [],
  arranged: [],
  done: [],
  strokes: { today: 0, week: [] },
  ...more,
});

const climbing = (id: string, more: Partial<PlanPhrase> = {}): PlanPhrase =>
  phrase(id, { ...known(92, 3, 5, 2), best: 92, ...more });
const owned = (id: string, ago: number, more: Partial<PlanPhrase> = {}): PlanPhrase =>
  phrase(id, { ...known(108, 5, 5, ago, 3), best: 108, goal: 90, ...more });

const minutesOf = (plan: TodayPlan, kind?: Block['kind']): number =>
  plan.blocks.filter((b) => !kind || b.kind === kind).reduce((s, b) => s + b.minutes, 0);
const named = (plan: TodayPlan, id: string): Block | undefined =>
  plan.blocks.find((b) => b.phrase === id && b.kind !== 'warm-up');

/** Any shelf: phrases never tried, climbing, owned, with and without days, for hands and for feet. */
const shelf = fc
  .array(
    fc.record({
      kind: fc.constantFrom('new', 'climbing', 'owned'),
      ago: fc.integer({ min: 0, max: 60 }),
      night: fc.option(fc.integer({ min: -3, max: 40 })),
      kit: fc.boolean(),
      feet: fc.boolean(),
      warm: fc.boolean(),
      fix: fc.option(fc.integer({ min: 1, max: 4 })),
    }),
    { maxLength: 12 },
  )
  .map((all) =>
    all.map((p, i): PlanPhrase => {
      const make =
        p.kind === 'new' ? phrase : p.kind === 'climbing' ? climbing : (id: string, m: object) => owned(id, p.ago, m);
      return make(`p${i}`, {
        kit: p.kit,
        ...(p.feet ? { hands: { R: 0, L: 0 } } : {}),
        ...(p.warm ? { family: 'warm-up' as const } : {}),
        by: p.night === null ? null : { day: TODAY + p.night, what: 'night' },
        fix: p.fix === null ? null : { finding: LATE, times: p.fix },
      });
    }),
  );
const question = fc
  .record({
    minutes: fc.integer({ min: 3, max: 240 }),
    place: fc.constantFrom('kit' as const, 'pad' as const, 'none' as const),
    order: fc.constantFrom('in-turn' as const, 'rounds' as const),
    week: fc.array(fc.integer({ min: 0, max: 6000 }), { maxLength: 7 }),
    today: fc.integer({ min: 0, max: 3000 }),
    dropped: fc.subarray(['p0', 'p1', 'warm-up', 'play', 'gone']),
    held: fc.subarray(['rise:p2', 'keep:p3', 'rise:gone', 'play', 'nonsense']),
    done: fc.subarray(['warm-up', 'rise:p4', 'break', 'rise:p5']),
  })
  .map(({ week, today, held, done, ...rest }) =>
    asked({
      ...rest,
      strokes: { today, week },
      held: held.map((id) => ({ id, minutes: 6 })),
      done: done.map((id) => ({ id, minutes: 4 })),
    }),
  );

describe('a day of practice', () => {
  it('fills its minutes and no more, from the first to the last, without a gap', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const plan = planToday(phrases, q);
        const done = q.done.reduce((s, d) => s + d.minutes, 0);
        let at = done;
        for (const b of plan.blocks) {
          expect(b.at).toBe(at);
          expect(b.minutes).toBeGreaterThan(0);
          expect(Number.isInteger(b.minutes)).toBe(true);
          at += b.minutes;
        }
        expect(at).toBeLessThanOrEqual(Math.max(done, q.minutes));
        expect(plan.free).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 200 },
    );
  });
  it('never goes on for longer than 25 minutes without a break, with what was done before', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        let run = 0;
        for (const d of q.done) run = d.id === 'break' ? 0 : run + d.minutes;
        for (const b of planToday(phrases, q).blocks) {
          run = b.kind === 'break' ? 0 : run + b.minutes;
          expect(run).toBeLessThanOrEqual(BREAK_AFTER);
        }
      }),
      { numRuns: 200 },
    );
  });
  it('plans each phrase once, none that was dropped or done, one new one that nobody waits for, and keeps what is held', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const plan = planToday(phrases, q);
        const own = plan.blocks.filter((b) => b.phrase !== null && b.kind !== 'warm-up');
        // A block that is cut into rounds, or by a break, is still one.
        expect(new Set(own.map((b) => b.phrase)).size).toBe(new Set(own.map((b) => b.id)).size);
        for (const b of own) {
          const isHeld = q.held.some((h) => h.id === b.id);
          if (!isHeld) expect(q.dropped).not.toContain(b.phrase);
          expect(q.done.map((d) => d.id)).not.toContain(b.id);
        }
        const extra = own.filter(
          (b) => b.kind === 'new' && !((phrases.find((p) => p.id === b.phrase)?.by?.day ?? -1) >= TODAY),
        );
        expect(new Set(extra.map((b) => b.phrase)).size).toBeLessThanOrEqual(1);
        const night = phrases.some((p) => p.by && p.by.day >= TODAY && p.by.day <= TODAY + 2);
        if (night) expect(own.filter((b) => b.kind === 'new')).toEqual([]);
        for (const l of plan.left) expect(own.map((b) => b.phrase)).not.toContain(l.phrase);
      }),
      { numRuns: 200 },
    );
  });
  it('puts no more on the hands than half as much again as the week, held blocks aside', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const free = { ...q, held: [], dropped: ['warm-up', 'play'] };
        const plan = planToday(phrases, free);
        const most = mostStrokes(free.strokes.week);
        expect(plan.load.most).toBe(most === null ? null : Math.round(most));
        const planned = plan.load.strokes - free.strokes.today;
        if (most !== null) expect(planned).toBeLessThanOrEqual(Math.max(0, most - free.strokes.today));
      }),
      { numRuns: 150 },
    );
  });
  it('spares the hands where the week was a quiet one, but not below an easy half hour', () => {
    const phrases = ['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((id) => climbing(id, { hands: { R: 4, L: 2 } }));
    const free = planToday(phrases, asked({ minutes: 60 }));
    const spared = planToday(phrases, asked({ minutes: 60, strokes: { today: 0, week: [900, 0, 1100] } }));
    expect(spared.load.most).toBe(4000);
    expect(spared.load.strokes).toBeLessThanOrEqual(4000);
    expect(free.load.strokes).toBeGreaterThan(4000);
    expect(spared.notes.join()).toContain('an easy half hour');
    expect(spared.left.some((l) => l.words.startsWith('Left out to spare your hands'))).toBe(true);
  });
  it('is the same for the same question, and every sentence has its words', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const plan = planToday(phrases, q);
        expect(planToday(phrases, q)).toEqual(plan);
        for (const { words } of [...plan.blocks, ...plan.left]) {
          expect(words).toMatch(/\S.*[.]$/);
          expect(words).not.toMatch(/undefined|null|NaN|Infinity/);
        }
      }),
      { numRuns: 100 },
    );
  });
  it('of an empty shelf, of five minutes and of three hours is sensible', () => {
    const empty = planToday([], asked());
    expect(empty.blocks.filter((b) => b.kind !== 'break').every((b) => /warm-up|play/.test(b.kind))).toBe(true);
    expect(minutesOf(empty)).toBe(35);
    expect(empty.left).toEqual([]);
    const short = planToday([climbing('a'), owned('b', 30)], asked({ minutes: 5 }));
    expect(short.blocks.map((b) => b.minutes)).toEqual([2, 3]);
    expect(short.blocks[1]?.phrase).not.toBeNull();
    const one = planToday([climbing('a')], asked({ minutes: 180 }));
    expect(minutesOf(one, 'rise')).toBe(12);
    expect([minutesOf(one), one.free]).toEqual([180, 0]);
    expect(one.notes.join()).toContain('Start with less');
    const past = planToday([climbing('a', { by: { day: TODAY - 5, what: 'night' } })], asked());
    expect(named(past, 'a')?.words ?? '').toContain('its date has passed');
  });
  it('every minute that was asked for is laid, breaks among them, from 3 to 240', () => {
    for (let minutes = 3; minutes <= 240; minutes++)
      for (const order of ['in-turn', 'rounds'] as const)
        for (const some of [[], [climbing('a')], [climbing('a'), owned('b', 30), phrase('c'), climbing('d')]]) {
          const plan = planToday(some, asked({ minutes, order }));
          expect([minutes, order, minutesOf(plan), plan.free]).toEqual([minutes, order, minutes, 0]);
        }
  });
  it('whatever is asked: what is laid and what is free are the minutes there are, and nothing is a splinter', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const plan = planToday(phrases, q);
        const done = q.done.reduce((sum, d) => sum + d.minutes, 0);
        expect(minutesOf(plan) + plan.free).toBe(Math.max(0, q.minutes - done));
        for (const b of plan.blocks) expect(b.minutes).toBeGreaterThanOrEqual(q.minutes - done < 6 ? 1 : 2);
        // Of a week that tells nothing the hands are spared; else only what nobody may do stays free.
        if (q.strokes.week.length === 0 && q.dropped.length === 0 && !q.held.some((h) => h.id === 'play'))
          expect(plan.free).toBe(0);
      }),
      { numRuns: 300 },
    );
  });
  it('one after the other a phrase stands once; in rounds it never comes twice running where others can come between', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const { blocks } = planToday(phrases, { ...q, held: [] });
        const own = blocks.filter((b) => b.kind !== 'break' && b.kind !== 'play');
        const drilled = own.filter((b) => b.kind !== 'warm-up').map((b) => b.phrase);
        const most = Math.max(0, ...drilled.map((id) => drilled.filter((o) => o === id).length));
        if (q.order === 'in-turn') expect(most).toBeLessThanOrEqual(1);
        const running = drilled.some((id, i) => i > 0 && id === drilled[i - 1]);
        if (2 * most <= drilled.length + 1) expect(running).toBe(false);
        const [warm] = own;
        // What is warmed up with is not what comes next, unless there is nothing else.
        if (warm?.kind === 'warm-up' && warm.phrase !== null && new Set(drilled).size > 1)
          expect(warm.phrase).not.toBe(drilled[0]);
      }),
      { numRuns: 300 },
    );
  });
  it('what is clean at its goal is kept and not raised; what is new begins well below its goal', () => {
    fc.assert(
      fc.property(shelf, question, (phrases, q) => {
        const there = phrases.map((p, i) => (i % 2 === 0 && p.known.tries > 0 ? { ...p, best: p.goal + (i % 3) } : p));
        for (const b of planToday(there, { ...q, held: [] }).blocks) {
          const own = there.find((p) => p.id === b.phrase);
          if (!own || b.kind === 'warm-up') continue;
          if (b.kind === 'rise') expect(own.best === null || own.best < own.goal).toBe(true);
          if (b.kind !== 'new') continue;
          expect(b.from!).toBeLessThanOrEqual(0.6 * own.goal);
          expect(b.from!).toBeLessThanOrEqual(0.7 * own.ceiling);
        }
      }),
      { numRuns: 300 },
    );
  });
  it('a break is due by what was really played: who sat there for 25 minutes is not told to put the sticks down', () => {
    const first = (played?: number): string | undefined =>
      planToday(
        [climbing('a'), climbing('b')],
        asked({ minutes: 60, done: [{ id: 'rise:x', minutes: 25, ...(played === undefined ? {} : { played }) }] }),
      ).blocks[0]?.kind;
    expect([first(), first(25), first(0)]).toEqual(['break', 'break', 'warm-up']);
  });
  it('says its numbers', () => {
    const plan = planToday(
      [climbing('a', { name: 'Glass over five', goal: 104, best: 95, by: { day: TODAY + 6, what: 'night' } })],
      asked(),
    );
    const block = plan.blocks.find((b) => b.kind === 'rise')!;
    expect(block.words).toMatch(
      /^Start at \d+, try \d+\. (Over |Under )?\d+% chance at its goal, needed for the show on Thursday\.$/,
    );
    expect(block.from!).toBeLessThanOrEqual(block.to!);
    expect(block.to!).toBeLessThanOrEqual(104);
  });
  it('keeps what is due, raises what has a day before what has none, and mends what was named twice', () => {
    const long = owned('kept', 60);
    expect(recall(long.known.memory, TODAY)).toBeLessThan(0.99);
    const due = { ...long, known: { ...long.known, memory: { ...long.known.memory, dueDay: TODAY - 1 } } };
    const fresh = owned('fresh', 1, {
      known: {
        ...owned('x', 1).known,
        memory: { ...newMemory(TODAY), ...owned('x', 1).known.memory, dueDay: TODAY + 9 },
      },
    });
    const plan = planToday([due, fresh], asked());
    expect(named(plan, 'fresh')).toBeUndefined();
    expect(plan.left.find((l) => l.phrase === 'fresh')?.words).toBe('Solid for now. Refresh on 6 Dec.');
    const both = planToday(
      [climbing('a'), climbing('b', { by: { day: TODAY + 9, what: 'lesson' } })],
      asked({ minutes: 12 }),
    );
    expect(named(both, 'b')!.minutes).toBeGreaterThan(named(both, 'a')?.minutes ?? 0);
    const fix = { finding: LATE, times: 2 };
    const mended = named(planToday([climbing('a', { fix })], asked()), 'a')!;
    expect([mended.kind, mended.stage]).toEqual(['mend', 'bare']);
    expect(mended.words).toMatch(/^The left hand is 18 ms late\. This came up twice lately\. Drill it alone/);
    expect(named(planToday([climbing('a', { fix: { ...fix, times: 1 } })], asked()), 'a')!.kind).toBe('rise');
  });
  it('plays by bare sticking away from the kit, and leaves the feet for the kit', () => {
    const feet = climbing('feet', { hands: { R: 0, L: 0 } });
    for (const place of ['pad', 'none'] as const) {
      const plan = planToday([climbing('a'), feet], asked({ place }));
      expect(named(plan, 'a')!.stage).toBe('bare');
      expect(plan.left.find((l) => l.phrase === 'feet')?.words).toBe('Only feet play it, so it needs the kit.');
      expect(plan.notes.join()).toContain('the sticking only');
    }
    expect(named(planToday([climbing('a', { kit: false })], asked({ place: 'pad' })), 'a')!.stage).toBeNull();
  });
  it('in rounds plays the same minutes in stretches of four at most', () => {
    const phrases = ['a', 'b', 'c'].map((id) => climbing(id));
    const [turn, rounds] = (['in-turn', 'rounds'] as const).map((order) => planToday(phrases, asked({ order })));
    const sums = (p: TodayPlan): number[] =>
      ['a', 'b', 'c'].map((id) =>
        p.blocks.filter((b) => b.phrase === id && b.kind !== 'warm-up').reduce((s, b) => s + b.minutes, 0),
      );
    expect(sums(rounds!)).toEqual(sums(turn!));
    const climbs = rounds!.blocks.filter((b) => b.kind === 'rise');
    expect(Math.max(...climbs.map((b) => b.minutes))).toBeLessThanOrEqual(4);
    expect(climbs.some((b, i) => b.phrase !== climbs[i + 1]?.phrase)).toBe(true);
    expect(climbs[0]!.round).toEqual({ n: 1, of: expect.any(Number) as number });
  });
  it('comes in the order in which the player laid it', () => {
    const phrases = ['a', 'b', 'c'].map((id) => climbing(id));
    const ids = planToday(phrases, asked({ minutes: 25 }))
      .blocks.filter((b) => b.kind === 'rise')
      .map((b) => b.id);
    const turned = [...ids].reverse();
    const laid = planToday(phrases, asked({ minutes: 25, arranged: turned }))
      .blocks.filter((b) => b.kind === 'rise')
      .map((b) => b.id);
    expect(laid).toEqual(turned);
  });
});

describe('free play', () => {
  const play = (...phrases: readonly PlanPhrase[]): Block | undefined =>
    planToday(phrases, asked()).blocks.find((b) => b.kind === 'play');

  it('brings in what is clean and does not come by itself, where somebody listens', () => {
    const shelf = [
      climbing('climbs', { comes: 0.9 }),
      owned('silent', 1, { comes: null }),
      owned('fades', 1, { comes: 0.2 }),
      owned('comes', 1, { comes: 0.9 }),
    ];
    expect(play(...shelf)?.bring.map((b) => b.id)).toEqual(['silent', 'fades']);
    expect(play(...shelf)?.words).toBe(
      'Play freely. Phrase silent and Phrase fades go clean and have not come by themselves yet: bring them in.',
    );
    expect(play(climbing('climbs', { comes: 0.9 }), owned('fades', 1, { comes: 0.2 }))?.words).toContain(
      'Phrase fades goes clean and has not come by itself yet: bring it in.',
    );
  });

  it('is as before where nobody listened, or all that is clean comes', () => {
    const before = play(climbing('a'), owned('b', 1));
    expect(before?.bring.map((b) => b.id)).toEqual(['a']);
    expect(play(climbing('a', { comes: 0.9 }), owned('b', 1, { comes: 0.8 }))).toEqual(before);
  });
});

describe('a date', () => {
  it('is the one of the platform’s own calendar, from 1970 to 2200', () => {
    for (let day = 0; day <= 84_005; day++) {
      const date = new Date(day * 864e5);
      const year = date.getUTCFullYear();
      const month = date.toLocaleString('en', { month: 'short', timeZone: 'UTC' });
      if (dateWords(day, true) !== `${date.getUTCDate()} ${month} ${year}`) throw new Error(`${day}`);
      if (weekday(day) !== date.toLocaleString('en', { weekday: 'long', timeZone: 'UTC' })) throw new Error(`${day}`);
      if (day > 3000) day += 36;
    }
    expect(dateWords(11_016, true)).toBe('29 Feb 2000');
  });
});

describe('sixty days to a night', () => {
  const show = (many: number, minutes: number, seeds: number): { plan: number; round: number; worst: number } => {
    const sum = { plan: 0, round: 0, worst: 0 };
    for (let seed = 1; seed <= seeds; seed++) {
      sum.plan += term(seed, many, minutes, byPlan);
      sum.round += term(seed, many, minutes, roundTheShelf);
      sum.worst += term(seed, many, minutes, worstFirst);
    }
    return sum;
  };
  it('a show of 36 phrases at twenty minutes a day: a fifth more is ready by the plan than by either other way', () => {
    const { plan, round, worst } = show(36, 20, 12);
    expect(plan / round).toBeGreaterThan(1.2);
    expect(plan / worst).toBeGreaterThan(1.2);
  });
  it('with time enough for all it is no worse', () => {
    const { plan, round, worst } = show(24, 30, 8);
    expect(plan / round).toBeGreaterThan(1);
    expect(plan / worst).toBeGreaterThan(1.2);
  });
});

describe('a thousand phrases', () => {
  it('are planned by looking at each of them a few times only', () => {
    // Not the time is tested, but that it grows with the shelf and not with its square.
    const roll = dice(3);
    const many = (n: number): PlanPhrase[] =>
      Array.from({ length: n }, (_, i) => climbing(`p${i}`, { goal: 80 + Math.floor(40 * roll()) }));
    let looked = 0;
    const watched = (list: PlanPhrase[]): PlanPhrase[] =>
      list.map((p) =>
        Object.defineProperty({ ...p }, 'days', {
          get: () => {
            looked++;
            return p.days;
          },
        }),
      );
    planToday(watched(many(100)), asked({ minutes: 180 }));
    const few = looked;
    looked = 0;
    planToday(watched(many(1000)), asked({ minutes: 180 }));
    expect(looked / few).toBeLessThan(11);
  });
});
