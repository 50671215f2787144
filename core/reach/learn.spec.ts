import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { KIT_PRESETS, USUAL_KIT } from '../kit';
import { patternOfText, withoutPickup } from '../pattern';
import { build } from '../recipe';
import { LIMBS, parseStrokeText, type Voice } from '../stroke';
import { GRID, meter } from '../time';
import {
  effectiveProfile,
  ceilingOn,
  difficulty,
  FITTS,
  fittsOf,
  fittsOfWays,
  lessonFor,
  lessonsOf,
  mirroredProfile,
  RATE_LIMITS,
  travelSeconds,
  USUAL_PROFILE,
  wayOn,
  wayReading,
  wayWords,
  withRate,
  withWay,
  type Able,
  type Lesson,
  type Profile,
  type WayTime,
} from '.';

// What leads in is played once and never measured: it teaches nothing.
const anyPattern = anyRecipe
  .map((r) => withoutPickup(build({ ...r, moves: r.moves.slice(0, 4) }).pattern))
  .filter((p) => p.strokes.length > 1 && p.strokes.length < 200);
const anyKit = fc.constantFrom(...KIT_PRESETS);
const bpmOf = (p: Parameters<typeof ceilingOn>[0], kit = USUAL_KIT, who: Able = USUAL_PROFILE): number =>
  ceilingOn(p, kit, who).bpm ?? Infinity;
const proof = (pattern: Parameters<typeof ceilingOn>[0], bpm: number, name = 'Rope') => ({ name, pattern, bpm, at: 5 });

