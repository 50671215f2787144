import { GRID, meter, parseMeter } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText } from '../pattern';
import { canonicalForm } from '../variants';
import type { Hit } from '../take';
import { dice } from '../testing/learners';
import { playFreely, someShelf, type FreePlay } from '../testing/free-play';
import { latticeOf, recognise, SAID, type Came, type UsablePhrase } from '.';

const FOUR = meter(4, 4);
const USUAL: FreePlay = {
  meter: FOUR,
  bpm: 100,
  bars: 120,
  often: 0.35,
  scatter: 10,
  missed: 0.05,
  extra: 0.05,
  ghostsLost: 0,
  cut: false,
  anywhere: false,
  groove: 0,
};

interface Score {
  said: number;
  right: number;
  meant: number;
  found: number;
}

/** What is said of some sittings, held against what was meant: by place and name, apart from the code. */
function score(shelf: number, more: Partial<FreePlay>, seeds = 4): Score {
  const sum: Score = { said: 0, right: 0, meant: 0, found: 0 };
  for (let seed = 1; seed <= seeds; seed++) {
    const roll = dice(seed * 77);
    const of = { ...USUAL, ...more };
    const known = someShelf(roll, shelf, of.meter);
    const { hits, truth } = playFreely(roll, known, of);
    const came = recognise(known, { hits, meter: of.meter, bpm: of.bpm });
    const is = (c: Came): boolean => truth.some((t) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at);
    sum.said += came.length;
    sum.right += came.filter(is).length;
    sum.meant += truth.length;
    sum.found += truth.filter((t) => came.some((c) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at)).length;
  }
  return sum;
}

/** A sitting in which half of the phrases are on no shelf, and some are cut short. */
function withStrange(
  seed: number,
  many: number,
): { readonly said: readonly Came[]; readonly right: readonly Came[]; readonly meant: number; readonly found: number } {
  const roll = dice(seed * 91);
  const all = someShelf(roll, 2 * many, FOUR);
  const known = all.slice(many);
  const { hits, truth } = playFreely(roll, all, { ...USUAL, groove: seed % 3, cut: seed % 2 === 0 });
  const said = recognise(known, { hits, meter: FOUR, bpm: USUAL.bpm });
  const is = (c: Came): boolean => truth.some((t) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at);
  const own = truth.filter((t) => known.some((k) => k.id === t.id));
  const found = own.filter((t) => said.some((c) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at)).length;
  return { said, right: said.filter(is), meant: own.length, found };
}

describe('what came in free play, by MIDI', () => {
  it.each([
    ['over a first groove', {}],
    ['over a second', { groove: 1 }],
    ['over a third', { groove: 2 }],
    ['begun on any slot', { anywhere: true }],
    ['without the ghosts that a pad loses', { ghostsLost: 0.2 }],
  ])('%s: hardly anything is said wrongly, and nine of ten are found', (_, more) => {
    const { said, right, meant, found } = score(100, more);
    expect(right / said).toBeGreaterThanOrEqual(0.97);
    expect(found / meant).toBeGreaterThanOrEqual(0.88);
  });

  it('cut short, four of five are found, and hardly anything is said wrongly', () => {
    const { said, right, meant, found } = score(100, { cut: true });
    expect(right / said).toBeGreaterThanOrEqual(0.97);
    expect(found / meant).toBeGreaterThanOrEqual(0.8);
  });

  it('of ten phrases no less, and of a thousand hardly anything wrongly', () => {
    const few = score(10, {});
    expect(few.right / few.said).toBeGreaterThanOrEqual(0.97);
    expect(few.found / few.meant).toBeGreaterThanOrEqual(0.9);
    const many = score(1000, { bars: 100 }, 1);
    expect(many.right / many.said).toBeGreaterThanOrEqual(0.95);
    expect(many.found / many.meant).toBeGreaterThanOrEqual(0.7);
  });

  it('a groove alone is no phrase: at most one is said in five minutes', () => {
    for (const groove of [0, 1, 2]) {
      // Half an hour, at 100.
      const { said } = score(100, { often: 0, bars: 750, groove }, 1);
      expect(said).toBeLessThanOrEqual(6);
    }
  });

  it('where half of what is played is on no shelf, it is still seldom wrong', () => {
    const sum = { said: 0, right: 0, meant: 0, found: 0 };
    for (let seed = 1; seed <= 6; seed++) {
      const { said, right, meant, found } = withStrange(seed, 50);
      sum.said += said.length;
      sum.right += right.length;
      sum.meant += meant;
      sum.found += found;
    }
    expect(sum.right / sum.said).toBeGreaterThanOrEqual(0.93);
    expect(sum.found / sum.meant).toBeGreaterThanOrEqual(0.75);
  });

  it('is as sure as it says: of what is said at some chance about so much is right', () => {
    const all: { readonly chance: number; readonly right: boolean }[] = [];
    for (let seed = 7; seed <= 22; seed++) {
      const { said, right } = withStrange(seed, seed % 3 === 0 ? 100 : 50);
      all.push(...said.map((c) => ({ chance: c.chance, right: right.includes(c) })));
    }
    const of = (from: number, until: number): { readonly said: number; readonly is: number; readonly many: number } => {
      const own = all.filter((a) => a.chance >= from && a.chance < until);
      const mean = own.reduce((n, a) => n + a.chance, 0) / own.length;
      return { said: mean, is: own.filter((a) => a.right).length / own.length, many: own.length };
    };
    for (const bin of [of(0.8, 0.97), of(0.97, 1.01)]) {
      expect(bin.many).toBeGreaterThan(20);
      // Twice the spread that so many tosses of such a chance have.
      expect(Math.abs(bin.is - bin.said)).toBeLessThan(0.05 + 2 * Math.sqrt((bin.said * (1 - bin.said)) / bin.many));
    }
    expect(all.every((a) => a.chance >= SAID)).toBe(true);
  });

  it('in odd meters too', () => {
    for (const text of ['7/8', '5/4', '6/8']) {
      const { said, right, meant, found } = score(40, { meter: parseMeter(text)!, groove: 9, bars: 100 }, 4);
      expect([text, right / said >= 0.95, found / meant >= 0.7]).toEqual([text, true, true]);
    }
  });
});

