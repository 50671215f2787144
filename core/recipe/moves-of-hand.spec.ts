import fc from 'fast-check';
import { anyRecipe } from '../testing/arbitraries';
import { barTicks } from '../time';
import { isHand, type Stroke } from '../stroke';
import { landingAt, unisons, withGraces, type Pattern } from '../pattern';
import { applyMove, build, offerOf, type MoveName, type MoveParams, type Recipe } from '.';

// The moves that drummers did by hand, worked out a second time by plain loops.

const typed = (text: string, meter = '4/4', grid = 1260): Recipe => ({
  source: { kind: 'typed', text, meter, grid },
  moves: [],
});
function moved<N extends MoveName>(p: Pattern, move: N, params: MoveParams[N]): Pattern {
  return applyMove(p, offerOf(move, params).entry, () => p).pattern;
}
const heard = (s: Stroke): string => `${s.limb} ${s.voice} ${s.level} ${s.ornament ?? ''} ${s.grace ?? ''}`;
const anyPattern = anyRecipe
  .map((r) => build(r).pattern)
  .filter((p) => p.length > 0 && p.strokes.length < 300 && landingAt(p) === null);

describe('backwards', () => {
  it('slot by slot from the end, on the home grid', () => {
    fc.assert(
      fc.property(anyPattern, (p) => {
        fc.pre(p.length % p.grid === 0 && p.strokes.every((s) => s.at % p.grid === 0));
        const back = moved(p, 'reverse', {});
        for (let at = 0, from = p.length - p.grid; at < p.length; at += p.grid, from -= p.grid) {
          const own = back.strokes.filter((s) => s.at === at).map(heard);
          expect(own.sort()).toEqual(
            p.strokes
              .filter((s) => s.at === from)
              .map(heard)
              .sort(),
          );
        }
      }),
      { numRuns: 200 },
    );
  });
  it('twice is once, whatever stands between the slots; nothing is lost', () => {
    fc.assert(
      fc.property(anyPattern, (p) => {
        fc.pre(p.length % p.grid === 0);
        const back = moved(p, 'reverse', {});
        expect(back.strokes).toHaveLength(p.strokes.length);
        const again = moved(back, 'reverse', {});
        expect(again.strokes.map((s) => `${s.at} ${heard(s)}`)).toEqual(p.strokes.map((s) => `${s.at} ${heard(s)}`));
        expect(again.groups.map((g) => [g.at, g.length])).toEqual(p.groups.map((g) => [g.at, g.length]));
      }),
      { numRuns: 200 },
    );
  });
  it('a landing stays the arrival it is', () => {
    const landing = { ...offerOf('land', { hand: 'R', voice: 'crash-right', kick: true }).entry, id: 'l' };
    const p = build({ ...typed('(R l)x8'), moves: [landing] }).pattern;
    const at = landingAt(p);
    expect(at).not.toBeNull();
    expect(landingAt(moved(p, 'reverse', {}))).toBe(at);
  });
});

