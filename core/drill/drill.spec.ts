import fc from 'fast-check';
import {
  bestOf,
  drillPass,
  drillStep,
  drillTempo,
  fixedLadder,
  isRunning,
  lastWords,
  MOST_RUNGS,
  newDrill,
  resumed,
  suggestLadder,
  warningWords,
  type DrillEvent,
  type DrillState,
} from '.';
import { happening } from '../testing/drilling';

const plan = { start: 60, goal: 84, step: 10, loops: 2 };
type Simple = Exclude<DrillEvent['kind'], 'isolate' | 'stage' | 'stay' | 'down'>;
const play = (state: DrillState, ...kinds: Simple[]): DrillState =>
  kinds.reduce((s, kind, i) => drillStep(s, happening(kind, 1000 * (i + 1))), state);
const fresh = newDrill('d', 'p', plan);
const cleanRung = ['counted-in', 'loop', 'loop', 'clean'] as const;
const messyTry = ['counted-in', 'loop', 'messy'] as const;

describe('ladders', () => {
  it.each([
    [60, 84, 10, [60, 70, 80, 84]],
    [60, 80, 10, [60, 70, 80]],
    [100, 80, 5, [80]],
    [0, 30, 5, [20, 25, 30]],
  ])('%d to %d by %d', (start, goal, step, rungs) => expect(fixedLadder(start, goal, step)).toEqual(rungs));
  it('any ladder rises, ends at the goal and has at most 60 rungs', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 400, noNaN: true }),
        fc.double({ min: 20, max: 400, noNaN: true }),
        fc.integer({ min: 1, max: 50 }),
        (a, b, step) => {
          const rungs = fixedLadder(a, b, step);
          expect(rungs.at(-1)).toBe(b);
          expect(rungs.length).toBeLessThanOrEqual(MOST_RUNGS);
          expect(rungs.every((r, i) => i === 0 || r > (rungs[i - 1] ?? 0))).toBe(true);
        },
      ),
    );
  });
  it('the suggested start is never above the last clean tempo nor the goal', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), fc.option(fc.integer({ min: 20, max: 400 })), (goal, last) => {
        const { start, step } = suggestLadder(goal, last);
        expect(start).toBeLessThanOrEqual(Math.max(20, Math.min(goal, last ?? goal)));
        expect(step).toBeGreaterThanOrEqual(1);
        // What is believed of the player goes before all that, within the bounds.
        for (const sure of [5, 63.7, 1000]) {
          const known = suggestLadder(goal, last, null, sure);
          expect(known.start).toBe(Math.max(20, Math.min(goal, Math.floor(sure))));
          expect(known.step).toBeGreaterThanOrEqual(1);
        }
      }),
    );
  });
});

