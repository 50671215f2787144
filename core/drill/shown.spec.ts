import fc from 'fast-check';
import { bestOf, fastestClean, SHOWN_FOR, shownTempo, type Attempt } from '.';

const attempt = (n: number, part: Partial<Attempt>): Attempt => ({
  id: String(n),
  phrase: 'a',
  at: n,
  bpm: 80,
  goal: 120,
  loops: 4,
  seconds: 9,
  verdict: 'clean',
  ...part,
});
const MEASURED = { mean: 0, spread: 4, missed: 0, extra: 0, strokes: 16, drift: 0, limbs: [] };

/** The same by its definition: over all tries, the fastest tempo that enough of them reached. */
function byHand(tries: readonly Attempt[], changed: number, now: number): number | null {
  let best: number | null = null;
  for (const t of tries) {
    let [reached, measured] = [0, 0];
    for (const o of tries) {
      if (
        o.verdict !== 'clean' ||
        (o.drilled !== undefined && o.drilled.kind !== 'whole') ||
        o.source === 'keys' ||
        o.source === 'simulated'
      )
        continue;
      if (o.at < changed || o.at < now - SHOWN_FOR || o.bpm < t.bpm) continue;
      reached++;
      if (o.source === 'midi') measured++;
    }
    if ((reached >= 2 || measured >= 1) && (best === null || t.bpm > best)) best = t.bpm;
  }
  return best;
}

describe('what tries show', () => {
  it('is the fastest tempo that one measured try or two by ear reached, in whatever order they come', () => {
    const day = 24 * 60 * 60 * 1000;
    const tries = fc.array(
      fc.record({
        day: fc.integer({ min: 0, max: 200 }),
        bpm: fc.integer({ min: 60, max: 75 }),
        verdict: fc.constantFrom('clean' as const, 'clean' as const, 'messy' as const),
        source: fc.constantFrom(undefined, undefined, 'midi', 'keys', 'microphone', 'simulated'),
        stage: fc.constantFrom(undefined, undefined, 'whole' as const, 'bare' as const),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(tries, fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 120 }), (all, now, changed) => {
        const given = all.map(({ day: d, bpm, verdict, source, stage }, i) =>
          attempt(i, {
            at: d * day,
            bpm,
            verdict,
            ...(source ? { source } : {}),
            ...(source === 'midi' ? { measured: MEASURED } : {}),
            ...(stage ? { drilled: { id: 's', kind: stage } } : {}),
          }),
        );
        // Only what is remembered decides: tries from the future, as of a clock set back, count as what they are.
        const found = shownTempo(bestOf(given).shown ?? [], changed * day, now * day);
        expect(found?.bpm ?? null).toBe(byHand(given, changed * day, now * day));
        const some = given.map((t, i) => (i % 3 === 0 ? { ...t, off: true as const } : t));
        expect(fastestClean(some)).toBe(bestOf(some).clean);
      }),
      { numRuns: 500 },
    );
  });
});
