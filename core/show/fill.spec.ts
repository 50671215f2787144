import { dice } from '../testing/learners';
import { assign } from './assign';
import { fillShow, type FillAsked, type FillSpot } from './fill';

/** A night by chance: some spots pinned, some phrases once only, families of phrases that are alike. */
function night(roll: () => number, spots: number, phrases: number, kinds: number): FillAsked {
  const kind = Array.from({ length: phrases }, () => Math.floor(roll() * kinds));
  const most = Array.from({ length: phrases }, () => 1 + Math.floor(roll() * 2));
  return {
    spots: Array.from({ length: spots }, (): FillSpot => {
      const options = Array.from({ length: phrases }, (_, phrase) => ({ phrase, chance: roll() })).filter(
        () => roll() < 0.7,
      );
      return { options, pinned: roll() < 0.12 ? Math.floor(roll() * phrases) : null };
    }),
    phrases,
    most: (p) => most[p] ?? 1,
    alike: (a, b) => a === b || kind[a] === kind[b],
  };
}

/** What a filling is worth, and whether it keeps the law: by plain loops, apart from the code. */
function worth({ spots, most, alike }: FillAsked, chosen: readonly (number | null)[]): number | null {
  let sum = 0;
  const used = new Map<number, number>();
  for (const [i, c] of chosen.entries()) {
    const spot = spots[i]!;
    if (spot.pinned !== null && c !== spot.pinned) return null;
    if (c === null) {
      sum -= 1e4;
      continue;
    }
    used.set(c, (used.get(c) ?? 0) + 1);
    const before = i > 0 ? chosen[i - 1] : null;
    const byHand = spot.pinned !== null && spots[i - 1]?.pinned !== null;
    if (before !== null && before !== undefined && alike(before, c) && !byHand) return null;
    if (spot.pinned !== null) continue;
    const own = spot.options.find((o) => o.phrase === c);
    if (!own) return null;
    sum += Math.log(Math.max(1e-4, own.chance));
  }
  for (const [p, n] of used) {
    const byHand = spots.filter((s) => s.pinned === p).length;
    if (n > Math.max(most(p), byHand)) return null;
  }
  return sum;
}

/** The best of all fillings, each tried. */
function byForce(asked: FillAsked): number {
  let best = -Infinity;
  const chosen: (number | null)[] = [];
  const go = (): void => {
    if (chosen.length === asked.spots.length) {
      best = Math.max(best, worth(asked, chosen) ?? -Infinity);
      return;
    }
    const spot = asked.spots[chosen.length]!;
    const ways = spot.pinned !== null ? [spot.pinned] : [null, ...spot.options.map((o) => o.phrase)];
    for (const way of ways) {
      chosen.push(way);
      go();
      chosen.pop();
    }
  };
  go();
  return best;
}

describe('an assignment', () => {
  it('costs what the best of all permutations costs', () => {
    const roll = dice(7);
    for (let n = 0; n < 120; n++) {
      const rows = 1 + Math.floor(roll() * 5);
      const many = rows + Math.floor(roll() * 3);
      const costs = Array.from({ length: rows }, () =>
        Array.from({ length: many }, () => (roll() < 0.15 ? Infinity : Math.floor(roll() * 30))),
      );
      let best = Infinity;
      const go = (row: number, used: ReadonlySet<number>, sum: number): void => {
        if (row === rows) best = Math.min(best, sum);
        else costs[row]!.forEach((c, i) => !used.has(i) && go(row + 1, new Set([...used, i]), sum + c));
      };
      go(0, new Set(), 0);
      const found = assign(costs);
      expect(found?.cost ?? Infinity).toBe(best);
      if (found) expect(new Set(found.columns).size).toBe(rows);
    }
  });
});

describe('filling a show', () => {
  it('is as good as the best of all fillings', () => {
    const roll = dice(20_261);
    for (let n = 0; n < 150; n++) {
      const asked = night(roll, 1 + Math.floor(roll() * 5), 1 + Math.floor(roll() * 5), 1 + Math.floor(roll() * 5));
      const found = fillShow(asked);
      expect(found.exact).toBe(true);
      expect(worth(asked, found.chosen)).toBeCloseTo(byForce(asked), 6);
    }
  });

  it('is so for six spots and eight phrases', () => {
    const roll = dice(4);
    for (let n = 0; n < 4; n++) {
      const asked = night(roll, 6, 8, 4);
      const found = fillShow(asked);
      expect([found.exact, worth(asked, found.chosen)?.toFixed(6)]).toEqual([true, byForce(asked).toFixed(6)]);
    }
  });

  it('of forty spots and two hundred phrases, played as often as one likes, is what a walk along the night finds', () => {
    const roll = dice(11);
    for (let n = 0; n < 3; n++) {
      const asked: FillAsked = { ...night(roll, 40, 200, 12), most: () => 40 };
      const found = fillShow(asked);
      // The best of each last phrase, spot by spot: exact where nothing else ties spots together.
      let reach = new Map<number | null, number>([[null, 0]]);
      for (const [i, spot] of asked.spots.entries()) {
        const next = new Map<number | null, number>();
        const ways: readonly (readonly [number | null, number])[] =
          spot.pinned !== null
            ? [[spot.pinned, 0]]
            : [[null, -1e4], ...spot.options.map((o) => [o.phrase, Math.log(Math.max(1e-4, o.chance))] as const)];
        for (const [way, gain] of ways)
          for (const [before, sum] of reach) {
            const byHand = spot.pinned !== null && asked.spots[i - 1]?.pinned !== null;
            if (way !== null && before !== null && asked.alike(before, way) && !byHand) continue;
            next.set(way, Math.max(next.get(way) ?? -Infinity, sum + gain));
          }
        reach = next;
      }
      expect(found.exact).toBe(true);
      expect(worth(asked, found.chosen)).toBeCloseTo(Math.max(...reach.values()), 6);
    }
  });

  it('stops and says so where everything is alike, with a filling that keeps the law', () => {
    const roll = dice(3);
    const asked = {
      ...night(roll, 30, 40, 2),
      spots: night(roll, 30, 40, 2).spots.map((s) => ({ ...s, pinned: null })),
    };
    const found = fillShow(asked);
    expect(worth(asked, found.chosen)).not.toBeNull();
  });

  it('of nothing is nothing, and a spot nothing fits stays empty', () => {
    expect(fillShow({ spots: [], phrases: 0, most: () => 1, alike: () => true })).toEqual({ chosen: [], exact: true });
    const none = { options: [], pinned: null };
    expect(fillShow({ spots: [none, none], phrases: 0, most: () => 1, alike: () => true }).chosen).toEqual([
      null,
      null,
    ]);
  });
});
