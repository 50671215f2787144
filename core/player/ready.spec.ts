import fc from 'fast-check';
import { bestOf, type Attempt } from '../drill';
import {
  chanceAt,
  learnt,
  onDay,
  practised,
  readySaid,
  readyTempo,
  unknownYet,
  wholesOf,
  type DatedTry,
  type ReadySaid,
} from '.';

// Ten players as a teacher would meet them, day by day, and what may be said of each; then the rule by itself.

type Said = 'clean' | 'messy';
interface Played {
  readonly day: number;
  readonly bpm: number;
  readonly said: Said;
  readonly stage?: 'bare' | 'skeleton' | 'context';
  readonly source?: string;
}
const play = (day: number, bpm: number, ...said: readonly Said[]): Played[] => said.map((s) => ({ day, bpm, said: s }));
const DAY = 24 * 60 * 60 * 1000;
const attempts = (played: readonly Played[]): Attempt[] =>
  played.map(({ day, bpm, said, stage, source }, i) => ({
    id: `t${i}`,
    phrase: 'p',
    at: day * DAY + i * 60_000,
    bpm,
    goal: 120,
    loops: 4,
    seconds: 30,
    verdict: said,
    ...(stage ? { drilled: { id: stage, kind: stage } } : {}),
    ...(source === undefined ? {} : { source }),
  }));
const dayOf = (at: number): number => Math.floor(at / DAY);

/** What is said after all of it, and the tries it may rest on. */
function after(
  played: readonly Played[],
  ceiling = 200,
): { readonly said: ReadySaid | null; readonly best: number | null } {
  const tries = attempts(played);
  const today = Math.max(...played.map((p) => p.day));
  const found = practised(tries, ceiling, today, dayOf);
  return {
    said: found && readySaid(onDay(found.known, today), wholesOf(found.days), ceiling),
    best: bestOf(tries).clean,
  };
}
const bpm = (said: ReadySaid | null): number | null => (said?.kind === 'ready' ? said.bpm : null);
const clean = (n: number): Said[] => Array.from({ length: n }, () => 'clean');

describe('ten players, and what a teacher would sign', () => {
  it('one clean loop each at 60, 80 and 120: too early to say', () => {
    const { said } = after([...play(1, 60, 'clean'), ...play(1, 80, 'clean'), ...play(1, 120, 'clean')]);
    expect(said).toMatchObject({ kind: 'early', days: 2 });
  });
  it('five tries of the skeleton in half a minute: nothing of the whole is said, and no best is told', () => {
    const { said, best } = after(play(1, 88, ...clean(5)).map((p) => ({ ...p, stage: 'skeleton' as const })));
    expect(said).toEqual({ kind: 'early', tries: 6, days: 3 });
    expect(best).toBeNull();
  });
  it('never above 180, messy once in three there: below 180', () => {
    const days = [1, 2, 3, 4].flatMap((d) => [
      ...play(d, 165, ...clean(2)),
      ...play(d, 180, 'clean', 'messy', 'clean'),
    ]);
    const told = bpm(after(days, 400).said)!;
    expect(told).toBeLessThan(180);
    expect(told).toBeGreaterThan(150);
  });
  it('clean at 100 for three days and no faster: at most 106', () => {
    const told = bpm(after([1, 2, 3].flatMap((d) => play(d, 100, ...clean(4)))).said)!;
    expect(told).toBeLessThanOrEqual(106);
    expect(told).toBeGreaterThanOrEqual(90);
  });
  it('as much clean as one likes never goes above the ceiling', () => {
    expect(
      bpm(
        after(
          [1, 2, 3, 4].flatMap((d) => play(d, 110, ...clean(8))),
          104,
        ).said,
      )!,
    ).toBeLessThanOrEqual(104);
  });
  it('six tries on one day are too few days; three days of one try are too few tries', () => {
    expect(after(play(1, 90, ...clean(9))).said).toMatchObject({ kind: 'early', tries: 0, days: 2 });
    expect(after([1, 2, 3].flatMap((d) => play(d, 90, 'clean'))).said).toMatchObject({
      kind: 'early',
      tries: 3,
      days: 0,
    });
  });
  it('slow tries say nothing of a tempo far above them', () => {
    const far = after(
      [1, 2, 3].flatMap((d) => play(d, 50, ...clean(3))),
      300,
    ).said;
    // What is said lies near what was tried.
    expect(bpm(far) ?? 0).toBeLessThanOrEqual(53);
  });
  it('a program for weeks, and the player not once: nothing', () => {
    const { said, best } = after(
      [1, 2, 3, 4].flatMap((d) => play(d, 132, ...clean(4))).map((p) => ({ ...p, source: 'simulated' })),
    );
    expect([said, best]).toEqual([null, null]);
  });
  it('a program beside the player moves nothing that is said of the player', () => {
    const own = [1, 2, 3].flatMap((d) => play(d, 96, 'clean', 'clean', 'messy'));
    const beside = [1, 2, 3].flatMap((d) => play(d, 190, ...clean(6)).map((p) => ({ ...p, source: 'simulated' })));
    const both = [...own, ...beside].sort((a, b) => a.day - b.day);
    expect(after(both)).toEqual(after(own));
  });
  it('messy at the goal day after day: what is said stays below it', () => {
    const days = [1, 2, 3, 4].flatMap((d) => [...play(d, 90, ...clean(3)), ...play(d, 120, 'messy', 'messy')]);
    const told = bpm(after(days).said)!;
    expect(told).toBeLessThan(120);
    expect(told).toBeGreaterThanOrEqual(80);
  });
});

