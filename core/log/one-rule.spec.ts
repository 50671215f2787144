import { bestOf, playedBy, type Attempt } from '../drill';
import { namedFix } from '../plan';
import { evidenceOf } from '../player';
import { failsByTempo, limbsByDay } from '.';

const DAY = 24 * 60 * 60 * 1000;
const dayOf = (at: number): number => Math.floor(at / DAY);
const attempt = (id: string, day: number, bpm: number, verdict: 'clean' | 'messy'): Attempt => ({
  id,
  phrase: 'p',
  at: day * DAY,
  bpm,
  goal: 120,
  loops: 4,
  seconds: 30,
  verdict,
});

describe('one rule of what was played', () => {
  const measured = {
    mean: 12,
    spread: 5,
    missed: 0,
    limbs: [{ limb: 'L' as const, mean: 12, spread: 5 }],
    finding: { kind: 'spread' as const, ms: 9 },
  };
  it('what a program or keys played is in no best, belief, fix, limb or cause', () => {
    const own = [attempt('a', 1, 90, 'clean'), attempt('b', 1, 90, 'messy')];
    for (const source of ['simulated', 'keys']) {
      const apart = [attempt('c', 1, 150, 'clean'), attempt('d', 2, 160, 'messy')].map((t): Attempt => ({
        ...t,
        id: `${source}${t.id}`,
        source,
        measured: measured as never,
      }));
      expect(apart.map((t) => evidenceOf(t, dayOf))).toEqual([null, null]);
      expect({ ...bestOf([...own, ...apart]), apart: 0 }).toEqual({ ...bestOf(own), apart: 0 });
      expect(bestOf([...own, ...apart]).apart).toBe(2);
      expect(namedFix(apart)).toBeNull();
      expect(limbsByDay(apart, dayOf)).toEqual([]);
      expect(failsByTempo([...own, ...apart])).toEqual(failsByTempo(own));
    }
    expect([{ source: 'midi' }, { source: 'microphone' }, {}].map(playedBy)).toEqual(['player', 'player', 'player']);
  });
});
