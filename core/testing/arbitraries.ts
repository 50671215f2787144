// Random inputs for property tests: patterns, selectors and recipes of every shape the schemas allow.
import fc from 'fast-check';
import { GRID, meter, parseMeter, type Grid, type Meter } from '../time';
import {
  HAND_VOICES,
  LEVELS,
  LIMBS,
  ORNAMENTS,
  printStrokeText,
  usualVoice,
  VOICES,
  type Node,
  type TypedStroke,
  SAME_HAND,
} from '../stroke';
import { RUDIMENTS } from '../rudiments';
import { chooses, EDGES, PARTS, WITHINS, type Facets, type Selection, type Which } from '../selection';
import {
  build,
  MOVE_NAMES,
  type MoveEntry,
  type MoveName,
  type MoveParams,
  type Phrase,
  type Recipe,
  type Source,
} from '../recipe';
import type { Pattern } from '../pattern';
import { newDrill, type Attempt } from '../drill';

export const METERS: readonly Meter[] = [
  '4/4',
  '3/4',
  '6/8',
  '12/8',
  '5/4',
  '7/8',
  '7/8 3+2+2',
  '11/16',
  '2/2',
  '9/8',
  '5/8',
].map((text) => {
  const found = parseMeter(text);
  if (!found) throw new Error(text);
  return found;
});

export const anyMeter = fc.oneof(
  fc.constantFrom(...METERS),
  fc
    .tuple(fc.integer({ min: 1, max: 32 }), fc.constantFrom(2 as const, 4 as const, 8 as const, 16 as const))
    .map(([beats, unit]) => meter(beats, unit)),
);
export const anyGrid: fc.Arbitrary<Grid> = fc.constantFrom(...Object.values(GRID));

const stroke: fc.Arbitrary<TypedStroke> = fc
  .tuple(
    fc.constantFrom(...LIMBS),
    fc.constantFrom(...LEVELS),
    fc.option(fc.constantFrom(...ORNAMENTS), { nil: undefined, freq: 4 }),
  )
  .chain(([limb, level, ornament]) => {
    const hand = limb === 'R' || limb === 'L';
    const voice = fc.option(hand ? fc.constantFrom(...HAND_VOICES) : fc.constant(usualVoice(limb)), {
      nil: undefined,
      freq: 2,
    });
    const grace = fc.option(fc.constantFrom(...HAND_VOICES, SAME_HAND), { nil: undefined, freq: 3 });
    return fc.tuple(voice, grace).map(([v, g]): TypedStroke => ({
      limb,
      level,
      ...(ornament && hand ? { ornament, ...(g && ornament !== 'buzz' ? { grace: g } : {}) } : {}),
      ...(v ? { voice: v } : {}),
    }));
  });

export const anyNodes: fc.Arbitrary<readonly Node[]> = fc.letrec<{ nodes: readonly Node[]; node: Node }>((tie) => ({
  node: fc.oneof(
    {
      weight: 6,
      arbitrary: fc
        .uniqueArray(stroke, { minLength: 1, maxLength: 3, selector: (s) => s.limb })
        .map((strokes): Node => ({ kind: 'strokes', strokes })),
    },
    { weight: 2, arbitrary: fc.constant<Node>({ kind: 'rest' }) },
    {
      weight: 1,
      arbitrary: fc.record({
        kind: fc.constant('repeat' as const),
        nodes: tie('nodes'),
        times: fc.integer({ min: 1, max: 3 }),
      }),
    },
  ),
  nodes: fc
    .array(tie('node'), { minLength: 1, maxLength: 6, depthIdentifier: 'nodes' })
    // A hold needs something before it.
    .chain((nodes) => fc.boolean().map((held): readonly Node[] => (held ? [...nodes, { kind: 'hold' }] : nodes))),
})).nodes;

export const anyFacets: fc.Arbitrary<Facets> = fc.record(
  {
    limbs: fc.subarray([...LIMBS]),
    levels: fc.subarray([...LEVELS]),
    voices: fc.subarray([...HAND_VOICES]),
    places: fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 3 }),
    counts: fc.array(fc.constantFrom('1', '2', '3e', '4&', 'nonsense'), { maxLength: 3 }),
    bars: fc.array(fc.integer({ min: 1, max: 3 }), { maxLength: 2 }),
    repeats: fc.array(fc.oneof(fc.constantFrom('first' as const, 'last' as const), fc.integer({ min: 1, max: 4 })), {
      maxLength: 2,
    }),
    inRun: fc.constantFrom(1 as const, 2 as const),
    roles: fc.subarray(['primary', 'timekeeping', 'texture'] as const),
    ticks: fc.array(fc.integer({ min: 0, max: 40_000 }), { maxLength: 3 }),
    every: fc.record({
      n: fc.integer({ min: 1, max: 7 }),
      offset: fc.integer({ min: 0, max: 7 }),
      of: fc.constantFrom('slot' as const, 'stroke' as const),
    }),
  },
  { requiredKeys: [] },
);

