import type { Attempt, KeptFinding } from '../drill';
import { namedFix } from '.';

const one = (id: number, finding: KeptFinding | undefined | null, more: Partial<Attempt> = {}): Attempt => ({
  id: String(id),
  phrase: 'a',
  at: id,
  bpm: 90,
  goal: 100,
  loops: 4,
  seconds: 20,
  verdict: finding ? 'messy' : 'clean',
  ...(finding === null
    ? {}
    : {
        measured: {
          ...{ mean: 0, spread: 9, missed: 0, extra: 0, strokes: 16, drift: 0, limbs: [] },
          ...(finding && { finding }),
        },
      }),
  ...more,
});
const CLEAN = one(99, undefined, { verdict: 'clean' });

describe('the fix that was named most often', () => {
  it('is as it was named the last time, with how often', () => {
    const tries = [
      one(1, { kind: 'limb', limb: 'L', off: 18, stroke: null }),
      one(2, { kind: 'left-out', stroke: null, times: 2 }),
      one(3, { kind: 'shift', off: 12 }),
    ];
    // All of it late, and a limb late, are of one kind.
    expect(namedFix(tries)).toEqual({ finding: { kind: 'shift', off: 12 }, times: 2 });
  });
  it('is none by ear, of silence, of nothing, and when it was clean at that tempo since', () => {
    expect(namedFix([])).toBeNull();
    expect(namedFix([one(1, null), one(2, null)])).toBeNull();
    expect(namedFix([one(1, { kind: 'silence' })])).toBeNull();
    const twice = [one(1, { kind: 'uneven', spread: 21 }), one(2, { kind: 'uneven', spread: 19 })];
    expect(namedFix([...twice, CLEAN])).toBeNull();
    expect(namedFix([...twice, { ...CLEAN, bpm: 80 }])?.times).toBe(2);
  });
  it('looks at the last tries only', () => {
    const old = Array.from({ length: 6 }, (_, i) => one(i, { kind: 'uneven', spread: 21 }));
    const since = Array.from({ length: 8 }, (_, i) =>
      one(10 + i, i < 2 ? { kind: 'extra', many: 3 } : undefined, { verdict: i < 2 ? 'messy' : 'clean', bpm: 80 }),
    );
    expect(namedFix([...old, ...since])).toBeNull();
    expect(namedFix([...old, ...since.slice(0, 3)])?.finding.kind).toBe('uneven');
  });
});