describe('the drill', () => {
  it('runs from start to goal on clean rungs', () => {
    const end = play(fresh, 'start', ...cleanRung, ...cleanRung, ...cleanRung, ...cleanRung);
    expect(end.phase).toBe('done');
    expect(end.attempts.map((a) => [a.bpm, a.verdict])).toEqual([60, 70, 80, 84].map((bpm) => [bpm, 'clean']));
  });
  it('asks only when the loops were played, and clean before that counts when they are', () => {
    expect(play(fresh, 'start', 'counted-in', 'loop', 'clean').rung).toBe(0);
    expect(play(fresh, 'start', 'counted-in', 'loop', 'clean', 'loop').rung).toBe(1);
    expect(play(fresh, 'start', 'counted-in', 'loop', 'loop').phase).toBe('judging');
  });
  it('messy takes back a clean that came too early', () =>
    expect(play(fresh, 'start', 'counted-in', 'loop', 'clean', 'messy', 'counted-in', 'loop', 'loop')).toMatchObject({
      phase: 'judging',
      messy: 1,
    }));
  it('two messy tries go one rung down', () => {
    const up = play(fresh, 'start', ...cleanRung);
    expect(drillTempo(play(up, ...messyTry))).toBe(70);
    expect(drillTempo(play(up, ...messyTry, ...messyTry))).toBe(60);
    expect(drillTempo(play(up, ...messyTry, ...messyTry, ...messyTry, ...messyTry))).toBe(60);
  });
  it('a clean try between forgives', () =>
    expect(play(fresh, 'start', ...cleanRung, ...messyTry, ...cleanRung, ...messyTry)).toMatchObject({
      rung: 2,
      messy: 1,
    }));
  it('pausing forgets the try, not the rung; stopping can be taken up again', () => {
    const up = play(fresh, 'start', ...cleanRung, 'counted-in', 'loop', 'pause');
    expect(up).toMatchObject({ phase: 'ready', rung: 1, loops: 0 });
    expect(play(up, 'stop', 'start')).toMatchObject({ phase: 'count-in', rung: 1 });
  });
  it('an attempt knows how long it took', () =>
    expect(play(fresh, 'start', 'counted-in', 'loop', 'loop', 'clean').attempts[0]?.seconds).toBe(3));

  it('what a messy try brings is said as it is: again, a rung down, or once more on the lowest', () => {
    const wave = newDrill('d', 'p', { start: 60, goal: 90, step: 10, loops: 2, ladder: 'wave' });
    const fail = (state: DrillState): DrillState => play(state, ...messyTry);
    const begun = play(wave, 'start');
    expect([lastWords(begun), warningWords(begun)]).toEqual(['', null]);
    const once = fail(begun);
    expect(lastWords(once)).toBe('Messy at 60: try again.');
    expect(warningWords(once)).toBe('one messy try; this is the lowest rung');
    const twice = fail(once);
    expect(lastWords(twice)).toBe('Messy again at 60, the lowest rung: once more.');
    expect(warningWords(twice)).toBeNull();
    // In a wave a rung lower may be faster: it is said by the rung and not by the tempo.
    const up = { ...begun, rung: 3, attempts: [] };
    expect(up.rungs.slice(2, 4)).toEqual([80, 70]);
    const first = fail(up);
    expect([lastWords(first), warningWords(first)]).toEqual([
      'Messy at 70: try again.',
      'one messy try; another goes a rung down',
    ]);
    expect(lastWords(fail(first))).toBe('Two messy tries at 70: one rung down.');
    // Gone down by hand after one.
    expect(lastWords(drillStep(first, { kind: 'down' }))).toBe('Messy at 70: one rung down.');
  });
  it('a drill with passes holds each rung soft, medium and loud; messy repeats the pass, a rung down begins with soft', () => {
    const soft = newDrill('d', 'p', { ...plan, passes: true });
    expect(drillPass(fresh)).toBeNull();
    expect(drillPass(soft)).toBe('soft');
    const medium = play(soft, 'start', ...cleanRung);
    expect([drillPass(medium), medium.rung]).toEqual(['medium', 0]);
    expect(drillPass(play(medium, ...messyTry))).toBe('medium');
    const up = play(medium, ...cleanRung, ...cleanRung);
    expect([drillPass(up), up.rung]).toEqual(['soft', 1]);
    expect(up.attempts.map((a) => a.dynamic)).toEqual(['soft', 'medium', 'loud']);
    const down = play(up, ...cleanRung, ...messyTry, ...messyTry);
    expect([drillPass(down), down.rung]).toEqual(['soft', 0]);
    expect(drillPass(drillStep(play(up, ...cleanRung), { kind: 'down' }))).toBe('soft');
  });

  const kinds: readonly Simple[] = [
    'start',
    'counted-in',
    'loop',
    'clean',
    'messy',
    'pause',
    'stop',
    'loop',
    'loop',
    'counted-in',
  ];
  const anyEvents = fc.array(fc.constantFrom(...kinds), { maxLength: 120 });
  it('whatever happens: on the ladder, never up without its loops, replayed the same, resumed at its rung', () => {
    fc.assert(
      fc.property(anyEvents, (kinds) => {
        let state = fresh;
        for (const [i, kind] of kinds.entries()) {
          const next = drillStep(state, happening(kind, i));
          expect(next.rungs).toContain(drillTempo(next));
          if (next.rung > state.rung) {
            expect(next.rung).toBe(state.rung + 1);
            expect(next.attempts.at(-1)).toMatchObject({ verdict: 'clean', bpm: drillTempo(state) });
            expect(next.attempts.at(-1)?.loops).toBeGreaterThanOrEqual(plan.loops);
          }
          const back = resumed(JSON.parse(JSON.stringify(next)) as DrillState);
          expect(isRunning(back.phase)).toBe(false);
          expect([back.rung, back.attempts]).toEqual([next.rung, next.attempts]);
          state = next;
        }
        // A try has the name that came with what ended it, and no two of a drill have one.
        expect(state.attempts.map((a) => a.id)).toEqual(state.attempts.map((a) => `try-${a.at}`));
        expect(new Set(state.attempts.map((a) => a.id)).size).toBe(state.attempts.length);
        expect(play(fresh, ...kinds).rung).toBe(state.rung);
      }),
    );
  });
});

describe('a drill with passes', () => {
  const anyEvents = fc.array(
    fc.constantFrom<Simple>(
      'start',
      'counted-in',
      'loop',
      'loop',
      'loop',
      'clean',
      'clean',
      'messy',
      'pause',
      'counted-in',
    ),
    { maxLength: 200 },
  );
  it('whatever happens, it goes up only when soft, medium and loud were clean on the rung, in that order', () => {
    fc.assert(
      fc.property(anyEvents, (events) => {
        let state = newDrill('d', 'p', { ...plan, passes: true });
        for (const [i, kind] of events.entries()) {
          const next = drillStep(state, happening(kind, i));
          if (next.rung > state.rung) {
            const clean = next.attempts.filter((a) => a.verdict === 'clean').slice(-3);
            expect(clean.map((a) => [a.dynamic, a.bpm])).toEqual(
              ['soft', 'medium', 'loud'].map((d) => [d, drillTempo(state)]),
            );
            expect(drillPass(next)).toBe('soft');
          }
          expect(resumed(JSON.parse(JSON.stringify(next)) as DrillState).pass).toBe(next.pass);
          state = next;
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('the record', () => {
  it('best is the highest clean tempo, last the newest, in whatever order they come', () => {
    const base = { phrase: 'p', goal: 100, loops: 4, seconds: 10 };
    const log = [
      { ...base, id: '2', at: 20, bpm: 90, verdict: 'clean' as const },
      { ...base, id: '3', at: 30, bpm: 70, verdict: 'clean' as const },
      { ...base, id: '1', at: 10, bpm: 100, verdict: 'messy' as const },
    ];
    expect(bestOf(log)).toMatchObject({ clean: 90, lastClean: 70, attempts: 3, lastAt: 30, cleanAt: 30 });
  });
});
