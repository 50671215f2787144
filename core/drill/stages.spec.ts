import fc from 'fast-check';
import { chooses, type Selection } from '../selection';
import { happening } from '../testing/drilling';
import { anyRecipe } from '../testing/arbitraries';
import { barTicks, beatTicks, GRID } from '../time';
import { build, FAMILIES, type Family, type Recipe } from '../recipe';
import { loopTicks, type Pattern } from '../pattern';
import {
  askedPart,
  drillStage,
  drillStep,
  drillTempo,
  growthStages,
  isStuck,
  ladder,
  LADDER_SCHOOLS,
  MOST_RUNGS,
  newDrill,
  offeredLadders,
  proposeStages,
  stagesBefore,
  readRungs,
  resumed,
  stagePattern,
  stagesOver,
  tickInPhrase,
  stageRungs,
  STAGE_KINDS,
  tightStage,
  timeFeel,
  timeOf,
  type DrillEvent,
  type DrillPlan,
  type DrillState,
  type Stage,
  stageTitle,
  stageWhy,
} from '.';

const pattern = (text: string, moves: Recipe['moves'] = [], meter = '4/4') =>
  build({ source: { kind: 'typed', text, meter, grid: GRID.sixteenths }, moves }).pattern;
const kinds = (family: Family, text: string, moves: Recipe['moves'] = [], meter?: string): string =>
  proposeStages(pattern(text, moves, meter), family)
    .map((s) => s.kind)
    .join(' ');
const fit = (bars: number, start = '1'): Recipe['moves'][number] => ({
  id: 'f',
  on: true,
  move: 'fit',
  params: { space: { bars }, start, mirrored: false, close: { kind: 'cut' } },
});
const toms: Recipe['moves'][number] = {
  id: 't',
  on: true,
  move: 'voice',
  params: { select: chooses({ limbs: ['R'] }), voices: ['high-tom'] },
};
const hats: Recipe['moves'][number] = {
  id: 'h',
  on: true,
  move: 'layer',
  params: { limb: 'R', voice: 'hat-closed', level: 'tap', on: { kind: 'grid', grid: 2520 }, clash: 'keep' },
};

const dropped = (select: Selection): Recipe['moves'][number] => ({
  id: 'd',
  on: true,
  move: 'drop',
  params: { select },
});