const few = <T>(values: readonly T[]) => fc.subarray([...values], { minLength: 1, maxLength: 3 });
const upTo = (max: number) => fc.integer({ min: 1, max });
const aCount = fc.constantFrom('1', '2', '3', '1&', '2e', '3&', '4a', '1trip', '2let', '2:1', '2:3&', '*&', '*e', '*');
const anyWhich: fc.Arbitrary<Which> = fc.oneof(
  upTo(6).map((first) => ({ first })),
  upTo(6).map((last) => ({ last })),
  // The first alone is said in one way only.
  fc.uniqueArray(upTo(7), { minLength: 1, maxLength: 2 }).map((nth) => (nth.join() === '1' ? { first: 1 } : { nth })),
  fc.record({ every: upTo(6), from: upTo(6) }),
  fc.record({ every: upTo(3), from: upTo(3), single: fc.constant(true as const) }),
  fc.constant({ middle: true as const }),
);

/** One node that holds no other. */
const anyLeaf: fc.Arbitrary<Selection> = fc.oneof(
  fc.constant<Selection>({ is: 'all' }),
  few(LIMBS).map((limbs): Selection => ({ is: 'limb', limbs })),
  few(LEVELS).map((levels): Selection => ({ is: 'height', levels })),
  few(HAND_VOICES).map((voices): Selection => ({ is: 'piece', voices })),
  few(ORNAMENTS).map((ornaments): Selection => ({ is: 'ornament', ornaments })),
  few(['primary', 'timekeeping', 'texture'] as const).map((roles): Selection => ({ is: 'role', roles })),
  fc.constantFrom(...PARTS).map((part): Selection => ({ is: 'part', part })),
  fc.uniqueArray(aCount, { minLength: 1, maxLength: 5 }).map((counts): Selection => ({ is: 'count', counts })),
  few([1, 2, 3, 'last'] as const).map((beats): Selection => ({ is: 'beat', beats })),
  few([1, 2, 3, 'last'] as const).map((bars): Selection => ({ is: 'bar', bars })),
  fc.record({
    is: fc.constant('half' as const),
    half: fc.constantFrom(1 as const, 2 as const),
    of: fc.constantFrom('bar' as const, 'phrase' as const),
  }),
  fc.record({
    is: fc.constant('stretch' as const),
    edge: fc.constantFrom(...EDGES),
    count: fc.constantFrom('1', '2&', '3', '2:2', '4a'),
  }),
  fc.uniqueArray(upTo(9), { minLength: 1, maxLength: 3 }).map((places): Selection => ({ is: 'place', places })),
  few(['first', 'last', 2, 3] as const).map((repeats): Selection => ({ is: 'repeat', repeats })),
  fc.record({ is: fc.constant('slots' as const), which: anyWhich, within: fc.constantFrom(...WITHINS) }),
  fc
    .uniqueArray(fc.integer({ min: 0, max: 32 }), { minLength: 1, maxLength: 4 })
    .map((slots): Selection => ({ is: 'hand', at: slots.map((n) => n * 1260).sort((a, b) => a - b) })),
);

/** Any expression, a few nodes deep. */
export const anySelection: fc.Arbitrary<Selection> = fc.letrec<{ s: Selection; in: Selection }>((tie) => ({
  in: fc.oneof({ depthSize: 'small', maxDepth: 3 }, anyLeaf, tie('s')),
  s: fc.oneof(
    { depthSize: 'small', maxDepth: 3 },
    anyLeaf,
    fc.record({
      is: fc.constant('order' as const),
      of: tie('in'),
      which: anyWhich,
      within: fc.constantFrom(...WITHINS),
    }),
    fc.record({
      is: fc.constant('beside' as const),
      of: tie('in'),
      how: fc.constantFrom('with' as const, 'before' as const, 'after' as const),
      what: tie('in'),
    }),
    fc.record({ is: fc.constant('alone' as const), of: tie('in') }),
    fc.array(tie('in'), { minLength: 2, maxLength: 4 }).map((all): Selection => ({ is: 'and', all })),
    fc.array(tie('in'), { minLength: 2, maxLength: 3 }).map((any): Selection => ({ is: 'or', any })),
    fc.record({ is: fc.constant('but' as const), of: tie('in'), not: tie('in') }),
  ),
})).s;

const text = fc.oneof(anyNodes.map(printStrokeText), fc.string({ maxLength: 12 }));

