import { barTicks, GRID, meter, parseMeter, ticks, USUAL_SCHOOLS, type Meter } from '../time';
import { isHand, parseStrokeText } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { build } from '../recipe';
import { KIT_PRESETS, USUAL_KIT } from '../kit';
import { USUAL_PROFILE } from '../reach';
import {
  compose,
  contradictions,
  demanded,
  slotsAsked,
  typedCells,
  USUAL_DEMANDS,
  wayMoves,
  WAYS,
  type Demands,
} from '.';

const AROUND = { kit: USUAL_KIT, profile: USUAL_PROFILE, shelf: [] };
const BESIDE = { phrase: null, cells: [], kit: USUAL_KIT, schools: USUAL_SCHOOLS };

function phrase(text: string, grid = GRID.sixteenths): Pattern {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], meter(4, 4), grid);
}
const letters = (p: Pattern, grid: number = GRID.sixteenths): string =>
  Array.from({ length: p.length / grid }, (_, i) => {
    const own = p.strokes.filter((s) => s.at === i * grid).map((s) => (s.level === 'accent' ? `${s.limb}!` : s.limb));
    return own.length > 0 ? own.join('+') : '-';
  }).join(' ');
const answers = (demands: Partial<Demands>, own: Pattern | null = null): readonly Pattern[] => {
  const { asked, wrong } = demanded({ ...USUAL_DEMANDS, ...demands }, { ...BESIDE, phrase: own });
  expect(wrong).toEqual([]);
  expect(contradictions(asked, String)).toEqual([]);
  return compose(asked, AROUND).answers.map((a) => a.pattern);
};

