// Random inputs for property tests: patterns, selectors and recipes of every shape the schemas allow.
import fc from 'fast-check';
import { GRID, meter, parseMeter, type Grid, type Meter } from '../time';
import { HAND_VOICES, LEVELS, LIMBS, ORNAMENTS, printStrokeText, type Node, type TypedStroke } from '../stroke';
import { RUDIMENTS } from '../rudiments';
import type { Selector } from '../pattern';
import type { MoveEntry, Phrase, Recipe, Source } from '../recipe';
import { newDrill, type Attempt } from '../drill';

export const METERS: readonly Meter[] = ['4/4', '3/4', '6/8', '12/8', '5/4', '7/8', '7/8 3+2+2', '11/16', '2/2', '9/8', '5/8'].map(
  (text) => {
    const found = parseMeter(text);
    if (!found) throw new Error(text);
    return found;
  },
);

export const anyMeter = fc.oneof(
  fc.constantFrom(...METERS),
  fc
    .tuple(fc.integer({ min: 1, max: 32 }), fc.constantFrom(2 as const, 4 as const, 8 as const, 16 as const))
    .map(([beats, unit]) => meter(beats, unit)),
);
export const anyGrid: fc.Arbitrary<Grid> = fc.constantFrom(...Object.values(GRID));

const stroke: fc.Arbitrary<TypedStroke> = fc
  .tuple(fc.constantFrom(...LIMBS), fc.constantFrom(...LEVELS), fc.option(fc.constantFrom(...ORNAMENTS), { nil: undefined, freq: 4 }))
  .map(([limb, level, ornament]) => (ornament && (limb === 'R' || limb === 'L') ? { limb, level, ornament } : { limb, level }));

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
      arbitrary: fc.record({ kind: fc.constant('repeat' as const), nodes: tie('nodes'), times: fc.integer({ min: 1, max: 3 }) }),
    },
  ),
  nodes: fc
    .array(tie('node'), { minLength: 1, maxLength: 6, depthIdentifier: 'nodes' })
    // A hold needs something before it.
    .chain((nodes) => fc.boolean().map((held): readonly Node[] => (held ? [...nodes, { kind: 'hold' }] : nodes))),
})).nodes;

export const anySelector: fc.Arbitrary<Selector> = fc.record(
  {
    limbs: fc.subarray([...LIMBS]),
    levels: fc.subarray([...LEVELS]),
    voices: fc.subarray([...HAND_VOICES]),
    places: fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 3 }),
    counts: fc.array(fc.constantFrom('1', '2', '3e', '4&', 'nonsense'), { maxLength: 3 }),
    bars: fc.array(fc.integer({ min: 1, max: 3 }), { maxLength: 2 }),
    repeats: fc.array(fc.oneof(fc.constantFrom('first' as const, 'last' as const), fc.integer({ min: 1, max: 4 })), { maxLength: 2 }),
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

const text = fc.oneof(anyNodes.map(printStrokeText), fc.string({ maxLength: 12 }));

export const anyMove: fc.Arbitrary<MoveEntry> = fc.tuple(fc.uuid(), fc.boolean()).chain(([id, on]) =>
  fc.oneof(
    fc.record({
      id: fc.constant(id),
      on: fc.constant(on),
      move: fc.constant('grid' as const),
      params: fc.record({ grid: fc.oneof(anyGrid, fc.integer({ min: 105, max: 20160 })) }),
    }),
    fc.record({
      id: fc.constant(id),
      on: fc.constant(true),
      move: fc.constant('insert' as const),
      params: fc.record({
        text,
        where: fc.oneof(
          fc.constant({ kind: 'end' as const }),
          fc.record({ kind: fc.constant('after' as const), slot: fc.integer({ min: 1, max: 40 }) }),
          fc.record({ kind: fc.constant('every' as const), slots: fc.integer({ min: 1, max: 9 }) }),
        ),
      }),
    }),
    fc.record({
      id: fc.constant(id),
      on: fc.constant(true),
      move: fc.constant('fit' as const),
      params: fc.record({
        space: fc.oneof(fc.record({ bars: fc.integer({ min: 1, max: 64 }) }), fc.record({ beats: fc.integer({ min: 1, max: 256 }) })),
        start: fc.constantFrom('1', '2', '3', '4&', '7', 'x', '1+37'),
        mirrored: fc.boolean(),
        close: fc.oneof(
          fc.constant({ kind: 'rest' as const }),
          fc.constant({ kind: 'cut' as const }),
          fc.record({ kind: fc.constant('strokes' as const), text }),
        ),
      }),
    }),
    fc.record({
      id: fc.constant(id),
      on: fc.constant(on),
      move: fc.constant('level' as const),
      params: fc.record({ select: anySelector, level: fc.constantFrom(...LEVELS) }),
    }),
    fc.record({
      id: fc.constant(id),
      on: fc.constant(true),
      move: fc.constant('voice' as const),
      params: fc.record(
        {
          select: anySelector,
          voices: fc.array(fc.constantFrom(...HAND_VOICES), { minLength: 1, maxLength: 4 }),
          under: fc.constantFrom('K' as const, 'J' as const, 'H' as const),
        },
        { requiredKeys: ['select', 'voices'] },
      ),
    }),
    fc.record({
      id: fc.constant(id),
      on: fc.constant(true),
      move: fc.constant('shift' as const),
      params: fc.record({ slots: fc.integer({ min: -40, max: 40 }), mode: fc.constantFrom('wrap' as const, 'push' as const) }),
    }),
  ),
);

const timing = { meter: fc.constantFrom('4/4', '6/8', '7/8', '5/4', '11/16', '12/8', 'nonsense'), grid: anyGrid.map(Number) };
export const anySource: fc.Arbitrary<Source> = fc.oneof(
  fc.record({ kind: fc.constant('rudiment' as const), id: fc.constantFrom(...RUDIMENTS.map((r) => r.id), 'none'), ...timing }),
  fc.record({ kind: fc.constant('typed' as const), text, ...timing }),
);
export const anyRecipe: fc.Arbitrary<Recipe> = fc.record({ source: anySource, moves: fc.array(anyMove, { maxLength: 8 }) });

const moment = fc.integer({ min: 0, max: 2_000_000_000_000 });
const tempo = fc.integer({ min: 20, max: 400 });
export const anyPhrase: fc.Arbitrary<Phrase> = fc.record({
  id: fc.uuid(),
  name: fc.string({ minLength: 1, unit: 'grapheme' }),
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