describe('stages from the phrase', () => {
  it.each([
    ['a one-beat lick', 'lick', 'R! l l R', [toms], 'bare dynamics whole every-beat context'],
    ['a half-bar fill from 3', 'fill', 'R L R L K R L K', [toms, fit(1, '3')], 'bare whole every-beat context'],
    ['a one-bar fill', 'fill', 'R! l l R K', [toms, fit(1)], 'bare dynamics part part whole steady-foot context'],
    [
      'a one-bar fill with cymbals',
      'fill',
      'R! l l R K',
      [hats, fit(1)],
      'bare dynamics part part whole steady-foot context',
    ],
    ['the same for warming up', 'warm-up', 'R! l l R K', [toms, fit(1)], 'bare dynamics part part whole steady-foot'],
    ['a two-bar groove', 'groove', 'K - - - L! - - - K - K - L! - l -', [hats, fit(2)], 'skeleton no-time part whole'],
    ['a groove without ghosts', 'groove', 'K - - - L - - - K - K - L - - -', [hats], 'skeleton part part whole'],
    ['a half-bar groove', 'groove', 'K - L -', [hats], 'skeleton whole'],
    ['a four-bar exercise', 'warm-up', 'R L R R L R L L', [fit(4)], 'part whole steady-foot'],
    ['a four-bar fill', 'fill', 'R L R R L R L L', [fit(4)], 'part whole steady-foot context'],
  ] as const)('%s', (_, family, text, moves, wanted) =>
    expect(kinds(family, text, moves as unknown as Recipe['moves'])).toBe(wanted),
  );
  it('the skeleton of a groove is its kicks and its backbeat, wherever that is and however loud', () => {
    for (const [snares, back] of [
      ['K - - - L! - l - K - - - L! - l -', [5040, 15120]],
      ['K - - - L - l - K - - - L - l -', [5040, 15120]],
      ['K - l - - - l - L - K - l - - -', [10080]],
      ['K - - L - - K - - - L - - - - -', [3780, 12600]],
    ] as const) {
      const groove = pattern(snares, [hats]);
      const played = stagePattern(proposeStages(groove, 'groove')[0]!, groove).strokes;
      expect(played.filter((s) => s.limb === 'L').map((s): number => s.at)).toEqual(back);
      expect(played.filter((s) => s.limb === 'K')).toHaveLength(groove.strokes.filter((s) => s.limb === 'K').length);
      expect(played.some((s) => s.limb === 'R')).toBe(false);
    }
  });
  it('of a bar that only leaves something out, what is left of it is drilled, never silence', () => {
    const bar = 'R L R L R L R L R L R L R L R L';
    const stages = proposeStages(
      pattern(bar, [fit(2), dropped(chooses({ bars: [2], counts: ['4', '4e', '4&', '4a'] }))]),
      'fill',
    );
    expect(stages.filter((s) => s.kind === 'part').map(stageTitle)).toEqual(['Bar 1', 'Bar 2']);
    const less = proposeStages(pattern(bar, [fit(2), dropped(chooses({ bars: [2], counts: ['4'] }))]), 'fill');
    expect(less.find((s) => stageTitle(s).startsWith('Only'))).toMatchObject({ from: 20160 + 15120, until: 40320 });
  });
  const titles = (p: Pattern): string[] =>
    proposeStages(p, 'fill')
      .filter((s) => s.kind === 'part')
      .map(stageTitle);
  const then = (name: string, text: string, bars: number): Recipe['moves'][number] => ({
    id: name,
    on: true,
    move: 'join',
    params: { name, other: { source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [fit(bars) as never] } },
  });
  it('bars that come again are known; each join is met once', () => {
    const six = pattern('R L R L', [fit(2), then('doubles', 'R R L L', 2), then('mixed', 'R L R R L R L L', 2)]);
    expect(titles(six)).toEqual(['Bar 1', 'Bar 3', 'Bars 2 and 3 joined', 'Bar 5', 'Bars 4 and 5 joined']);
  });
  it('of what goes round the last bar joins the first: its bars one behind the other, its places those of the phrase', () => {
    const three = pattern('R L R L', [fit(1), then('doubles', 'R R L L', 1), then('mixed', 'R L R R L R L L', 1)]);
    const joins = (family: 'groove' | 'fill'): string[] =>
      proposeStages(three, family)
        .filter((s) => s.kind === 'part' && s.part?.of === 'join')
        .map(stageTitle);
    expect(joins('fill')).toEqual(['Bars 1 and 2 joined', 'Bars 2 and 3 joined']);
    expect(joins('groove')).toEqual(['Bars 1 and 2 joined', 'Bars 2 and 3 joined', 'Bar 3 joined to bar 1']);
    const stage = proposeStages(three, 'groove').find((s) => stageTitle(s) === 'Bar 3 joined to bar 1')!;
    const played = stagePattern(stage, three);
    expect(loopTicks(played)).toBe(40320);
    expect(played.start % 20160).toBe(0);
    for (const s of played.strokes) {
      const own = (s.at + 40320) % 60480;
      expect(tickInPhrase(stage, three, s.at)).toBe(own);
      expect(three.strokes.some((o) => o.at === own && o.limb === s.limb && o.voice === s.voice)).toBe(true);
    }
    expect(played.strokes).toHaveLength(32);
  });
  it('a part of one beat is that beat, counted as one', () => {
    for (const m of ['4/4', '6/8', '7/8', '5/4']) {
      const whole = pattern('R L R L R L', [fit(2)], m);
      const beat = beatTicks(whole.meter);
      const stage = { ...askedPart(whole, beat, 2 * beat, 'beat 2')!, id: 'b' };
      const played = stagePattern(stage, whole);
      expect([played.start, loopTicks(played)]).toEqual([0, beat]);
      expect(played.strokes.map((s) => tickInPhrase(stage, whole, s.at))).toEqual(
        whole.strokes.filter((s) => s.at >= beat && s.at < 2 * beat).map((s) => s.at),
      );
    }
  });
  it('many bars that all differ are taken two or more at a time', () => {
    const eight = pattern('R L R R L', [fit(8)]);
    const all = titles(eight);
    expect(all.slice(0, 3)).toEqual(['Bars 1 and 2', 'Bars 3 and 4', 'Bars 1 to 4 joined']);
    expect(proposeStages(eight, 'fill').map((s) => s.kind)).toContain('whole');
  });
  it('however many joins there are, the whole is among what is proposed', () => {
    const kinds = { a: 'R L R L', b: 'R R L L', c: 'R L L R' };
    const bars = (['a', 'b', 'a', 'c', 'a', 'b', 'c', 'b'] as const).map((k, i) => then(`b${i}`, kinds[k], 1));
    const stages = proposeStages(pattern('R! l R l', [toms, fit(1), ...bars]), 'fill');
    expect(stages.length).toBeLessThanOrEqual(12);
    expect(stages.map((s) => s.kind)).toEqual(
      expect.arrayContaining(['bare', 'dynamics', 'part', 'whole', 'steady-foot']),
    );
  });
  it('a fill from 3 that lands is learnt up to the bar line, and the landing is no bar to learn', () => {
    const land: Recipe['moves'][number] = {
      id: 'l',
      on: true,
      move: 'land',
      params: { voice: 'crash-right', hand: 'R', kick: true },
    };
    const [only, ...more] = proposeStages(pattern('R L L R L L R L', [fit(1, '3'), land]), 'fill').filter(
      (s) => s.kind === 'part',
    );
    expect(only).toMatchObject({ part: { of: 'bars', first: 1, last: 1 }, from: 0, until: 10080 });
    expect(more).toEqual([]);
  });
  it('a six-bar exercise is not cut into more stages than can be remembered', () =>
    expect(proposeStages(pattern('R L R R L R L L', [fit(6)]), 'fill').length).toBeLessThanOrEqual(12));
  it('of a second bar only what differs is drilled by itself', () => {
    const last: Recipe['moves'][number] = {
      id: 'e',
      on: true,
      move: 'voice',
      params: { select: chooses({ bars: [2], counts: ['4', '4&'] }), voices: ['floor-tom'] },
    };
    const two = proposeStages(pattern('R L R L R L R L', [fit(2), last]), 'fill').find((s) =>
      stageTitle(s).startsWith('Only'),
    );
    expect(two).toMatchObject({ from: 20160 + 15120, until: 40320 });
  });
  it('every stage has a reason, its own id, and something to play, for any phrase', () => {
    fc.assert(
      fc.property(anyRecipe, fc.constantFrom(...FAMILIES), (recipe, family) => {
        const phrase = build({ ...recipe, moves: recipe.moves.slice(0, 4) }).pattern;
        if (phrase.strokes.length === 0 || phrase.length > 12 * barTicks(phrase.meter)) return;
        const stages = proposeStages(phrase, family);
        expect(new Set(stages.map((s) => s.id)).size).toBe(stages.length);
        expect(stages.some((s) => s.kind === 'whole')).toBe(true);
        for (const stage of stages) {
          expect(stageWhy(stage, phrase).length).toBeGreaterThan(10);
          expect(stageTitle(stage).length).toBeGreaterThan(4);
          const played = stagePattern(stage, phrase);
          expect(played.strokes.length).toBeGreaterThan(0);
          expect(played.strokes.every((s) => s.at >= 0 && s.at < played.length)).toBe(true);
          const keys = played.strokes.map((s) => `${s.at}${s.limb}`);
          expect(new Set(keys).size).toBe(keys.length);
        }
      }),
      { numRuns: 150 },
    );
  });
  it('no kind of stage breaks on any phrase', () => {
    fc.assert(
      fc.property(anyRecipe, fc.constantFrom(...STAGE_KINDS), fc.nat(40_000), fc.nat(40_000), (recipe, kind, a, b) => {
        const phrase = build({ ...recipe, moves: recipe.moves.slice(0, 3) }).pattern;
        const stage: Stage = {
          id: 'x',
          kind,
          from: Math.min(a, b),
          until: Math.max(a, b) + 1,
          bars: 1 + (a % 4),
          short: false,
        };
        expect(stagePattern(stage, phrase).length).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 150 },
    );
  });
});

describe('in context', () => {
  const phrase = pattern('R L R L R L R L', [fit(1, '3')]);
  const stage = { id: 'c', kind: 'context', bars: 3, short: false } as const;
  it('is bars of time, then the fill on its count, and the landing on the next 1', () => {
    const played = stagePattern(stage, phrase);
    expect(played.length).toBe(4 * 20160);
    expect(loopTicks(played)).toBe(4 * 20160);
    expect(played.strokes.filter((s) => s.at === 0).map((s) => `${s.limb} ${s.voice} ${s.level}`)).toEqual([
      'R crash-right accent',
      'K kick accent',
    ]);
    const fill = played.strokes.filter((s) => s.at >= 3 * 20160 + 10080);
    expect(fill.map((s) => s.limb).join('')).toBe('RLRLRLRL');
  });
  it('the time feel fits the meter: backbeats in 4/4, the second beat of 6/8, the last group of 7/8, shuffle on triplets', () => {
    const snares = (meter: string) =>
      timeFeel(pattern('R', [], meter), 1)
        .filter((s) => s.limb === 'L')
        .map((s): number => s.at);
    expect(snares('4/4')).toEqual([5040, 15120]);
    expect(snares('6/8')).toEqual([7560]);
    expect(snares('7/8')).toEqual([4 * 2520]);
    expect(snares('3/4')).toEqual([10080]);
    const shuffle = timeFeel({ ...pattern('R'), grid: GRID.triplets }, 1)
      .filter((s) => s.limb === 'R')
      .map((s): number => s.at);
    expect(shuffle).toHaveLength(8);
    expect(shuffle).not.toContain(1680);
  });
});

describe('put together', () => {
  it('a groove from its bones: then time, ghosts, grace strokes; what adds nothing is left out', () => {
    const groove = pattern('R[hat]+K l R[hat] l R[hat]+fL! l R[hat] l R[hat]+K l R[hat] l R[hat]+L! l R[hat] l');
    const stages = growthStages(groove, 'ingredient');
    expect(stages.map((s) => stageTitle(s))).toEqual([
      'Kick and snare',
      'With the time',
      'With the ghosts',
      'With the grace strokes',
    ]);
    const many = stages.map((s) => stagePattern(s, groove).strokes.length);
    // Two kicks and two backbeats, eight hats, eight ghosts; the flam adds no stroke.
    expect(many).toEqual([4, 12, 20, 20]);
    expect(stages.map((s) => stagePattern(s, groove).strokes.some((o) => o.ornament))).toEqual([
      false,
      false,
      false,
      true,
    ]);
    expect(growthStages(pattern('K - L! - K - L! -'), 'ingredient')).toEqual([]);
    // What sounds like one of them is not played twice.
    const both = stagesBefore(stages, proposeStages(groove, 'groove'), groove).map((s) => s.kind);
    expect(both.slice(0, 4)).toEqual(['grow', 'grow', 'grow', 'grow']);
    expect(both).not.toContain('skeleton');
    expect(both).toContain('whole');
  });
  it('stages that sound alike are one', () => {
    const plain = pattern('R L R L R L R L R L R L R L R L');
    const looks = proposeStages(plain, 'warm-up').map((s) => JSON.stringify(stagePattern(s, plain).strokes));
    expect(new Set(looks).size).toBe(looks.length);
  });
});

describe('growth and tight spots', () => {
  const phrase = pattern('R L R L R L R L');
  it('grows note by note or four at a time to the whole', () => {
    expect(growthStages(phrase, 'note')).toHaveLength(8);
    expect(growthStages(phrase, 'four').map((s) => s.until)).toEqual([4 * 1260, 8 * 1260]);
    expect(stagePattern(growthStages(phrase, 'four')[0]!, phrase).strokes).toHaveLength(4);
    // What is said to come is what comes, also at the end.
    const five = pattern('R l l R K R l');
    const grown = growthStages(five, 'four');
    expect(grown.map((s) => stagePattern(s, five).strokes.length)).toEqual([4, 7]);
    expect(grown.map((s) => stageWhy(s, five))).toEqual(['To begin with.', 'Three more than before.']);
  });
  it('grows beat by beat over the bar line, on as many bars as it has reached', () => {
    const two = pattern('R L R L R', [fit(2)]);
    const grown = growthStages(two, 'beat');
    expect(grown.map(stageTitle).slice(0, 5)).toEqual([
      'The first beat',
      ...[2, 3, 4, 5].map((n) => `The first ${n} beats`),
    ]);
    // The first beat goes round by itself.
    expect(grown.map((s) => stagePattern(s, two).length / 20160)).toEqual([1 / 4, 1, 1, 1, 2, 2, 2, 2]);
    grown.forEach((s, i) => expect(stagePattern(s, two).strokes).toHaveLength((i + 1) * 4));
    // A fill from 4 of one bar into the next begins in the middle of its first beat.
    const late = pattern('R L R L R L', [fit(2, '4&')]);
    expect(growthStages(late, 'beat').map((s) => s.until)).toEqual([2520, ...[1, 2, 3, 4].map((n) => 2520 + n * 5040)]);
    expect(growthStages(late, 'beat').map((s) => loopTicks(stagePattern(s, late)) / 20160)).toEqual([1, 2, 2, 2, 2]);
  });
  it('a tight spot is the beat it stands in and the one before', () =>
    expect(tightStage(pattern('(R L)x8'), 7 * 1260, 't')).toMatchObject({ from: 0, until: 2 * 5040 }));
});

describe('ladders of every school', () => {
  it.each(LADDER_SCHOOLS)(
    '%s: begins at the start, ends at the goal, stays between, has at most 60 rungs',
    (school) => {
      fc.assert(
        fc.property(
          fc.integer({ min: 20, max: 400 }),
          fc.integer({ min: 20, max: 400 }),
          fc.integer({ min: 1, max: 50 }),
          (start, goal, step) => {
            const rungs = ladder(school, start, goal, step);
            expect(rungs.at(-1)).toBe(goal);
            if (start < goal) expect(rungs[0]).toBe(start);
            expect(rungs.length).toBeLessThanOrEqual(MOST_RUNGS);
            expect(rungs.every((r) => r >= Math.min(start, goal) && r <= goal)).toBe(true);
            if (school !== 'wave') expect(rungs.every((r, i) => i === 0 || r > (rungs[i - 1] ?? 0))).toBe(true);
          },
        ),
      );
    },
  );
  it.each(LADDER_SCHOOLS)('%s: no rung is one below the goal', (school) => {
    for (let start = 20; start <= 120; start += 7)
      for (let goal = start + 3; goal <= 400; goal += 11)
        for (const step of [2, 5, 8, 13]) {
          const rungs = ladder(school, start, goal, step);
          expect(goal - (rungs.at(-2) ?? 0)).toBeGreaterThanOrEqual(2);
        }
  });
  it('tempos that were typed are the rungs, as they are; up to three ladders are offered, all different', () => {
    const own: DrillPlan = { start: 60, goal: 235, step: 5, loops: 4, rungs: [60, 117, 150, 235] };
    expect(stageRungs(own, undefined)).toEqual([60, 117, 150, 235]);
    expect(newDrill('d', 'p', own).rungs).toEqual([60, 117, 150, 235]);
    expect(stageRungs(own, { id: 's', kind: 'bare', short: true })).toEqual([60, 117, 150]);
    for (let start = 20; start < 400; start += 13)
      for (let goal = start; goal <= 400; goal += 17) {
        const offers = offeredLadders(start, goal, 5);
        expect(offers.length).toBeGreaterThanOrEqual(1);
        expect(offers.length).toBeLessThanOrEqual(3);
        expect(new Set(offers.map((o) => o.rungs.join())).size).toBe(offers.length);
        expect(offers.every((o) => o.rungs.at(-1) === goal)).toBe(true);
      }
  });
  it.each([
    ['', 'no-tempos'],
    [' , ;', 'no-tempos'],
    ['60 x', 'no-number'],
    ['60 1e9', 'out-of-bounds'],
    ['-60', 'out-of-bounds'],
    [Array.from({ length: 61 }, (_, i) => 60 + i).join(' '), 'too-many'],
  ] as const)('“%s” is no ladder', (text, code) => {
    const read = readRungs(text);
    expect(read.ok ? null : read.problems[0].code).toBe(code);
  });
  it('a short stage climbs the beginning only', () => {
    const plan: DrillPlan = { start: 60, goal: 100, step: 5, loops: 4 };
    expect(stageRungs(plan, { id: 's', kind: 'bare', short: true })).toEqual([60, 70, 80]);
    expect(stageRungs(plan, undefined)).toHaveLength(9);
  });
});

const stages: Stage[] = [
  { id: 'a', kind: 'bare', short: true },
  { id: 'b', kind: 'whole', short: false },
];
const plan: DrillPlan = { start: 60, goal: 90, step: 10, loops: 2, stages };
const anyEvent: fc.Arbitrary<DrillEvent> = fc.nat(1_000_000).chain((at) =>
  fc.oneof(
    fc.constantFrom<DrillEvent>(
      { kind: 'start', at },
      { kind: 'counted-in', at },
      { kind: 'clean', id: `c${at}`, at },
      { kind: 'messy', id: `m${at}`, at },
    ),
    fc.constantFrom<DrillEvent>(
      { kind: 'loop', id: `l${at}`, at },
      { kind: 'loop', id: `l${at}`, at, clean: true },
      { kind: 'loop', id: `l${at}`, at, clean: false, need: 3 },
      { kind: 'loop', id: `l${at}`, at },
    ),
    fc.constantFrom<DrillEvent>(
      { kind: 'pause' },
      { kind: 'stop' },
      { kind: 'stay' },
      { kind: 'down' },
      { kind: 'stage', to: at % 3 },
    ),
    fc.constant<DrillEvent>({
      kind: 'isolate',
      stage: { id: 'x', kind: 'tight', from: 0, until: 1260, short: true },
    }),
  ),
);

describe('the drill with stages', () => {
  it('whatever happens, the tempo stays on the ladder, never rises without clean loops, and the same events give the same state', () => {
    fc.assert(
      fc.property(fc.array(anyEvent, { maxLength: 120 }), (events) => {
        let state: DrillState = newDrill('d', 'p', plan);
        for (const event of events) {
          const before = state;
          state = drillStep(state, event);
          expect(drillTempo(state)).toBeGreaterThanOrEqual(plan.start);
          expect(drillTempo(state)).toBeLessThanOrEqual(plan.goal);
          expect(state.rung).toBeLessThan(state.rungs.length);
          if (drillStage(before)?.id === drillStage(state)?.id && state.rung > before.rung) {
            const last = state.attempts.at(-1);
            expect(state.attempts.length).toBe(before.attempts.length + 1);
            expect(last?.verdict).toBe('clean');
            expect(last?.loops).toBeGreaterThanOrEqual(plan.loops);
          }
        }
        const again = events.reduce(drillStep, newDrill('d', 'p', plan));
        expect(again).toEqual(state);
        const given = events.flatMap((e) => ('id' in e ? [e.id] : []));
        state.attempts.forEach((a) => expect(given).toContain(a.id));
        expect(resumed(resumed(state))).toEqual(resumed(state));
      }),
      { numRuns: 400 },
    );
  });
  const run = (state: DrillState, ...events: DrillEvent[]): DrillState => events.reduce(drillStep, state);
  const cleanTry: readonly DrillEvent[] = [
    { kind: 'start', at: 0 },
    { kind: 'counted-in', at: 1 },
    happening('loop', 2),
    happening('loop', 3),
    happening('clean', 4),
  ];
  it('goes from stage to stage, each with its own rungs, and names the stage in the log', () => {
    let state = newDrill('d', 'p', plan);
    for (const bpm of state.rungs) {
      expect(drillTempo(state)).toBe(bpm);
      state = run(state, ...cleanTry);
    }
    expect(drillStage(state)?.id).toBe('b');
    expect(state.phase).toBe('ready');
    expect(state.rungs).toEqual([60, 70, 80, 90]);
    expect(state.attempts[0]?.drilled).toEqual({ id: 'a', kind: 'bare' });
  });
  it('a stage is over when its last rung was clean; what is jumped over is not', () => {
    const three = { ...plan, stages: ['a', 'b', 'c'].map((id) => ({ ...stages[1]!, id })) };
    const jumped = run(newDrill('d', 'p', three), { kind: 'stage', to: 1 });
    expect(stagesOver(jumped)).toEqual([]);
    let state = jumped;
    state = jumped.rungs.reduce((s) => run(s, ...cleanTry), state);
    expect([drillStage(state)?.id, stagesOver(state)]).toEqual(['c', ['b']]);
    expect(stagesOver(run(state, { kind: 'stage', to: 0 }))).toEqual(['b']);
    // A drill from before this was kept: what lay before its stage was played.
    const old = { ...newDrill('d', 'p', three), stage: 2 };
    expect(stagesOver(old)).toEqual(['a', 'b']);
    expect(stagesOver(run(old, { kind: 'stage', to: 0 }))).toEqual(['a', 'b']);
  });
  it('a measured rung passes after that many clean loops in a row, and is messy when they do not come', () => {
    const loops = (clean: readonly boolean[]): readonly DrillEvent[] =>
      clean.map((c, i) => ({ kind: 'loop', id: `t${i}`, at: i, clean: c }));
    const begun = run(newDrill('d', 'p', plan), { kind: 'start', at: 0 }, { kind: 'counted-in', at: 0 });
    expect(run(begun, ...loops([true, false, true])).rung).toBe(0);
    expect(run(begun, ...loops([true, false, true, true])).rung).toBe(1);
    expect(run(begun, ...loops([false, true, false, true, false])).attempts).toEqual([]);
    expect(run(begun, ...loops([false, true, false, true, false, true])).attempts.at(-1)?.verdict).toBe('messy');
  });
  it('as many loops off in a row as would have passed it end the try; of one loop a slip is allowed', () => {
    const off = (need: number, many: number): DrillState =>
      run(
        newDrill('d', 'p', plan),
        { kind: 'start', at: 0 },
        { kind: 'counted-in', at: 0 },
        ...Array.from({ length: many }, (_, i): DrillEvent => ({
          kind: 'loop',
          id: `t${i}`,
          at: i,
          clean: false,
          need,
        })),
      );
    for (const [need, ends] of [
      [1, 2],
      [2, 2],
      [4, 4],
    ] as const) {
      expect(off(need, ends - 1)).toMatchObject({ phase: 'playing', attempts: [], off: ends - 1 });
      expect(off(need, ends)).toMatchObject({
        phase: 'count-in',
        off: 0,
        attempts: [{ verdict: 'messy', loops: ends }],
      });
    }
  });
  it('“stay” keeps the rung although it passes, until it is said again', () => {
    const kept = run(newDrill('d', 'p', plan), { kind: 'stay' }, ...cleanTry);
    expect([kept.rung, kept.attempts.length]).toEqual([0, 1]);
    expect(run(kept, { kind: 'stay' }, ...cleanTry.slice(1)).rung).toBe(1);
  });
  it('the same rung messy three times: stuck, and a tight spot can be taken out and come back from', () => {
    let state = newDrill('d', 'p', { ...plan, stages: stages.slice(1) });
    for (let i = 0; i < 3; i++)
      state = run(state, { kind: 'start', at: 0 }, { kind: 'counted-in', at: 0 }, happening('messy', 1));
    expect(isStuck(state)).toBe(true);
    const tight: Stage = {
      id: 't',
      kind: 'tight',
      from: 0,
      until: 2520,
      short: true,
    };
    const climbed = run(state, { kind: 'stop' }, ...cleanTry);
    const apart = run(climbed, { kind: 'isolate', stage: tight });
    expect(drillStage(apart)?.kind).toBe('tight');
    let back = apart;
    while (drillStage(back)?.kind === 'tight') back = run(back, ...cleanTry);
    expect(drillStage(back)?.kind).toBe('whole');
    expect(back.rung).toBe(climbed.rung);
  });
});

describe('a groove of the shelf keeps the time', () => {
  const groove = pattern('K - R - L! - R - K - R - L! - R -', [fit(1)]);
  const stage: Stage = { id: 'c', kind: 'context', bars: 3, short: false };
  it('goes round before the fill and stops where the fill begins; the landing is there', () => {
    const fill = pattern('R L R L K R L K', [fit(1, '3')]);
    const all = stagePattern(stage, fill, groove);
    expect(loopTicks(all)).toBe(4 * 20160);
    const begins = 3 * 20160 + 10080;
    const before = all.strokes.filter((s) => s.at < begins && s.at > 0);
    const wanted = [0, 1, 2, 3]
      .flatMap((bar) => groove.strokes.map((s) => s.at + bar * 20160))
      .filter((at) => at > 0 && at < begins);
    expect(before.map((s) => s.at as number)).toEqual(wanted);
    expect(all.strokes.filter((s) => s.at >= begins).map((s) => s.limb)).toEqual(fill.strokes.map((s) => s.limb));
    expect(all.strokes.filter((s) => s.at === 0).map((s) => s.voice)).toContain('crash-right');
  });
  it('one that does not fit gives plain time', () => {
    const fill = pattern('R L R L', [], '3/4');
    expect(timeOf(groove, fill.meter, 2)).toBeNull();
    expect(timeOf(pattern('R L R'), groove.meter, 2)).toBeNull();
    expect(timeOf({ ...groove, strokes: [] }, groove.meter, 1)).toBeNull();
    expect(stagePattern(stage, fill, groove)).toEqual(stagePattern(stage, fill));
  });
  it('a groove of two bars is cut to the bars it is given', () => {
    const two = pattern('K - R - L! - R - K - R - L! - R -', [fit(2)]);
    const three = timeOf(two, two.meter, 3)!;
    expect(Math.max(...three.map((s) => s.at))).toBeLessThan(3 * 20160);
    expect(three.filter((s) => s.at >= 2 * 20160)).toHaveLength(two.strokes.filter((s) => s.at < 20160).length);
  });
});

describe('a part that was asked for', () => {
  it('is played as a plain cut of the phrase is, and goes up to the goal', () => {
    const phrase = pattern('R L K L R R L L R L K L R R L L');
    const stage = askedPart(phrase, 10080, 20160, 'the second half');
    expect(stage).toMatchObject({ from: 10080, until: 20160, short: false });
    expect(stageTitle(stage!)).toBe('The second half');
    const played = stagePattern({ ...stage!, id: 'x' }, phrase);
    const wanted = phrase.strokes.filter((s) => s.at >= 10080).map((s) => s.limb);
    expect(played.strokes.map((s) => s.limb)).toEqual(wanted);
  });
  it('is none where there is nothing, whatever numbers an address has', () => {
    const phrase = pattern('R L K L');
    for (const [a, b] of [
      [5040, 2520],
      [NaN, NaN],
      [90000, 99000],
      [1e308, Infinity],
      [100, 100],
    ] as const)
      expect(askedPart(phrase, a, b, 'x')).toBeNull();
    expect(askedPart(phrase, -5, 1e9, '')).toMatchObject({
      part: { of: 'asked', said: 'a part' },
      from: 0,
      until: phrase.length,
    });
  });
});

describe('where in the phrase a moment of a stage lies', () => {
  const phrase = pattern('R! l l R K R! l l R K R! l R K', [toms, fit(1)]);
  it('the strokes of a part, of the tight spot and of a context are the phrase’s own, at their own ticks', () => {
    const own = new Set(phrase.strokes.map((s) => `${s.limb}${s.at}`));
    const stages: readonly Stage[] = [
      { id: 'p', kind: 'part', from: 10080, until: 20160, short: true },
      { id: 't', kind: 'tight', from: 3780, until: 8820, short: true },
      { id: 'c', kind: 'context', bars: 3, short: false },
      { id: 'w', kind: 'whole', short: false },
    ];
    for (const stage of stages) {
      const found = stagePattern(stage, phrase)
        .strokes.map((s) => ({ limb: s.limb, at: tickInPhrase(stage, phrase, s.at) }))
        .filter((s) => s.at !== null);
      expect(found.length).toBeGreaterThan(2);
      for (const { limb, at } of found) expect(own).toContain(`${limb}${at}`);
    }
  });
  it('bars of time are no part of the phrase, and a cell on every beat has no one place in it', () => {
    const context = { id: 'c', kind: 'context', bars: 3, short: false } as const;
    expect([0, 20160, 60479].map((at) => tickInPhrase(context, phrase, at))).toEqual([null, null, null]);
    expect([60480, 61740].map((at) => tickInPhrase(context, phrase, at))).toEqual([0, 1260]);
    const every = { id: 'e', kind: 'every-beat', short: false } as const;
    expect(tickInPhrase(every, phrase, 0)).toBeNull();
    expect(tickInPhrase(null, phrase, 77)).toBe(77);
  });
});