const phrase = (id: string, text: string): UsablePhrase => {
  const read = parseStrokeText(text);
  const pattern = patternOfText(read.ok ? read.value : [], FOUR, GRID.sixteenths);
  return { id, pattern, form: canonicalForm(pattern) };
};
/** Hits of a text at 100, from a slot on, with force where the text has heights. */
function struck(text: string, from: number): Hit[] {
  const { strokes } = phrase('x', text).pattern;
  return strokes.map((s) => ({
    seconds: (from + s.at / 1260) * 0.15,
    limb: null,
    voice: s.voice,
    velocity: s.level === 'accent' ? 110 : s.level === 'tap' ? 70 : 35,
  }));
}

describe('single sittings', () => {
  const rope = phrase('rope', 'R! L R R K L! R K');
  const bed = Array.from({ length: 12 }, (_, b) => struck('R - R - R - R -', 16 * b)).flat();

  it('names two phrases that are the same, played so', () => {
    const twin = phrase('twin', 'L! R L L K R! L K');
    const came = recognise([rope, twin], {
      hits: [...bed, ...struck('R! L R R K L! R K', 200)],
      meter: FOUR,
      bpm: 100,
    });
    expect(came).toHaveLength(1);
    expect([came[0]?.id, ...(came[0]?.or ?? [])].sort()).toEqual(['rope', 'twin']);
    expect(came[0]?.at).toBe(200 * 1260);
  });

  it('of nothing played, of feet alone, of sixty-four notes a second it says nothing and does not fail', () => {
    const at = (hits: readonly Hit[]): readonly Came[] => recognise([rope], { hits, meter: FOUR, bpm: 100 });
    expect(at([])).toEqual([]);
    expect(at(struck('K - K - K - K -', 0))).toEqual([]);
    const flood = Array.from({ length: 640 }, (_, i): Hit => ({
      seconds: i / 64,
      limb: null,
      voice: 'snare',
      velocity: 80,
    }));
    expect(at(flood)).toEqual([]);
    expect(recognise([], { hits: bed, meter: FOUR, bpm: 100 })).toEqual([]);
  });

  it('what is struck before the first bar line falls nowhere, and a hit between two slots into none', () => {
    const hit = (seconds: number): Hit => ({ seconds, limb: 'R', voice: null, velocity: null });
    const { slots, beside } = latticeOf([hit(-0.2), hit(0.01), hit(0.225), hit(0.3)], FOUR, 100, GRID.sixteenths);
    expect(slots.map((s) => s.length)).toEqual([1, 0, 1, 0]);
    expect(beside).toHaveLength(1);
  });
});