describe('what clean tries teach', () => {
  it('explains every try: no ceiling stays below what was shown, and it is raised by the least', () => {
    let raised = 0;
    fc.assert(
      fc.property(anyPattern, anyKit, fc.double({ min: 1.01, max: 1.3, noNaN: true }), (pattern, kit, more) => {
        const before = bpmOf(pattern, kit);
        if (!Number.isFinite(before)) return;
        const bpm = before * more;
        const lessons = lessonsOf([proof(pattern, bpm)], kit, USUAL_PROFILE);
        const able = effectiveProfile(USUAL_PROFILE, lessons);
        // Out of bounds, or where raising the stick alone takes too long, nothing is believed beyond the bound.
        const bound = lessons.some(
          (l) => (l.of === 'rate' && l.rate >= RATE_LIMITS.most) || (l.of === 'ways' && l.share <= 0.4),
        );
        if (bound || lessons.length === 0) return;
        raised++;
        expect(bpmOf(pattern, kit, able)).toBeGreaterThanOrEqual(bpm * (1 - 1e-9));
        // Each of them is needed: a little less of any one, and the try is not explained.
        for (const l of lessons) {
          const less: Lesson = l.of === 'rate' ? { ...l, rate: l.rate * 0.995 } : { ...l, share: l.share * 1.005 };
          const weaker = effectiveProfile(USUAL_PROFILE, [...lessons.filter((o) => o !== l), less]);
          expect(bpmOf(pattern, kit, weaker)).toBeLessThan(bpm);
        }
      }),
      { numRuns: 400 },
    );
    expect(raised).toBeGreaterThan(100);
  });

  it('teaches nothing that was known, and lowers no other phrase', () => {
    fc.assert(
      fc.property(anyPattern, anyPattern, anyKit, fc.double({ min: 0.5, max: 1.4, noNaN: true }), (a, b, kit, more) => {
        const before = bpmOf(a, kit);
        if (!Number.isFinite(before)) return;
        const lessons = lessonsOf([proof(a, before * more)], kit, USUAL_PROFILE);
        if (more <= 1) expect(lessons).toEqual([]);
        expect(bpmOf(b, kit, effectiveProfile(USUAL_PROFILE, lessons))).toBeGreaterThanOrEqual(bpmOf(b, kit) - 1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('of two tries the one that asks more counts, and the order does not matter', () => {
    const p = build({
      source: { kind: 'typed', text: 'R R R R', meter: '4/4', grid: 5040 },
      moves: [],
    }).pattern;
    const top = bpmOf(p);
    const [some, more] = [proof(p, top * 1.1, 'Rope'), proof(p, top * 1.2, 'Knot')];
    const both = lessonsOf([some, more], USUAL_KIT, USUAL_PROFILE);
    expect(both).toEqual(lessonsOf([more, some], USUAL_KIT, USUAL_PROFILE));
    expect(both.map((l) => l.name)).toEqual(['Knot']);
    expect(lessonFor(ceilingOn(p, USUAL_KIT, USUAL_PROFILE), both)?.name).toBe('Knot');
    expect(lessonFor({ pairs: [] }, both)).toBeNull();
  });
});

/** A player whose ways take their own time: moments of a hand to and fro, scattered as a hand is. */
function toAndFro(seconds: number, seed: number, scatter = 0.004): number[] {
  let state = seed * 2654435761;
  const next = (): number => ((state = (state * 1103515245 + 12345) % 2147483648), state / 2147483648 - 0.5);
  const moments: number[] = [];
  for (let t = 0; t < 10; t += seconds) moments.push(t + next() * 2 * scatter);
  return moments;
}

describe('the way test', () => {
  const ways: [Voice, Voice][] = [
    ['snare', 'floor-tom'],
    ['snare', 'crash-right'],
    ['hat-closed', 'floor-tom'],
    ['hat-closed', 'crash-right'],
    ['high-tom', 'ride'],
  ];
  const test = (own: { a: number; b: number }, list: [Voice, Voice][]): WayTime[] =>
    list.flatMap(([from, to], i) => {
      const way = wayOn(USUAL_KIT, 'R', from, to);
      if (!way) return [];
      const read = wayReading(toAndFro(own.a + own.b * way.bits, i + 1), { ...USUAL_PROFILE, rates: fast }, 'R');
      return read.ok ? [{ hand: 'R' as const, from, to, ...way, seconds: 1 / read.value.rate, at: i }] : [];
    });
  const fast: Profile['rates'] = { ...USUAL_PROFILE.rates, R: { singles: 20, doubles: 20 } };

  it('finds the constants of a player, nearer with every way, and is drawn to the usual ones by few', () => {
    for (const own of [
      { a: 0.09, b: 0.08 },
      { a: 0.05, b: 0.04 },
      { a: 0.062, b: 0.0535 },
    ]) {
      const all = fittsOfWays(test(own, ways));
      for (const [from, to] of ways) {
        const way = wayOn(USUAL_KIT, 'R', from, to)!;
        const [real, said] = [own.a + own.b * way.bits, all.a + all.b * way.bits];
        expect(Math.abs(said - real)).toBeLessThan(0.006);
      }
    }
    const [one] = test({ a: 0.09, b: 0.08 }, ways.slice(0, 1));
    const drawn = fittsOfWays([one!]);
    expect(drawn.a).toBeGreaterThan(FITTS.a);
    expect(drawn.a).toBeLessThan(0.09);
  });

  it('is the least of its sum of squares, as trying every pair of constants finds it', () => {
    const tested = test({ a: 0.08, b: 0.06 }, ways.slice(0, 3));
    const cost = (a: number, b: number): number =>
      tested.reduce((sum, w) => sum + ((w.seconds - a - b * w.bits) / 0.01) ** 2, 0) +
      ((a - 0.062) / 0.025) ** 2 +
      ((b - 0.0535) / 0.025) ** 2;
    let best = { a: 0, b: 0, cost: Infinity };
    for (let a = 0.03; a < 0.12; a += 0.0005)
      for (let b = 0.01; b < 0.12; b += 0.0005) if (cost(a, b) < best.cost) best = { a, b, cost: cost(a, b) };
    const found = fittsOfWays(tested);
    expect(found.a).toBeCloseTo(best.a, 2.9);
    expect(found.b).toBeCloseTo(best.b, 2.9);
    expect(cost(found.a, found.b)).toBeLessThanOrEqual(best.cost + 1e-9);
  });

  it('does not take strokes on one spot for a way, nor two taps for a test', () => {
    expect(wayReading([0, 1], USUAL_PROFILE, 'R')).toMatchObject({ ok: false, problems: [{ code: 'too-few' }] });
    expect(wayReading(toAndFro(1 / 7.5, 3), USUAL_PROFILE, 'R')).toMatchObject({
      ok: false,
      problems: [{ code: 'no-way' }],
    });
    expect(wayOn(USUAL_KIT, 'R', 'snare', 'snare')).toBeNull();
    expect(wayOn({ ...USUAL_KIT, pieces: [] }, 'R', 'snare', 'ride')).toBeNull();
  });

  it('keeps the newest of a way there and back, with the hands changed when they are', () => {
    const [way] = test({ a: 0.09, b: 0.08 }, ways.slice(0, 1));
    const back = { ...way!, from: way!.to, to: way!.from, seconds: 0.3, at: 9 };
    const kept = withWay(withWay(USUAL_PROFILE, way!), back);
    expect(kept.ways).toEqual([back]);
    expect(mirroredProfile(kept).ways?.[0]?.hand).toBe('L');
    expect(mirroredProfile(mirroredProfile(kept))).toEqual(kept);
    expect(fittsOf({ ...kept, fitts: { a: 0.03, b: 0.03 } })).toEqual({ a: 0.03, b: 0.03 });
  });

  it('a slower player breaks earlier where a way limits, and only there; then it is no estimate', () => {
    const read = parseStrokeText('R R');
    const plain = patternOfText(read.ok ? read.value : [], meter(2, 4), GRID.quarters);
    const on = (voice: Voice, i: number): typeof plain.strokes =>
      plain.strokes.slice(i, i + 1).map((s) => ({ ...s, voice }));
    const pattern = { ...plain, strokes: [...on('hat-closed', 0), ...on('floor-tom', 1)] };
    const timed = LIMBS.reduce((p, l) => withRate(p, l, 'singles', p.rates[l].singles, 1), USUAL_PROFILE);
    const slow = test({ a: 0.12, b: 0.1 }, ways).reduce(withWay, timed);
    expect(bpmOf(pattern, USUAL_KIT, slow)).toBeLessThan(bpmOf(pattern, USUAL_KIT, timed));
    expect([ceilingOn(pattern, USUAL_KIT, timed).estimate, ceilingOn(pattern, USUAL_KIT, slow).estimate]).toEqual([
      true,
      false,
    ]);
    expect(travelSeconds(60, 30, { a: 0.1, b: 0.1 })).toBeCloseTo(0.1 + 0.1 * difficulty(60, 30), 12);
  });

  it('says what it measured', () => {
    const way = wayOn(USUAL_KIT, 'R', 'snare', 'floor-tom')!;
    const read = wayReading(toAndFro(0.25, 2), USUAL_PROFILE, 'R');
    expect(read.ok && wayWords(read.value, way)).toMatch(/^250 ms for \d+ cm\.$/);
  });
});
