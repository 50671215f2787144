import { checksumOf } from '../base';
import fc from 'fast-check';
import { anyNodes } from '../testing/arbitraries';
import { otherHand, printStrokeText } from '../stroke';
import { tidy, type Pattern } from '../pattern';
import { mod } from '../base';
import { build, type Recipe } from '../recipe';
import { ticks, USUAL_SCHOOLS } from '../time';
import { KIT_PRESETS, revoice, USUAL_KIT } from '../kit';
import { ceiling, USUAL_PROFILE, withRate } from '../reach';
import {
  allVariants,
  canonicalForm,
  combinations,
  exactForm,
  leastRotation,
  roundWays,
  sheetWords,
  VARIANT_KINDS,
  VARIANT_LIMITS,
} from '.';

const typed = (text: string, meter = '4/4'): Recipe => ({
  source: { kind: 'typed', text, meter, grid: 1260 },
  moves: [],
});
const pattern = (text: string): Pattern => build(typed(text)).pattern;
const rotated = (p: Pattern, by: number): Pattern =>
  tidy({ ...p, strokes: p.strokes.map((s) => ({ ...s, at: ticks(mod(s.at + by * p.grid, p.length)) })) });
const mirrored = (p: Pattern): Pattern =>
  tidy({ ...p, strokes: p.strokes.map((s) => ({ ...s, limb: otherHand(s.limb) })) });

const bare = ({ at, limb, voice, level, ornament }: Pattern['strokes'][number]) => [at, limb, voice, level, ornament];

describe('canonical form', () => {
  it('is the same for every rotation and for the mirror', () => {
    fc.assert(
      fc.property(anyNodes, fc.nat(40), (nodes, by) => {
        const p = pattern(printStrokeText(nodes));
        expect(canonicalForm(rotated(p, by))).toBe(canonicalForm(p));
        expect(canonicalForm(mirrored(p))).toBe(canonicalForm(p));
      }),
    );
  });
  it('is the same only then, as trying every rotation and mirror finds', () => {
    const letters = fc.array(fc.constantFrom('R', 'L', 'r', 'K', '-'), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(letters, letters, (a, b) => {
        const [p, q] = [pattern(a.join(' ')), pattern(b.join(' '))];
        const key = (x: Pattern): string => JSON.stringify([x.length, x.strokes.map((s) => [s.at, s.limb, s.level])]);
        const all = new Set([p, mirrored(p)].flatMap((x) => a.map((_, i) => key(rotated(x, i)))));
        expect(canonicalForm(p) === canonicalForm(q)).toBe(all.has(key(q)));
      }),
      { numRuns: 400 },
    );
  });
  it('the least rotation is the least of all', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 12 }), (list) => {
        const turn = (i: number): string => [...list.slice(i), ...list.slice(0, i)].join('');
        expect(turn(leastRotation(list))).toBe(list.map((_, i) => turn(i)).sort()[0]);
      }),
    );
  });
});

