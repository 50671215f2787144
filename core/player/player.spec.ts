import fc from 'fast-check';
import type { Attempt } from '../drill';
import { bell, dice, learner } from '../testing/learners';
import {
  afterTry,
  beforeAnyTry,
  chanceAt,
  evidenceOf,
  learnt,
  newMemory,
  onDay,
  readyTempo,
  recall,
  remembered,
  knownUnder,
  shareOf,
  shareWithout,
  tempoAt,
  unknownYet,
  USUAL_SHARE,
  worthTrying,
  type Belief,
  type DatedTry,
} from '.';

const of = ({ day, bpm, clean }: { day: number; bpm: number; clean: boolean }): DatedTry => ({
  day,
  bpm,
  clean,
  weight: 1,
});

/** Slope and height of clean over the expected, by logistic regression in plain loops. */
function calibrated(points: readonly (readonly [number, number])[]): { slope: number; height: number } {
  let [height, slope] = [0, 1];
  for (let round = 0; round < 30; round++) {
    let [g0, g1, h00, h01, h11] = [0, 0, 0, 0, 0];
    for (const [x, y] of points) {
      const q = 1 / (1 + Math.exp(-(height + slope * x)));
      g0 += y - q;
      g1 += (y - q) * x;
      h00 += q * (1 - q);
      h01 += q * (1 - q) * x;
      h11 += q * (1 - q) * x * x;
    }
    const d = h00 * h11 - h01 * h01;
    height += (h11 * g0 - h01 * g1) / d;
    slope += (h00 * g1 - h01 * g0) / d;
  }
  return { slope, height };
}

describe('two thousand simulated learners', () => {
  const roll = dice(20261127);
  const points: (readonly [number, number])[] = [];
  const after: (readonly [number, number])[] = [];
  let [own, oracle, many, inside, off, asked] = [0, 0, 0, 0, 0, 0];
  for (let n = 0; n < 2000; n++) {
    const { ceiling, tries } = learner(roll, 40);
    let known = unknownYet(ceiling, tries[0]!.day);
    tries.forEach((t, i) => {
      const belief = onDay(known, t.day);
      if (i > 9) {
        const p = chanceAt(belief, t.bpm);
        points.push([Math.log(p / (1 - p)), Number(t.clean)]);
        if (t.day - known.memory.lastDay! > 6) after.push([Math.log(p / (1 - p)), Number(t.clean)]);
        own += (p - Number(t.clean)) ** 2;
        oracle += (t.chance - Number(t.clean)) ** 2;
        many++;
      }
      if (i === 30) {
        const ready = readyTempo(belief);
        if (ready.low <= t.ready && t.ready <= ready.high) inside++;
        off += Math.abs(ready.bpm / t.ready - 1);
        asked++;
      }
      known = learnt(known, [of(t)]);
    });
  }
  it('are clean as often as is expected of them after ten tries', () => {
    const { slope, height } = calibrated(points);
    expect(slope).toBeGreaterThan(0.9);
    expect(slope).toBeLessThan(1.1);
    expect(Math.abs(height)).toBeLessThan(0.1);
  });
  it('and as often on the first try after a week or more off', () => {
    expect(after.length).toBeGreaterThan(500);
    expect(Math.abs(calibrated(after).height)).toBeLessThan(0.25);
  });
  it('are foreseen nearly as well as by one who knows them', () =>
    expect(own / many).toBeLessThan(oracle / many + 0.02));
  it('are ready within four per cent after thirty tries, and four of five within the interval', () => {
    expect(off / asked).toBeLessThan(0.04);
    expect(inside / asked).toBeGreaterThan(0.75);
    expect(inside / asked).toBeLessThan(0.85);
  });
});

const belief = fc.record({
  mean: fc.double({ min: Math.log(40), max: Math.log(260), noNaN: true }),
  variance: fc.double({ min: 1e-4, max: 0.1, noNaN: true }),
});

