import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { barTicks, beatTicks } from '../time';
import { isHand, parseStrokeText, slotsOf, type Stroke } from '../stroke';
import { unisons, type Pattern } from '../pattern';
import { select, type Selection } from '../selection';
import {
  applyMove,
  build,
  followParent,
  isReorchestrated,
  offerOf,
  type MoveEntry,
  type MoveName,
  type MoveParams,
  type PlainRecipe,
  type Recipe,
} from '.';

// A part on its own, hands round a line, versions in a row: worked out a second time by plain loops.

const typed = (text: string, meter = '4/4', grid = 1260): PlainRecipe => ({
  source: { kind: 'typed', text, meter, grid },
  moves: [],
});
const entry = <N extends MoveName>(move: N, params: MoveParams[N], id = 'm'): MoveEntry => ({
  ...offerOf(move, params).entry,
  id,
});
function outcome<N extends MoveName>(p: Pattern, move: N, params: MoveParams[N]): ReturnType<typeof applyMove> {
  return applyMove(p, offerOf(move, params).entry, (r) => build(r as Recipe).pattern);
}
const heard = (s: Stroke): string => `${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''} ${s.grace ?? ''}`;
const all = (p: Pattern): string[] => p.strokes.map((s) => `${s.at} ${heard(s)}`);
const anyPattern = anyRecipe
  .map((r) => build(r).pattern)
  .filter((p) => p.length > 0 && p.strokes.length > 0 && p.strokes.length < 300);
const stopped = ({ findings }: { findings: readonly { weight: string }[] }): boolean =>
  findings.some((f) => f.weight === 'stop');

describe('only a part', () => {
  it('a bar, a beat: what stands in it, from the 1 or where it stood', () => {
    fc.assert(
      fc.property(
        anyPattern,
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom('bar' as const, 'beat' as const),
        fc.boolean(),
        (p, n, what, stays) => {
          fc.pre(
            p.start === 0 &&
              p.groups.every((g) => g.kind !== 'land') &&
              p.length % barTicks(p.meter) === 0 &&
              beatTicks(p.meter) % p.grid === 0,
          );
          // Beats of the same number stand in every bar: only of one bar is it one stretch.
          fc.pre(what === 'bar' || p.length === barTicks(p.meter));
          // Beats that are longer or shorter than others are tried by hand.
          fc.pre(what === 'bar' || p.meter.beats % 3 !== 0 || p.meter.unit !== 8);
          fc.pre(what === 'bar' || p.meter.unit === 4);
          const long = what === 'bar' ? barTicks(p.meter) : beatTicks(p.meter);
          const chosen: Selection = what === 'bar' ? { is: 'bar', bars: [n] } : { is: 'beat', beats: [n] };
          const made = outcome(p, 'only', { select: chosen, ...(stays ? { stays: true as const } : {}) });
          const from = (n - 1) * long;
          if (from >= p.length || long === p.length) {
            expect(stopped(made)).toBe(true);
            expect(made.pattern).toEqual(p);
            return;
          }
          expect(made.pattern.length).toBe(long);
          expect(made.pattern.start).toBe(stays ? from % barTicks(p.meter) : 0);
          const own: string[] = [];
          for (const s of p.strokes) if (s.at >= from && s.at < from + long) own.push(`${s.at - from} ${heard(s)}`);
          expect(all(made.pattern)).toEqual(own);
          const groups = made.pattern.groups;
          expect(groups.map((g) => g.repeat)).toEqual(groups.map((_, i) => i));
          for (const g of groups) expect(g.at + g.length).toBeLessThanOrEqual(long);
        },
      ),
      { numRuns: 400 },
    );
  });
  it('places that lie apart follow each other; strokes that are chosen give all between the first and the last', () => {
    const p = build(typed('R! l l R K l R l R l K l R! r L L')).pattern;
    const apart = outcome(p, 'only', { select: { is: 'beat', beats: [1, 4] } }).pattern;
    expect(apart.strokes.map((s) => [s.at / 1260, s.limb])).toEqual(Array.from('RLLRRRLL').map((limb, i) => [i, limb]));
    const between = outcome(p, 'only', { select: { is: 'limb', limbs: ['K'] } }).pattern;
    expect(between.strokes.map((s) => s.limb).join('')).toBe('KLRLRLK');
  });
  it('beats of 7/8 by its groups are as long as they are', () => {
    const p = build(typed('R l r l R l r l R l r l r l', '7/8')).pattern;
    const lengths = [1, 2, 3].map((n) => outcome(p, 'only', { select: { is: 'beat', beats: [n] } }).pattern.length);
    for (const [i, length] of lengths.entries()) {
      const own = select(p, { is: 'beat', beats: [i + 1] }).length;
      expect(length).toBe(own * p.grid);
    }
  });
});