describe('what demands come to', () => {
  it('the space is what is left of its bars from where it begins, in any meter', () => {
    for (const [text, grid, bars, from, slots] of [
      ['4/4', GRID.sixteenths, 1, null, 16],
      ['4/4', GRID.sixteenths, 1, '3', 8],
      ['4/4', GRID.sixteenths, 2, '2&', 26],
      ['4/4', GRID.triplets, 0.5, null, 6],
      ['7/8', GRID.sixteenths, 1, '6', 4],
      ['5/8', GRID.eighths, 2, '2', 9],
      // No count of this bar, or none of this subdivision: it begins at the bar line.
      ['3/4', GRID.sixteenths, 1, '4', 12],
      ['4/4', GRID.quarters, 1, '2&', 4],
    ] as const) {
      const d: Demands = { ...USUAL_DEMANDS, meter: text, grid, bars, from };
      expect([text, from, slotsAsked(d, USUAL_SCHOOLS)]).toEqual([text, from, slots]);
      const { asked } = demanded(d, BESIDE);
      const own = parseMeter(text) as Meter;
      expect(asked.start + asked.slots * grid).toBe(Math.floor((bars * barTicks(own)) / grid) * grid);
    }
  });
  it('like a phrase, but: so many slots differ at most, one at least, and what is kept stays', () => {
    const own = phrase('R! L R K L! R L K R! L L K R L K K');
    const before = letters(own).split(' ');
    const own16 = answers({ like: 3, keeps: ['kick', 'accents'], hand: 2 }, own);
    expect(own16.length).toBeGreaterThan(4);
    for (const p of own16) {
      const now = letters(p).split(' ');
      const by = now.filter((s, i) => s !== before[i]).length;
      expect(by).toBeGreaterThanOrEqual(1);
      expect(by).toBeLessThanOrEqual(3);
      now.forEach((s, i) => {
        expect([i, s.includes('K'), s.includes('!')]).toEqual([i, before[i]!.includes('K'), before[i]!.includes('!')]);
      });
    }
    // With the hands kept only the feet are others.
    for (const p of answers({ like: 2, keeps: ['hands'], linear: false }, own)) {
      const hands = (x: Pattern): unknown =>
        x.strokes.filter((s) => isHand(s.limb)).map((s) => [s.at, s.limb, s.level]);
      expect(hands(p)).toEqual(hands(own));
    }
  });
  it('slots that are held stand in every answer', () => {
    const first = answers({ blocks: ['4'], hand: 2 })[0]!;
    const held = Array.from({ length: 16 }, (_, i) =>
      i < 8
        ? first.strokes.filter((s) => s.at === i * GRID.sixteenths).map(({ limb, level }) => ({ limb, level }))
        : null,
    );
    const more = answers({ blocks: ['3', '4', '5'], held });
    expect(more.length).toBeGreaterThan(2);
    for (const p of more) expect(letters(p).split(' ').slice(0, 8)).toEqual(letters(first).split(' ').slice(0, 8));
  });
  it('how dense it is', () => {
    for (const [density, least, most] of [
      ['every', 16, 16],
      ['most', 10, 13],
      ['half', 5, 9],
    ] as const) {
      const own = answers({ blocks: ['singles', 'rests', 'kicks'], density });
      expect(own.length).toBeGreaterThan(2);
      for (const p of own) {
        const struck = new Set(p.strokes.map((s) => s.at)).size;
        expect(struck).toBeGreaterThanOrEqual(least);
        expect(struck).toBeLessThanOrEqual(most);
      }
    }
  });
  it('a piece on a slot, and a way round the kit', () => {
    for (const p of answers({ wishes: [{ slot: 4, what: 'floor-tom', must: true }] }))
      expect(p.strokes.find((s) => s.at === 4 * GRID.sixteenths)?.voice).toBe('floor-tom');
    for (const way of WAYS) {
      for (const p of answers({ way, blocks: ['4'], wishes: [{ slot: 0, what: 'hit', must: true }] })) {
        const own = p.strokes.filter((s) => isHand(s.limb)).map((s) => s.voice);
        if (way === 'down') expect([own[0], own.at(-1)]).toEqual(['snare', 'floor-tom']);
        if (way === 'up') expect([own[0], own.at(-1)]).toEqual(['floor-tom', 'snare']);
        if (way === 'floor') expect(new Set(own)).toEqual(new Set(['floor-tom']));
        if (way === 'apart')
          for (const s of p.strokes) if (isHand(s.limb)) expect(s.voice).toBe(s.limb === 'R' ? 'floor-tom' : 'snare');
        if (way === 'crashes') expect(own[0]).toBe('crash-right');
      }
    }
  });
  it('what the kit has not, what cannot be read and a phrase on another grid are said', () => {
    const bare = { ...USUAL_KIT, name: 'Pad', pieces: [] };
    const wrong = (d: Partial<Demands>, own: Pattern | null = null, kit = USUAL_KIT): readonly string[] =>
      demanded({ ...USUAL_DEMANDS, ...d }, { ...BESIDE, phrase: own, kit }).wrong;
    expect(wrong({ lands: 'left' }, null, bare)).toEqual(['Pad has no left crash.']);
    expect(wrong({ wishes: [{ slot: 0, what: 'china', must: true }] }, null, bare)).toEqual(['Pad has no china.']);
    expect(wrong({ way: 'down' }, null, bare)).toEqual(['Your kit has not the pieces for this way round it.']);
    expect(wrong({ blocks: ['own'], own: 'R L, wobble' })).toEqual([
      '“wobble” is not a sticking. Write R, L, K and - for a rest.',
    ]);
    expect(wrong({ keeps: ['kick'] })).toEqual(['There is no phrase on the Bench to keep something of.']);
    expect(wrong({ keeps: ['kick'] }, phrase('R L K', GRID.triplets))).toEqual([
      'The phrase on the Bench lies on another subdivision.',
    ]);
    expect(wrong({ like: 2 }, phrase('R L K'))).toEqual(['The phrase on the Bench is shorter. Ask for fewer bars.']);
    expect(typedCells(' R L K ;; l r').cells.map((c) => c.name)).toEqual(['R L K', 'l r']);
    // A way needs pieces that are there, on every kit there is.
    for (const kit of KIT_PRESETS)
      for (const way of WAYS) {
        const moves = wayMoves(way, 16, kit);
        if (!moves) continue;
        const out = build({
          source: { kind: 'typed', text: '(R! L R L)x4', meter: '4/4', grid: GRID.sixteenths },
          moves: [...moves],
        }).pattern;
        for (const s of out.strokes) expect(kit.pieces.some((x) => x.voices.includes(s.voice))).toBe(true);
      }
  });
  it('nothing to build from is said, and no answer differs from another grid', () => {
    const { asked } = demanded({ ...USUAL_DEMANDS, blocks: [] }, BESIDE);
    expect(contradictions(asked, String).map((c) => c.words)).toEqual(['Choose what to build from.']);
    expect(asked.grid).toBe(ticks(GRID.sixteenths));
  });
});