describe('a belief', () => {
  it('after a try is what Bayes’ rule says on a fine grid', () => {
    fc.assert(
      fc.property(belief, fc.integer({ min: 40, max: 260 }), fc.boolean(), (b: Belief, bpm, clean) => {
        // Far from what is believed the try says nothing new, or all but breaks the belief.
        fc.pre(Math.abs(Math.log(bpm) - b.mean) < 3 * Math.sqrt(b.variance));
        let [sum, first, second] = [0, 0, 0];
        const sd = Math.sqrt(b.variance);
        for (let x = b.mean - 8 * sd; x <= b.mean + 8 * sd; x += sd / 200) {
          const p = 1 / (1 + Math.exp((Math.log(bpm) - x) / 0.052));
          const mass = Math.exp(-((x - b.mean) ** 2) / (2 * b.variance)) * (clean ? p : 1 - p);
          [sum, first, second] = [sum + mass, first + mass * x, second + mass * x * x];
        }
        const mean = first / sum;
        const after = afterTry(b, { bpm, clean, weight: 1 });
        expect(Math.abs(after.mean - mean)).toBeLessThan(0.02 * sd + 1e-6);
        expect(Math.sqrt(after.variance)).toBeCloseTo(Math.sqrt(Math.max(0, second / sum - mean * mean)), 2);
      }),
      { numRuns: 150 },
    );
  });
  it('rises by a clean try and falls by a messy one, never becomes less sure by it, and less weight says less', () => {
    fc.assert(
      fc.property(belief, fc.integer({ min: 30, max: 300 }), (b: Belief, bpm) => {
        const [clean, messy] = [true, false].map((c) => afterTry(b, { bpm, clean: c, weight: 1 }));
        const part = afterTry(b, { bpm, clean: true, weight: 0.3 });
        expect(clean!.mean).toBeGreaterThanOrEqual(b.mean - 1e-9);
        expect(messy!.mean).toBeLessThanOrEqual(b.mean + 1e-9);
        expect(Math.max(clean!.variance, messy!.variance)).toBeLessThanOrEqual(b.variance * 1.001);
        expect(part.mean).toBeLessThanOrEqual(clean!.mean + 1e-9);
        expect([clean, messy].every((x) => Number.isFinite(x!.mean) && x!.variance > 0)).toBe(true);
      }),
    );
  });
  it('gives a chance that falls with the tempo, and the tempo of a chance is where it is met', () => {
    fc.assert(
      fc.property(belief, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (b: Belief, chance) => {
        expect(chanceAt(b, tempoAt(b, chance))).toBeCloseTo(chance, 9);
        expect(chanceAt(b, 100)).toBeGreaterThan(chanceAt(b, 101));
        const { bpm, low, high } = readyTempo(b);
        expect(low < bpm && bpm < high).toBe(true);
        expect(chanceAt(b, bpm)).toBeCloseTo(0.8, 9);
      }),
    );
  });
  it('says which rung is worth trying: the first between three and four of five', () => {
    const b = { mean: Math.log(100), variance: 0.0004 };
    const rungs = [70, 76, 82, 88, 94, 100, 106];
    // The same by hand.
    const wide = Math.sqrt(0.052 ** 2 + (Math.PI * 0.0004) / 8);
    const p = rungs.map((bpm) => 1 / (1 + Math.exp((Math.log(bpm) - b.mean) / wide)));
    rungs.forEach((bpm, i) => expect(chanceAt(b, bpm)).toBeCloseTo(p[i]!, 12));
    expect(rungs[worthTrying(p)!]).toBe(94);
    expect(worthTrying([0.95, 0.5])).toBeNull();
    expect(worthTrying([])).toBeNull();
  });
});

describe('time', () => {
  const known = learnt(
    unknownYet(120, 20_000),
    [80, 84, 88, 92].map((bpm) => ({ day: 20_000, bpm, clean: true, weight: 1 })),
  );
  it('makes less sure and takes away what is forgotten, up to what would be believed without any try', () => {
    let before = known.belief;
    for (const gone of [1, 3, 10, 30, 100, 1000, 100_000]) {
      const now = onDay(known, 20_000 + gone);
      expect(now.mean).toBeLessThan(before.mean + 1e-12);
      expect(now.variance).toBeGreaterThanOrEqual(before.variance);
      expect(now.variance).toBeLessThanOrEqual(known.before.variance);
      expect(now.mean).toBeGreaterThan(known.belief.mean - 0.02 - 30 * 0.004 - 1e-9);
      before = now;
    }
  });
  it('set back changes nothing, and tries from the future and the past come to a belief', () => {
    expect(onDay(known, 19_000)).toBe(known.belief);
    const odd = learnt(
      known,
      [30_000, 5, 0, 29_000].map((day) => ({ day, bpm: 90, clean: true, weight: 1 })),
    );
    expect(odd.memory.lastDay).toBe(30_000);
    expect(odd.tries).toBe(8);
    expect(odd.days).toBe(2);
    expect(Number.isFinite(odd.belief.mean)).toBe(true);
  });
  it('one day in parts is one day', () => {
    const tries = [80, 84, 88].map((bpm, i) => ({ day: 20_001, bpm, clean: i !== 1, weight: 1 }));
    const [whole, parts] = [learnt(known, tries), tries.reduce((k, t) => learnt(k, [t]), known)];
    // Whether it is another day than expected is weighed by its first part only.
    expect(parts.belief.mean).toBeCloseTo(whole.belief.mean, 3);
    expect(parts.days).toBe(whole.days);
  });
  it('a memory fades by the day and holds longer the oftener it was called up', () => {
    let m = newMemory(20_000);
    expect(recall(m, 20_000)).toBe(0);
    m = remembered(m, 20_000, 3);
    const once = recall(m, 20_010);
    expect(recall(m, 20_000)).toBeCloseTo(1, 6);
    expect(recall(m, 20_005)).toBeGreaterThan(once);
    m = remembered(remembered(m, 20_003, 3), 20_010, 3);
    expect(recall(m, 20_020)).toBeGreaterThan(once);
    expect(recall(remembered(m, 1, 1), 20_010)).toBeLessThanOrEqual(1);
  });
});

