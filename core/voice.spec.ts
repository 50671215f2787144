// Sentences as they are printed from facts, each branch with facts of chance: their grammar, their length, and what the
// voice forbids.
import fc from 'fast-check';
import { anyNodes, anySelection, METERS } from './testing/arbitraries';
import { forbiddenIn, grammarOf, wordsIn } from './testing/voice';
import { chanceWords } from './player';
import { GRID, gridsOf, slotsWords, ticks, USUAL_SCHOOLS } from './time';
import { LIMBS, ORNAMENTS, VOICES } from './stroke';
import { differenceWords, patternOfText, report, shapeWords, type Pattern } from './pattern';
import { selectionWords } from './selection';
import { promptFor, STAGE_KINDS, stageTitle, stageWhy, type KeptFinding, type StageMark } from './drill';
import { FIX_NAMES, findingWords, lateWords, timingWords } from './take';
import { dayWords, planToday, type PlanPhrase } from './plan';
import { gettingThere, isItTooMuch, whatIsAvoided, whichLimbLags, whyRungsFail } from './log';
import { build } from './recipe';
import { unknownYet } from './player';

const RUNS = { numRuns: 400 };
const TODAY = 20_784;
/** Two places of chance can be three words longer than any that is played. */
const MOST_OF_FINDING = 28;

/** Everything that is wrong with a sentence as it is printed. */
function wrongWith(words: string, most = 25): readonly string[] {
  return [
    ...grammarOf(words),
    ...forbiddenIn(words).map((f) => `${f} in: ${words}`),
    ...(wordsIn(words) > most ? [`${wordsIn(words)} words: ${words}`] : []),
    ...(/^[\p{Lu}“\d]/u.test(words) ? [] : [`no capital: ${words}`]),
    ...(/[.?]$/.test(words) ? [] : [`no full stop: ${words}`]),
  ];
}
/** The same of words that are a part of a sentence, a label or a chip. */
const wrongPart = (words: string, most = 14): readonly string[] => [
  ...grammarOf(words),
  ...forbiddenIn(words).map((f) => `${f} in: ${words}`),
  ...(wordsIn(words) > most ? [`${wordsIn(words)} words: ${words}`] : []),
];

const ms = fc.double({ min: -80, max: 80, noNaN: true });
const times = fc.integer({ min: 1, max: 12 });
const limb = fc.constantFrom(...LIMBS);
const place = fc.record({
  bar: fc.option(fc.integer({ min: 1, max: 8 })),
  beat: fc.integer({ min: 1, max: 7 }),
  syllable: fc.constantFrom('', 'e', '&', 'a', 'trip', '.3', '&let', 'e·', '+37'),
});
const stroke = fc.record({ limb, voice: fc.constantFrom(...VOICES), place });
const anyFinding: fc.Arbitrary<KeptFinding> = fc.oneof(
  fc.constant({ kind: 'silence' as const }),
  fc.record({
    kind: fc.constant('part' as const),
    half: fc.constantFrom(1 as const, 2 as const, null),
    from: fc.option(place),
    until: fc.option(place),
  }),
  fc.record({
    kind: fc.constant('begins' as const),
    beats: fc.double({ min: 0.2, max: 9, noNaN: true }),
    stays: fc.boolean(),
  }),
  fc.record({ kind: fc.constant('stops' as const), loops: fc.integer({ min: -1, max: 6 }) }),
  fc.record({ kind: fc.constant('tempo' as const), share: fc.double({ min: 0.8, max: 1.2, noNaN: true }) }),
  fc.record({ kind: fc.constantFrom('shift' as const, 'off-beats' as const, 'drift' as const), off: ms }),
  fc.record({
    kind: fc.constant('swing' as const),
    on: fc.constantFrom('8ths' as const, '16ths' as const),
    percent: fc.integer({ min: 50, max: 75 }),
    meant: fc.constantFrom(50, 62, 67),
    off: ms,
    limb: fc.option(limb),
  }),
  fc.record({ kind: fc.constant('left-out' as const), stroke: fc.option(stroke), times }),
  fc.record({
    kind: fc.constant('grace' as const),
    ornament: fc.constantFrom(...ORNAMENTS),
    place: fc.option(place),
    times,
  }),
  fc.record({ kind: fc.constant('extra' as const), many: times }),
  fc.record({ kind: fc.constantFrom('limb' as const, 'place' as const), limb, off: ms, stroke: fc.option(stroke) }),
  fc.record({ kind: fc.constant('uneven' as const), spread: fc.double({ min: 0, max: 60, noNaN: true }) }),
  fc.record({ kind: fc.constant('hands' as const), softer: fc.constantFrom('R' as const, 'L' as const) }),
  fc.record({
    kind: fc.constant('heights' as const),
    heard: fc.double({ min: 0.5, max: 9, noNaN: true }),
    meant: fc.double({ min: 1, max: 9, noNaN: true }),
  }),
);
const anyPattern: fc.Arbitrary<Pattern> = fc
  .tuple(anyNodes, fc.constantFrom(...METERS), fc.nat(), fc.nat(5))
  .map(([nodes, m, pick, later]) => {
    const grids = gridsOf(m);
    const grid = grids[pick % grids.length] ?? GRID.sixteenths;
    return { ...patternOfText(nodes, m, grid), start: ticks(later * grid) };
  });
