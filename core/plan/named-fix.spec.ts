import type { Attempt } from '../drill';
import { namedFix } from '.';

const one = (id: number, fix: string | null, more: Partial<Attempt> = {}): Attempt => ({
  id: String(id),
  phrase: 'a',
  at: id,
  bpm: 90,
  goal: 100,
  loops: 4,
  seconds: 20,
  verdict: fix ? 'messy' : 'clean',
  ...(fix === null
    ? {}
    : { measured: { mean: 0, spread: 9, missed: 0, extra: 0, strokes: 16, drift: 0, limbs: [], fix } }),
  ...more,
});
const CLEAN = one(99, '', { verdict: 'clean' });

describe('the fix that was named most often', () => {
  it('is said in the words of the last time, with how often', () => {
    const tries = [
      one(1, 'The left hand drags 18 ms.'),
      one(2, 'The kick on 3 is left out 2 times.'),
      one(3, 'The left hand on 2& drags 12 ms.'),
    ];
    expect(namedFix(tries)).toEqual({ words: 'The left hand on 2& drags 12 ms.', stage: 'bare', times: 2 });
  });
  it('is none by ear, of silence, of nothing, and when it was clean at that tempo since', () => {
    expect(namedFix([])).toBeNull();
    expect(namedFix([one(1, null), one(2, null)])).toBeNull();
    expect(namedFix([one(1, 'Nothing was heard. Check what listens, and its latency.')])).toBeNull();
    const twice = [one(1, 'Uneven: strokes scatter by 21 ms.'), one(2, 'Uneven: strokes scatter by 19 ms.')];
    expect(namedFix([...twice, CLEAN])).toBeNull();
    expect(namedFix([...twice, { ...CLEAN, bpm: 80 }])?.times).toBe(2);
  });
  it('looks at the last tries only', () => {
    const old = Array.from({ length: 6 }, (_, i) => one(i, 'Uneven: strokes scatter by 21 ms.'));
    const since = Array.from({ length: 8 }, (_, i) =>
      one(10 + i, i < 2 ? '3 strokes too many.' : '', { verdict: i < 2 ? 'messy' : 'clean', bpm: 80 }),
    );
    expect(namedFix([...old, ...since])).toBeNull();
    expect(namedFix([...old, ...since.slice(0, 3)])?.words).toContain('Uneven');
  });
});