describe('the player’s own share of their ceilings', () => {
  it('is the usual one before any try, and is found from many phrases', () => {
    expect(shareOf([])).toEqual({
      mean: USUAL_SHARE.mean,
      variance: expect.closeTo(USUAL_SHARE.variance, 12) as number,
    });
    const roll = dice(5);
    for (const share of [0.6, 0.8, 1.05]) {
      const said = Array.from({ length: 40 }, () => {
        const { ceiling, tries } = learner(roll, 12, share * Math.exp(0.05 * bell(roll)));
        return { ceiling, known: learnt(unknownYet(ceiling, 20_000), tries.map(of)) };
      });
      const found = shareOf(said);
      expect(Math.abs(found.mean - Math.log(share))).toBeLessThan(0.15);
      expect(found.variance).toBeLessThan(USUAL_SHARE.variance / 5);
      // A phrase that was never tried is foreseen by it.
      expect(beforeAnyTry(100, found).mean).toBeCloseTo(Math.log(100) + found.mean, 12);
    }
  });
});

describe('a phrase under another ceiling or share', () => {
  const roll = dice(9);
  const all = Array.from({ length: 60 }, () => {
    const { ceiling, tries } = learner(roll, 12, 0.62 * Math.exp(0.05 * bell(roll)));
    return { ceiling, tries, known: learnt(unknownYet(ceiling, 20_000), tries.map(of)) };
  });
  const share = shareOf(all);
  it('is what its tries would have come to under it', () => {
    let off = 0;
    for (const { ceiling, tries, known } of all) {
      const own = shareWithout(share, { ceiling, known });
      const anew = learnt(unknownYet(ceiling, 20_000, own), tries.map(of));
      const turned = knownUnder(known, ceiling, own);
      expect(turned.before.mean).toBeCloseTo(Math.log(ceiling) + own.mean, 12);
      expect(turned.belief.variance).toBeLessThan(turned.before.variance);
      off += Math.abs(turned.belief.mean - anew.belief.mean);
    }
    expect(off / all.length).toBeLessThan(0.02);
  });
  it('says to itself only what the others said', () => {
    for (const one of all.slice(0, 8)) {
      const others = shareOf(all.filter((o) => o !== one));
      const without = shareWithout(share, one);
      expect(without.mean).toBeCloseTo(others.mean, 9);
      expect(without.variance).toBeCloseTo(others.variance, 9);
    }
  });
  it('with no tries is what is believed before any, and a new phrase is foreseen nearer by the share', () => {
    const fresh = unknownYet(100, 20_000);
    expect(knownUnder(fresh, 150, share).belief).toEqual(beforeAnyTry(150, share));
    let [usual, own] = [0, 0];
    for (let i = 0; i < 200; i++) {
      const { ceiling, tries } = learner(roll, 1, 0.62);
      const truth = Math.log(tries[0]!.ready);
      usual += Math.abs(beforeAnyTry(ceiling).mean - truth);
      own += Math.abs(beforeAnyTry(ceiling, share).mean - truth);
    }
    expect(own).toBeLessThan(0.7 * usual);
  });
});

describe('what a try says', () => {
  const at = (more: Partial<Attempt>): Attempt => ({
    id: '1',
    phrase: 'a',
    at: 3 * 864e5,
    bpm: 90,
    goal: 100,
    loops: 4,
    seconds: 9,
    verdict: 'clean',
    ...more,
  });
  const weight = (more: Partial<Attempt>): number | null => evidenceOf(at(more), (t) => t / 864e5)?.weight ?? null;
  const measured = { all: 4, hit: 4 } as unknown as NonNullable<Attempt['measured']>;
  it('is most of the whole phrase or in context, measured; nothing where no player played', () => {
    expect([
      weight({ measured, source: 'midi' }),
      weight({}),
      weight({ drilled: { id: 's', kind: 'context', bars: 3, family: 'fill' } }),
      weight({ drilled: { id: 's', kind: 'whole' } }),
      weight({ drilled: { id: 's', kind: 'part', part: { of: 'half', half: 1 } } }),
      weight({ source: 'simulated', measured }),
      weight({ source: 'keys', measured }),
    ]).toEqual([1, 0.8, 0.8, 0.8, expect.closeTo(0.24, 9), null, null]);
    expect(evidenceOf(at({ verdict: 'messy' }), (t) => t / 864e5)).toEqual({
      day: 3,
      bpm: 90,
      clean: false,
      weight: 0.8,
    });
  });
});