describe('variants', () => {
  const wish = (kinds: (typeof VARIANT_KINDS)[number][], accents = 1) => ({
    kinds,
    accents,
    kit: USUAL_KIT,
    profile: USUAL_PROFILE,
    schools: USUAL_SCHOOLS,
  });
  it('every placement of two accents, rotations and mirrors once', () => {
    // R L R L: neighbours, or every second: two kinds of pairs and no more.
    expect(allVariants(typed('R L R L'), wish(['accents'], 2))).toMatchObject({
      candidates: 6,
      found: 2,
      complete: true,
    });
  });
  it.each(VARIANT_KINDS)('%s: each is one change away, says so, and is made by its move', (kind) => {
    const recipe: Recipe = {
      ...typed('R! l l K R'),
      moves: [
        {
          id: 'm',
          on: true,
          move: 'fit',
          params: { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } },
        },
      ],
    };
    const sheet = allVariants(recipe, wish([kind], 2));
    expect(sheet.found).toBeGreaterThan(0);
    for (const v of sheet.best.slice(0, 20)) {
      expect(v.words.length).toBeGreaterThan(3);
      expect(
        build({ ...recipe, moves: [...recipe.moves, v.move] }).pattern.strokes.map((s) => [
          s.at,
          s.limb,
          s.level,
          s.voice,
        ]),
      ).toEqual(v.pattern.strokes.map((s) => [s.at, s.limb, s.level, s.voice]));
    }
  });
  it('those that can go faster come first, then what the shelf has not', () => {
    const found = allVariants(typed('R R L L K K'), wish(['snare and kick'])).best;
    const bpms = found.map((v) => v.ceiling ?? Infinity);
    expect([...bpms].sort((a, b) => b - a)).toEqual(bpms);
    expect(new Set(bpms).size).toBeGreaterThan(1);
    const shelf = new Set([checksumOf(canonicalForm(pattern('R! L R L')))]);
    const { best } = allVariants(typed('R L R L'), wish(['accents']), shelf);
    expect(best.map((v) => v.fresh)).toEqual([false]);
  });
  it('a displaced or mirrored one is on the shelf where it was kept so, not where it could be made from what was', () => {
    const recipe = typed('R! l l K');
    const parent = pattern('R! l l K');
    const turns = (shelf: readonly Pattern[]): string[] => {
      const forms = new Set(shelf.flatMap((p) => [checksumOf(canonicalForm(p)), checksumOf(exactForm(p))]));
      const { best } = allVariants(recipe, wish(['displaced', 'mirrored']), forms);
      return best.filter((v) => !v.fresh).map((v) => JSON.stringify(v.pattern.strokes.map(bare)));
    };
    expect(turns([parent])).toEqual([]);
    const kept = [rotated(parent, 1), mirrored(parent)];
    expect(turns([parent, ...kept]).sort()).toEqual(kept.map((p) => JSON.stringify(p.strokes.map(bare))).sort());
  });
  it('hands round a line: the fastest first, each with the ceiling of what it comes to', () => {
    fc.assert(
      fc.property(anyNodes, (nodes) => {
        const p = pattern(printStrokeText(nodes));
        const params = { select: { is: 'limb' as const, limbs: ['K' as const] }, text: 'R L' };
        const ways = roundWays(p, params, USUAL_KIT, USUAL_PROFILE);
        if (!p.strokes.some((s) => s.limb === 'K')) return expect(ways).toEqual([]);
        const bpms = ways.map((w) => w.bpm ?? Infinity);
        expect(bpms).toEqual([...bpms].sort((a, b) => b - a));
        for (const { text, bpm } of ways) {
          const entry = { id: 'x', on: true, move: 'round' as const, params: { ...params, text } };
          const made = build({ ...typed(printStrokeText(nodes)), moves: [entry] }).pattern;
          const own = ceiling(revoice(made, USUAL_KIT).pattern, USUAL_KIT, USUAL_PROFILE).bpm;
          expect(bpm).toBe(own === null || own >= 400 ? null : own);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('the ceiling is that of the variant as it sounds on the kit, by whoever plays it', () => {
    const recipe = typed('R l L R K');
    for (const kit of KIT_PRESETS) {
      for (const profile of [USUAL_PROFILE, withRate(USUAL_PROFILE, 'L', 'singles', 4, 0)]) {
        const { best } = allVariants(recipe, { ...wish(['voice', 'snare and kick']), kit, profile });
        for (const v of best)
          expect(v.ceiling).toBe(Math.floor(ceiling(revoice(v.pattern, kit).pattern, kit, profile).bpm ?? NaN));
      }
    }
  });
  it.each([
    ['and-a', 'snare for the kick on the a of 1'],
    ['trip-let', 'snare for the kick on the let of 1'],
  ] as const)('places are said in the school of counting that was asked for: %s', (triplets, words) => {
    const recipe: Recipe = { source: { kind: 'typed', text: 'R L K', meter: '4/4', grid: 1680 }, moves: [] };
    const { best } = allVariants(recipe, { ...wish(['snare and kick']), schools: { ...USUAL_SCHOOLS, triplets } });
    expect(best.map((v) => v.words)).toContain(words);
  });
  it('stops at its bound and says so', () => {
    const sheet = allVariants(typed('(R L R L R L K)x4'), wish(['accents'], 5));
    expect([sheet.candidates, sheet.complete, sheet.best.length]).toEqual([
      VARIANT_LIMITS.candidates,
      false,
      VARIANT_LIMITS.shown,
    ]);
    expect(sheetWords(sheet)).toMatch(/^showing the best 200 of at least \d+,\d{3}$/);
  });
  it('of a phrase that fills bars vary the cell: every whole repeat of it changes alike', () => {
    const filled: Recipe = {
      ...typed('R! l l R K'),
      moves: [
        {
          id: 'f',
          on: true,
          move: 'fit',
          params: { space: { bars: 2 }, start: '1', mirrored: false, close: { kind: 'rest' } },
        },
      ],
    };
    const sheet = allVariants(filled, wish(['accents', 'voice', 'snare and kick'], 2));
    expect(sheet.best.length).toBeGreaterThan(10);
    for (const { pattern: p, words } of sheet.best) {
      const repeats = p.groups
        .filter((g) => g.kind === 'cell')
        .map((g) =>
          p.strokes
            .filter((s) => s.at >= g.at && s.at < g.at + g.length)
            .map((s) => `${s.at - g.at} ${s.limb} ${s.level} ${s.voice}`)
            .join(),
        );
      expect(repeats).toHaveLength(6);
      expect(new Set(repeats).size).toBe(1);
      expect(words).toMatch(/, in every repeat$/);
    }
  });
  it('none is its own parent: two equal halves displaced by one are what they were', () => {
    for (const text of ['R L R L', 'R! l l K R! l l K', '(R L R R L R L L)x2', 'R R R R']) {
      const recipe = typed(text);
      const parent = build(recipe).pattern;
      const { best } = allVariants(recipe, wish([...VARIANT_KINDS], 2));
      const same = best.filter(
        (v) => JSON.stringify(v.pattern.strokes.map(bare)) === JSON.stringify(parent.strokes.map(bare)),
      );
      expect(same.filter((v) => v.pattern.length === parent.length && v.pattern.grid === parent.grid)).toEqual([]);
    }
  });
  it('an empty phrase has none', () => expect(allVariants(typed('- -'), wish([...VARIANT_KINDS], 2)).found).toBe(0));
  it('combinations are all of them', () => expect([...combinations(5, 3)]).toHaveLength(10));
});