describe('every group backwards', () => {
  it('is each group from its end, where it stands', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('R', 'l', 'K', '-', 'R!'), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 1, max: 3 }),
        (cell, bars) => {
          const fit = { space: { bars }, start: '1', mirrored: false, close: { kind: 'rest' as const } };
          const p = build({ ...typed(cell.join(' ')), moves: [{ ...offerOf('fit', fit).entry, id: 'f' }] }).pattern;
          const out = moved(p, 'reverse', { by: 'group' });
          const own = (x: Pattern, slot: number): string[] =>
            x.strokes.filter((s) => s.at === slot * x.grid).map(heard);
          const whole = Math.floor((bars * 16) / cell.length);
          for (let n = 0; n < whole; n++)
            for (let i = 0; i < cell.length; i++)
              expect(own(out, n * cell.length + i)).toEqual(own(p, (n + 1) * cell.length - 1 - i));
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('made linear', () => {
  it.each(['hands', 'feet', 'later'] as const)('%s: never two limbs at once, and nothing new', (give) => {
    fc.assert(
      fc.property(anyPattern, (p) => {
        const out = moved(p, 'linear', { give });
        expect(unisons(out)).toEqual([]);
        const graced = withGraces(out).strokes.filter((s) => ['flam', 'drag', 'ruff'].includes(s.ornament ?? ''));
        expect(graced.filter((s) => s.grace !== 'same-hand')).toEqual([]);
        const before = new Set(p.strokes.map((s) => `${s.at} ${s.limb} ${s.voice} ${s.level}`));
        const strange = out.strokes.filter((s) => !before.has(`${s.at} ${s.limb} ${s.voice} ${s.level}`));
        // Only a foot may be somewhere else, on a slot that was free.
        expect(strange.filter((s) => give !== 'later' || isHand(s.limb))).toEqual([]);
        for (const s of strange) expect(p.strokes.some((o) => o.at >= s.at && o.at < s.at + p.grid)).toBe(false);
        for (const at of new Set(p.strokes.map((s) => s.at))) {
          const all = p.strokes.filter((s) => s.at === at);
          const own = out.strokes.filter((s) => s.at === at);
          const [hands, feet] = [all.some((s) => isHand(s.limb)), all.some((s) => !isHand(s.limb))];
          // One of those that fell together stays, of the kind that does not give way.
          expect(own).toHaveLength(1);
          if (hands && feet) expect(isHand(own[0]!.limb)).toBe(give !== 'hands');
        }
      }),
      { numRuns: 150 },
    );
  });
});

describe('on another grid over the same time', () => {
  it('is the cell again and again, cut at the end', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('R', 'l', 'K', '-', 'R!'), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom(1680, 2520, 840, 630, 1008),
        (cell, bars, grid) => {
          const fit = { space: { bars }, start: '1', mirrored: false, close: { kind: 'cut' as const } };
          const entry = { ...offerOf('fit', fit).entry, id: 'f' };
          const p = build({ ...typed(cell.join(' ')), moves: [entry] }).pattern;
          const out = moved(p, 'grid', { grid, fill: true });
          expect([out.length, out.grid]).toEqual([bars * barTicks(p.meter), grid]);
          const wanted: string[] = [];
          for (let slot = 0; slot * grid < out.length; slot++) {
            const sign = cell[slot % cell.length]!;
            if (sign !== '-') wanted.push(`${slot * grid} ${sign}`);
          }
          const sign = (s: Stroke): string =>
            s.level === 'accent' ? `${s.limb}!` : s.level === 'ghost' ? s.limb.toLowerCase() : s.limb;
          expect(out.strokes.map((s) => `${s.at} ${sign(s)}`)).toEqual(wanted);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('an ending that is longer than its gap', () => {
  it('both ways that are named play all of it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 10 }),
        (cell, beats, ending) => {
          const source = typed(Array.from({ length: cell }, () => 'K').join(' '));
          const text = Array.from({ length: ending }, (_, i) => (i % 2 === 0 ? 'R' : 'L')).join(' ');
          const filled = (n: number, whole: boolean) => {
            const close = { kind: 'strokes' as const, text, ...(whole ? { whole: true as const } : {}) };
            const offer = offerOf('fit', { space: { beats: n }, start: '1', mirrored: false, close });
            return build({ ...source, moves: [{ ...offer.entry, id: 'f' }] });
          };
          const end = (b: ReturnType<typeof filled>): number => b.pattern.strokes.filter((s) => isHand(s.limb)).length;
          const plain = filled(beats, false);
          const words = plain.trail[0]!.findings.find((f) => f.code === 'cut')?.words;
          const gap = (beats * 4) % cell;
          // Plain counting: a gap that is there and too short.
          expect(words !== undefined).toBe(gap > 0 && gap < ending);
          if (!words) return;
          expect(end(plain)).toBe(gap);
          if (words.includes('the last repeat is cut for it')) {
            const all = filled(beats, true);
            expect(end(all)).toBe(ending);
            expect(all.pattern.length).toBe(plain.pattern.length);
            expect(all.pattern.strokes.slice(-ending).every((s) => isHand(s.limb))).toBe(true);
          }
          const more = /if you fill (\d+) beats?/.exec(words);
          if (more) expect(end(filled(Number(more[1]), false))).toBe(ending);
        },
      ),
      { numRuns: 400 },
    );
  });
});