const whole = (min: number, max: number) => fc.integer({ min, max });
const select = anyFacets.map(chooses);
const level = fc.constantFrom(...LEVELS);
const handVoice = fc.constantFrom(...HAND_VOICES);
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: undefined, freq: 2 });
/** A record without the keys whose value is undefined, as JSON would have it. */
const record = <T extends object>(model: { [K in keyof T]: fc.Arbitrary<T[K]> }) =>
  fc.record<T>(model).map((value) => Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T);

const simpleSource = record<Source>({
  kind: fc.constant('typed' as const),
  text,
  meter: fc.constantFrom('4/4', '7/8', '6/8'),
  grid: anyGrid.map(Number),
});

/** Random parameters of every move: a new move is taken into all properties by a line here. */
const PARAMS: { readonly [N in MoveName]: fc.Arbitrary<MoveParams[N]> } = {
  grid: record({
    grid: fc.oneof(anyGrid.map(Number), whole(105, 20160)),
    part: maybe(record({ from: whole(1, 12), to: whole(1, 12), on: maybe(fc.constantFrom('1', '2&', '1:2', 'x')) })),
    within: maybe(record({ select, by: fc.constantFrom('order' as const, 'place' as const) })),
    fill: maybe(fc.constant(true as const)),
  }),
  rate: record({ times: whole(1, 12), by: whole(1, 12) }),
  insert: record({
    text,
    grid: maybe(anyGrid.map(Number)),
    where: fc.oneof(
      fc.constant({ kind: 'end' as const }),
      fc.constant({ kind: 'start' as const }),
      record({ kind: fc.constant('after' as const), slot: whole(1, 40) }),
      record({ kind: fc.constant('every' as const), slots: whole(1, 9) }),
      record({ kind: fc.constant('behind' as const), select }),
    ),
  }),
  drop: record({ select }),
  cut: record({ select }),
  swap: record({ select, limb: fc.constantFrom(...LIMBS, 'other' as const) }),
  fit: record({
    space: fc.oneof(record({ bars: whole(1, 64) }), record({ beats: whole(1, 256) })),
    start: fc.constantFrom('1', '2', '3', '4&', '7', 'x', '1+37'),
    end: maybe(fc.constantFrom('1', '3&', '4', 'x')),
    mirrored: fc.boolean(),
    close: fc.oneof(
      fc.constant({ kind: 'rest' as const }),
      fc.constant({ kind: 'cut' as const }),
      record({ kind: fc.constant('strokes' as const), text, whole: maybe(fc.constant(true as const)) }),
      record({ kind: fc.constant('groups' as const), groups: fc.array(whole(1, 9), { minLength: 1, maxLength: 12 }) }),
    ),
  }),
  shift: record({
    slots: whole(-40, 40),
    mode: fc.constantFrom('wrap' as const, 'push' as const),
    from: maybe(fc.constantFrom('1', '2&', '2:1', 'x')),
    groups: maybe(whole(1, 4)),
    start: maybe(fc.constantFrom('1', '3', '2&', '4:3', 'x')),
  }),
  restart: record({
    at: fc.constantFrom('1', '2', '2&', '1:3', '2:1', 'x'),
    until: fc.constantFrom('bar' as const, 'end' as const),
  }),
  mirror: record({ feet: fc.boolean() }),
  only: record({ select, stays: maybe(fc.constant(true as const)) }),
  round: record({
    select,
    text,
    over: maybe(fc.constant(true as const)),
    anew: maybe(fc.constant(true as const)),
  }),
  reverse: record({ by: maybe(fc.constant('group' as const)) }),
  linear: record({ give: fc.constantFrom('hands' as const, 'feet' as const, 'later' as const) }),
  level: record({ select, level, shift: maybe(whole(-20, 20)) }),
  ornament: record({
    select,
    ornament: fc.constantFrom(...ORNAMENTS, 'none' as const),
    by: maybe(fc.constant(SAME_HAND as typeof SAME_HAND)),
  }),
  voice: record({
    select,
    voices: fc.array(handVoice, { minLength: 1, maxLength: 4 }),
    under: maybe(fc.constantFrom('K' as const, 'J' as const, 'H' as const)),
    graces: maybe(fc.constantFrom('stay' as const, 'go' as const)),
  }),
  route: record({
    select,
    stations: fc.array(record({ right: handVoice, left: handVoice }), { minLength: 1, maxLength: 4 }),
    order: fc.array(whole(1, 16), { maxLength: 5 }),
    sizes: fc.array(whole(1, 5), { minLength: 1, maxLength: 4 }),
    by: maybe(fc.constant('hand' as const)),
  }),
  follow: record({
    select,
    limb: fc.constantFrom(...LIMBS),
    voice: fc.constantFrom(...VOICES),
    level: fc.oneof(level, fc.constant('same' as const)),
    busy: fc.constantFrom('goes' as const, 'stays' as const),
  }),
  layer: record({
    limb: fc.constantFrom(...LIMBS),
    voice: fc.constantFrom(...VOICES),
    level,
    on: fc.oneof(
      record({ kind: fc.constant('grid' as const), grid: anyGrid.map(Number) }),
      record({
        kind: fc.constant('counts' as const),
        counts: fc.array(fc.constantFrom('1', '2', '4&', 'x'), { minLength: 1, maxLength: 3 }),
      }),
      record({ kind: fc.constant('text' as const), text }),
    ),
    bars: maybe(fc.array(whole(1, 3), { maxLength: 2 })),
    clash: fc.constantFrom('keep' as const, 'drop' as const, 'move' as const),
  }),
  pickup: record({ text, grid: maybe(anyGrid.map(Number)) }),
  land: record({ voice: maybe(handVoice), hand: fc.constantFrom('R' as const, 'L' as const), kick: fc.boolean() }),
  join: record({
    other: record({ source: simpleSource, moves: fc.constant([]) }),
    name: fc.string(),
    own: maybe(record({ from: whole(1, 4), bars: whole(1, 4) })),
    their: maybe(record({ from: whole(1, 4), bars: whole(1, 64) })),
  }),
  touch: record({
    edits: fc.array(
      record({
        at: fc.oneof(
          whole(0, 16).map((n) => n * 1260),
          whole(0, 30_000),
        ),
        limb: fc.constantFrom(...LIMBS),
        stroke: fc.option(
          record({
            level,
            voice: maybe(fc.constantFrom(...VOICES)),
            ornament: maybe(fc.constantFrom(...ORNAMENTS)),
            grace: maybe(fc.constantFrom(...HAND_VOICES, SAME_HAND)),
          }),
        ),
        only: maybe(fc.constantFrom('level' as const, 'voice' as const, 'ornament' as const)),
      }),
      { maxLength: 6 },
    ),
  }),
};