const empty = (all: readonly (readonly string[])[]): void => expect(all.flat()).toEqual([]);

describe('sentences as they are printed', () => {
  it('what there was to fix, of every kind', () => {
    fc.assert(
      fc.property(anyFinding, (f) => empty([wrongWith(findingWords(f), MOST_OF_FINDING)])),
      { numRuns: 3000 },
    );
    for (const name of Object.values(FIX_NAMES)) empty([wrongPart(name, 4)]);
  });
  it('how early or late, and how sure', () => {
    fc.assert(
      fc.property(ms, fc.double({ min: 0, max: 60, noNaN: true }), (late, spread) => {
        empty([wrongPart(lateWords(late), 4), wrongPart(timingWords(late, spread), 7)]);
      }),
      RUNS,
    );
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (c) => empty([wrongPart(chanceWords(c), 2)])),
      RUNS,
    );
  });
  it('the sums and checks of a phrase, its shape, and how two differ', () => {
    fc.assert(
      fc.property(anyPattern, anyPattern, fc.integer({ min: 30, max: 240 }), (a, b, bpm) => {
        empty(report(a, bpm, USUAL_SCHOOLS).map((f) => wrongPart(f.words, 60)));
        empty([wrongPart(shapeWords(a), 12), wrongPart(differenceWords(a, b, USUAL_SCHOOLS), 80)]);
      }),
      RUNS,
    );
  });
  it('lengths in notes of every grid', () => {
    for (const grid of [20160, 10080, 7560, 5040, 3780, 2520, 1890, 1680, 1260, 1008, 840, 720, 630, 315])
      for (const n of [0.5, 1, 1.5, 2, 7]) empty([wrongPart(slotsWords(n, grid), 4)]);
  });
  it('which strokes are chosen, of any phrase and of this one', () => {
    fc.assert(
      fc.property(anySelection, anyPattern, (s, p) => {
        empty([wrongPart(selectionWords(s), 400), wrongPart(selectionWords(s, p), 400)]);
      }),
      RUNS,
    );
  });
  it('stages of every kind, with their reasons', () => {
    const part = fc.option(
      fc.oneof(
        fc.record({ of: fc.constant('half' as const), half: fc.constantFrom(1 as const, 2 as const) }),
        fc.record({
          of: fc.constantFrom('bars' as const, 'join' as const),
          first: fc.constantFrom(1, 2),
          last: fc.constantFrom(2, 4),
        }),
        fc.record({ of: fc.constant('difference' as const), bar: fc.constant(2), known: fc.constant(1) }),
        fc.record({ of: fc.constant('beats' as const), many: fc.integer({ min: 1, max: 9 }) }),
        fc.record({
          of: fc.constant('notes' as const),
          many: fc.integer({ min: 1, max: 9 }),
          each: fc.constantFrom(1 as const, 4 as const),
        }),
      ),
      { nil: undefined },
    );
    const { pattern } = build({
      source: { kind: 'typed', text: '(R L R R L R L L)x4', meter: '4/4', grid: 1260 },
      moves: [],
    });
    fc.assert(
      fc.property(
        fc.constantFrom(...STAGE_KINDS),
        part,
        fc.integer({ min: 1, max: 9 }),
        fc.constantFrom('fill' as const, 'lick' as const),
        (kind, p, bars, family) => {
          const mark: StageMark = {
            id: 'x',
            kind,
            ...(p && (kind === 'part' || kind === 'grow') ? { part: p } : {}),
            bars,
            family,
          };
          const why = stageWhy({ ...mark, short: false }, pattern);
          empty([wrongPart(stageTitle(mark), 8), why === '' ? [] : wrongWith(why, 40)]);
        },
      ),
      RUNS,
    );
    for (let round = 0; round < 9; round++) empty([wrongWith(promptFor(round, ['Cold rope'], 4), 14)]);
  });
  it('the day: blocks, what is left out, notes', () => {
    const phrase = fc.record({
      best: fc.option(fc.integer({ min: 40, max: 160 })),
      goal: fc.integer({ min: 40, max: 200 }),
      by: fc.option(
        fc.record({
          day: fc.integer({ min: TODAY - 9, max: TODAY + 30 }),
          what: fc.constantFrom('night' as const, 'lesson' as const, 'recording' as const, 'day' as const),
        }),
      ),
      fix: fc.option(fc.record({ finding: anyFinding, times: fc.integer({ min: 2, max: 5 }) })),
      kit: fc.boolean(),
      family: fc.constantFrom('fill' as const, 'lick' as const, 'groove' as const, 'warm-up' as const),
    });
    fc.assert(
      fc.property(
        fc.array(phrase, { maxLength: 9 }),
        fc.integer({ min: 5, max: 120 }),
        fc.constantFrom('kit' as const, 'pad' as const, 'none' as const),
        (all, minutes, where) => {
          const phrases = all.map((p, i): PlanPhrase => ({
            ...p,
            id: `p${i}`,
            name: `Phrase ${i}`,
            ceiling: 180,
            known: unknownYet(130, TODAY),
            days: [],
            hands: { R: 4, L: 4 },
          }));
          const plan = planToday(phrases, {
            ...{ day: TODAY, minutes, place: where, order: 'in-turn', held: [], dropped: [], arranged: [], done: [] },
            strokes: { today: 0, week: [] },
          });
          empty([...plan.blocks.map((b) => wrongWith(b.words, 45)), ...plan.left.map((l) => wrongWith(l.words))]);
          empty(plan.notes.map((n) => wrongWith(n, 40)));
        },
      ),
      { numRuns: 150 },
    );
  });
  it('answers of the log', () => {
    const day = fc.integer({ min: TODAY - 90, max: TODAY + 900 });
    const projection = fc.oneof(
      fc.constant(null),
      fc.constant({ kind: 'ready' as const }),
      fc.record({ kind: fc.constant('unknown' as const), days: fc.integer({ min: 1, max: 3 }) }),
      fc.record({ kind: fc.constant('resting' as const), since: fc.integer({ min: TODAY - 90, max: TODAY - 15 }) }),
      fc.record({
        kind: fc.constant('on' as const),
        day: fc.option(day),
        from: fc.option(day),
        until: fc.option(day),
        chance: fc.double({ min: 0.07, max: 1, noNaN: true }),
        still: fc.option(fc.constant(8)),
      }),
    );
    fc.assert(
      fc.property(
        fc.option(fc.integer({ min: 30, max: 200 })),
        fc.option(
          fc.oneof(
            fc.record({
              kind: fc.constant('ready' as const),
              bpm: fc.integer({ min: 30, max: 200 }),
              low: fc.constant(30),
              high: fc.constant(200),
            }),
            fc.record({
              kind: fc.constant('early' as const),
              tries: fc.integer({ min: 0, max: 6 }),
              days: fc.integer({ min: 1, max: 3 }),
            }),
          ),
        ),
        projection,
        fc.option(day),
        (best, ready, p, by) => {
          const words = gettingThere(
            { best, ready, goal: 104, by: by === null ? null : { day: by, what: 'night' }, projection: p },
            TODAY,
          );
          empty([wrongWith(words, 32)]);
        },
      ),
      RUNS,
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            name: fc.constant('Kelp'),
            days: times,
            night: fc.option(times),
            sure: fc.constant(0.5),
            id: fc.constant('k'),
          }),
          { maxLength: 2 },
        ),
        (all) => empty([wrongWith(whatIsAvoided(all))]),
      ),
      RUNS,
    );
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            day: fc.integer({ min: TODAY - 9, max: TODAY }),
            limb,
            mean: ms,
            spread: fc.constant(5),
            tries: times,
          }),
          { maxLength: 4 },
        ),
        (days) => empty([wrongWith(whichLimbLags(days))]),
      ),
      RUNS,
    );
    empty([wrongWith(isItTooMuch([], TODAY)), wrongWith(whyRungsFail([]))]);
    for (const d of [-400, -8, -1, 0, 1, 5, 40]) empty([wrongPart(dayWords(TODAY + d, TODAY), 4)]);
  });
});