describe('a part on another grid in the same time', () => {
  it('each new slot is what it is due, by order or by place; all else stands where it stood', () => {
    fc.assert(
      fc.property(
        anyPattern,
        fc.integer({ min: 1, max: 4 }),
        fc.constantFrom(420, 504, 630, 840, 1260, 1680, 2520),
        fc.constantFrom('order' as const, 'place' as const),
        (p, beat, grid, by) => {
          fc.pre(p.start === 0 && p.length % barTicks(p.meter) === 0);
          fc.pre(p.meter.unit === 4 && beat <= p.meter.beats && 5040 % p.grid === 0);
          fc.pre(p.groups.every((g) => g.kind !== 'land') && p.strokes.every((s) => s.at % p.grid === 0));
          const made = outcome(p, 'grid', { grid, within: { select: { is: 'beat', beats: [beat] }, by } });
          const bar = barTicks(p.meter);
          const inPart = (at: number): boolean => Math.floor((at % bar) / 5040) === beat - 1;
          if (stopped(made)) return expect(made.pattern).toEqual(p);
          expect(made.pattern.length).toBe(p.length);
          expect(made.pattern.groups).toEqual(p.groups);
          const wanted: string[] = p.strokes.filter((s) => !inPart(s.at)).map((s) => `${s.at} ${heard(s)}`);
          for (let from = (beat - 1) * 5040; from < p.length; from += bar) {
            const many = 5040 / grid;
            for (let n = 0; n < many; n++) {
              const old = by === 'order' ? n % (5040 / p.grid) : Math.floor((n * 5040) / p.grid / many);
              const earlier = by === 'order' ? (n - 1) % (5040 / p.grid) : Math.floor(((n - 1) * 5040) / p.grid / many);
              const isAgain = n > 0 && old === earlier;
              for (const s of p.strokes.filter((o) => o.at === from + old * p.grid)) {
                const { ornament: _o, grace: _g, ...plain } = s;
                const now = isAgain ? { ...plain, level: s.level === 'accent' ? ('tap' as const) : s.level } : s;
                wanted.push(`${from + n * grid} ${heard(now)}`);
              }
            }
          }
          expect(all(made.pattern).sort()).toEqual(wanted.sort());
        },
      ),
      { numRuns: 300 },
    );
  });
  it('what is no whole number of new slots says so, and nothing changes', () => {
    const p = build(typed('R l l R', '4/4', 2520)).pattern;
    const made = outcome(p, 'grid', { grid: 1680, within: { select: { is: 'count', counts: ['1&'] }, by: 'order' } });
    expect(made.findings.map((f) => f.words).join()).toMatch(/^1 eighth comes? to 1½ on triplets/);
    expect(made.pattern).toEqual(p);
  });
});

describe('hands round a line', () => {
  const line: Selection = { is: 'limb', limbs: ['K'] };
  const texts = fc.constantFrom('R L', 'R l l', 'R R L L', 'R -', 'f[snare]R L[high tom]', 'R+L -');
  it('the line stays stroke by stroke; every free slot has what is due, and nothing else does', () => {
    fc.assert(
      fc.property(anyPattern, texts, fc.boolean(), fc.boolean(), (p, text, over, anew) => {
        fc.pre(p.groups.every((g) => g.kind !== 'land'));
        const kept = p.strokes.filter((s) => s.limb === 'K');
        const made = outcome(p, 'round', {
          select: line,
          text,
          ...(over ? { over: true as const } : {}),
          ...(anew ? { anew: true as const } : {}),
        });
        if (kept.length === 0) return expect(stopped(made)).toBe(true);
        const read = parseStrokeText(text);
        const cell = read.ok ? slotsOf(read.value) : [];
        const wanted = new Map(kept.map((s) => [`${s.at} ${s.limb}`, heard(s)]));
        let due = 0;
        let put = 0;
        for (let slot = 0; slot * p.grid < p.length; slot++) {
          const busy = kept.some((s) => s.at >= slot * p.grid && s.at < (slot + 1) * p.grid);
          if (busy && anew) due = 0;
          if (busy && !over) continue;
          for (const s of cell[due % cell.length]!) {
            put++;
            wanted.set(
              `${slot * p.grid} ${s.limb}`,
              `${s.limb} ${s.voice ?? 'snare'} ${s.level} ${s.ornament ?? ''} ${s.grace ?? ''}`,
            );
          }
          due++;
        }
        if (put === 0) return expect(made.pattern).toEqual(p);
        expect(new Map(made.pattern.strokes.map((s) => [`${s.at} ${s.limb}`, heard(s)]))).toEqual(wanted);
        expect([made.pattern.length, made.pattern.start]).toEqual([p.length, p.start]);
        const hands = made.pattern.strokes.filter((s) => isHand(s.limb));
        if (!over && text === 'R L')
          for (const at of unisons(made.pattern)) expect(hands.some((s) => s.at === at)).toBe(false);
      }),
      { numRuns: 300 },
    );
  });
  it('a melody of hands is never played over', () => {
    const p = build(typed('R[high tom] - - L[floor tom] - - R[mid tom] -')).pattern;
    const toms: Selection = { is: 'piece', voices: ['high-tom', 'mid-tom', 'floor-tom'] };
    const made = outcome(p, 'round', { select: toms, text: 'K', over: true }).pattern;
    expect(made.strokes.map((s) => s.limb).join('')).toBe('RKKLKKRK');
  });
});