describe('what is said to be ready, whatever was played', () => {
  const anyTries = fc.array(
    fc.record({ day: fc.integer({ min: 0, max: 12 }), bpm: fc.integer({ min: 40, max: 240 }), clean: fc.boolean() }),
    { maxLength: 40 },
  );
  it('is told only with six tries on three days within a third of it, and never beyond what was tried or the ceiling', () => {
    fc.assert(
      fc.property(anyTries, fc.integer({ min: 50, max: 260 }), (list, ceiling) => {
        const tries = [...list].sort((a, b) => a.day - b.day);
        const known = learnt(
          unknownYet(ceiling, 0),
          tries.map((t): DatedTry => ({ ...t, weight: 1 })),
        );
        const said = readySaid(known.belief, tries, ceiling);
        if (said.kind === 'early') {
          expect(said.tries + said.days).toBeGreaterThan(0);
          return;
        }
        let near = 0;
        const days = new Set<number>();
        let fastest = 0;
        for (const t of tries) {
          fastest = Math.max(fastest, t.bpm);
          if (3 * Math.abs(t.bpm - said.bpm) > said.bpm) continue;
          near++;
          days.add(t.day);
        }
        expect(near).toBeGreaterThanOrEqual(6);
        expect(days.size).toBeGreaterThanOrEqual(3);
        expect(said.bpm).toBeLessThanOrEqual(1.06 * fastest);
        expect(said.bpm).toBeLessThanOrEqual(ceiling);
        expect(said.bpm).toBeLessThanOrEqual(readyTempo(known.belief).bpm);
        expect([said.low <= said.bpm, said.bpm <= said.high]).toEqual([true, true]);
      }),
      { numRuns: 400 },
    );
  });
  it('a messy try at a tempo never makes it likelier', () => {
    fc.assert(
      fc.property(anyTries, fc.integer({ min: 40, max: 240 }), (list, at) => {
        const tries = [...list].sort((a, b) => a.day - b.day).map((t): DatedTry => ({ ...t, weight: 1 }));
        const before = learnt(unknownYet(150, 0), tries);
        const then = learnt(before, [{ day: 12, bpm: at, clean: false, weight: 1 }]);
        const without = onDay(before, 12);
        fc.pre(before.memory.lastDay === 12);
        expect(chanceAt(then.belief, at)).toBeLessThanOrEqual(chanceAt(without, at) + 1e-9);
      }),
      { numRuns: 300 },
    );
  });
});