/** A random entry of one move. */
export function anyMoveOf(move: MoveName): fc.Arbitrary<MoveEntry> {
  return fc.record({
    id: fc.uuid(),
    on: fc.constantFrom(true, true, true, false),
    move: fc.constant(move),
    params: PARAMS[move],
  }) as unknown as fc.Arbitrary<MoveEntry>;
}
export const anyMove: fc.Arbitrary<MoveEntry> = fc.constantFrom(...MOVE_NAMES).chain(anyMoveOf);

const timing = {
  meter: fc.constantFrom('4/4', '6/8', '7/8', '5/4', '11/16', '12/8', 'nonsense'),
  grid: anyGrid.map(Number),
};
export const anySource: fc.Arbitrary<Source> = fc.oneof(
  fc.record({
    kind: fc.constant('rudiment' as const),
    id: fc.constantFrom(...RUDIMENTS.map((r) => r.id), 'none'),
    ...timing,
  }),
  fc.record({ kind: fc.constant('typed' as const), text, ...timing }),
);
export const anyRecipe: fc.Arbitrary<Recipe> = fc.record({
  source: anySource,
  moves: fc.array(anyMove, { maxLength: 8 }),
});

const moment = fc.integer({ min: 0, max: 2_000_000_000_000 });
const tempo = fc.integer({ min: 20, max: 400 });
/** What a random recipe makes. */
export const anyBuilt: fc.Arbitrary<Pattern> = anyRecipe.map((r) => build(r).pattern);
export const anyPhrase: fc.Arbitrary<Phrase> = fc.record({
  id: fc.uuid(),
  name: fc.string({ minLength: 1, unit: 'grapheme' }).filter((n) => /\S/.test(n)),
  family: fc.constantFrom('fill' as const, 'lick' as const, 'groove' as const, 'warm-up' as const),
  recipe: anyRecipe,
  tempo,
  goal: tempo,
  note: fc.string({ unit: 'grapheme' }),
  created: moment,
  changed: moment,
});
export const anyAttempt: fc.Arbitrary<Attempt> = fc.record({
  id: fc.uuid(),
  phrase: fc.uuid(),
  at: moment,
  bpm: tempo,
  goal: tempo,
  loops: fc.nat(64),
  seconds: fc.nat(600),
  verdict: fc.constantFrom('clean' as const, 'messy' as const),
});
export const anyDrill = fc
  .tuple(fc.uuid(), fc.uuid(), tempo, tempo)
  .map(([id, phrase, start, goal]) => newDrill(id, phrase, { start, goal, step: 5, loops: 4 }));