describe('a phrase taken out of another', () => {
  const parent: Recipe = {
    ...typed('R l l R L r r L'),
    moves: [entry('level', { select: { is: 'count', counts: ['1'] }, level: 'accent' }, 'a')],
  };
  const out = entry('only', { select: { is: 'half', half: 1, of: 'phrase' } }, 'o');
  const child: Recipe = { ...parent, moves: [...parent.moves, out, entry('mirror', { feet: false }, 'b')] };
  it('follows it when it changes, keeps what it did itself, and then has nothing to follow', () => {
    expect(followParent(child, parent)).toBeNull();
    // A move of the parent that came since has an id of the child's.
    const now: Recipe = {
      ...parent,
      moves: [...parent.moves, entry('level', { select: { is: 'count', counts: ['1e'] }, level: 'accent' }, 'b')],
    };
    const followed = followParent(child, now)!;
    expect(new Set(followed.moves.map((m) => m.id)).size).toBe(followed.moves.length);
    const own = build(now).pattern.strokes.filter((s) => s.at < 5040);
    expect(build(followed).pattern.strokes.map((s) => [s.at, s.level])).toEqual(own.map((s) => [s.at, s.level]));
    expect(
      build(followed)
        .pattern.strokes.map((s) => s.limb)
        .join(''),
    ).toBe('LRRL');
    expect(followParent(followed, now)).toBeNull();
  });
  it('one that was not taken out, or whose part is switched off, follows nothing', () => {
    const plain: Recipe = { ...parent, moves: [entry('mirror', { feet: false }, 'b')] };
    expect(followParent(plain, parent)).toBeNull();
    const off = { ...child, moves: child.moves.map((m) => (m.id === 'o' ? { ...m, on: false } : m)) };
    expect(followParent(off, typed('R L'))).toBeNull();
  });
});

describe('versions in a row', () => {
  it('another in place of a phrase sounds as it sounds by itself, in its own meter and on its own grid', () => {
    fc.assert(
      fc.property(anyPattern, fc.constantFrom('R L K', 'R[high tom] l l', 'R+K - L'), (p, text) => {
        const other = typed(text, '3/4', 1680);
        const made = outcome(p, 'join', { other, name: 'x', alone: true });
        const alone = build(other).pattern;
        expect(all(made.pattern)).toEqual(all(alone));
        expect([made.pattern.grid, made.pattern.meter]).toEqual([alone.grid, alone.meter]);
        // It stands on whole bars, so that what follows begins on the next.
        expect(made.pattern.length).toBe(Math.ceil(alone.length / barTicks(alone.meter)) * barTicks(alone.meter));
      }),
      { numRuns: 60 },
    );
  });
  it('a phrase on other pieces and nothing else is a version of it', () => {
    const was: Recipe = { ...typed('R l l R'), moves: [entry('mirror', { feet: false }, 'a')] };
    const toms = entry('voice', { select: { is: 'limb', limbs: ['R'] }, voices: ['high-tom'] }, 'v');
    const loud = entry('level', { select: { is: 'all' }, level: 'accent' }, 'l');
    expect(isReorchestrated(was, { ...was, moves: [...was.moves, toms] })).toBe(true);
    expect(isReorchestrated({ ...was, moves: [...was.moves, toms] }, was)).toBe(true);
    expect(isReorchestrated(was, { ...was, moves: [...was.moves, toms, loud] })).toBe(false);
    expect(isReorchestrated(was, { ...typed('R L'), moves: [...was.moves, toms] })).toBe(false);
  });
});
