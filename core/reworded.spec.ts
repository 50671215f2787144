// Nothing matches the project's own prose: with every sentence about findings and stages reworded, all that counts,
// plans and remembers comes out the same.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

jest.mock('./take/finding-words', () => ({ FIX_NAMES: {}, findingWords: () => 'Reworded.' }));
jest.mock('./drill/stage-words', () => ({ stageTitle: () => 'Reworded', stageWhy: () => 'Reworded.' }));

import { bestOf, isStuck, modernAttempt, type Attempt, type KeptFinding } from './drill';
import { readShelf } from './formats/shelf-file';
import { failKinds, failsByTempo } from './log';
import { namedFix } from './plan';
import { evidenceOf } from './player';
import { findingWords } from './take';

const FINDINGS: readonly KeptFinding[] = [
  { kind: 'limb', limb: 'L', off: 18, stroke: null },
  { kind: 'drift', off: 60 },
  { kind: 'left-out', stroke: null, times: 2 },
  { kind: 'limb', limb: 'R', off: 12, stroke: null },
];
const one = (i: number, more: Partial<Attempt> = {}): Attempt => ({
  id: String(i),
  phrase: 'a',
  at: i,
  bpm: 90,
  goal: 100,
  loops: 4,
  seconds: 20,
  verdict: 'messy',
  source: 'midi',
  measured: {
    ...{ mean: 0, spread: 9, missed: 0, extra: 0, strokes: 16, drift: 0, limbs: [] },
    finding: FINDINGS[i % FINDINGS.length]!,
  },
  ...more,
});

describe('with every sentence reworded', () => {
  const tries = Array.from({ length: 8 }, (_, i) => one(i));
  it('they are', () => expect(findingWords(FINDINGS[0]!)).toBe('Reworded.'));
  it('why rungs fail is counted by kind', () =>
    expect(failKinds(failsByTempo(tries))).toEqual([
      { kind: 'late', times: 4 },
      { kind: 'left-out', times: 2 },
      { kind: 'tempo', times: 2 },
    ]));
  it('what goes wrong most is planned for', () => expect(namedFix(tries)).toEqual({ finding: FINDINGS[3], times: 4 }));
  it('whole, part and context weigh what they weigh', () => {
    const weight = (drilled: Attempt['drilled']): number | undefined =>
      evidenceOf(one(1, drilled ? { drilled } : {}), () => 0)?.weight;
    expect([
      weight(undefined),
      weight({ id: 'w', kind: 'whole' }),
      weight({ id: 'c', kind: 'context', bars: 3 }),
      weight({ id: 'b', kind: 'bare' }),
    ]).toEqual([1, 1, 1, 0.3]);
    const clean = one(1, { verdict: 'clean' });
    expect(bestOf([{ ...clean, drilled: { id: 'b', kind: 'bare' } }]).shown).toBeUndefined();
    expect(bestOf([{ ...clean, drilled: { id: 'w', kind: 'whole' } }]).shown).toHaveLength(1);
  });
  it('who is stuck in a stage is stuck, whatever the stages are called', () => {
    const plan = {
      ...{ start: 90, goal: 100, step: 10, loops: 1 },
      stages: [
        { id: 'a', kind: 'bare' as const, short: false },
        { id: 'b', kind: 'bare' as const, short: false },
      ],
    };
    const drilled = { id: 'a', kind: 'bare' as const };
    const state = {
      ...{ id: 'd', phrase: 'a', plan, rungs: [90, 100], rung: 0, phase: 'ready' as const, loops: 0, early: false },
      ...{ messy: 0, tryBegan: null },
      attempts: [1, 2, 3].map((i) => one(i, { drilled })),
    };
    expect([isStuck({ ...state, stage: 0 }), isStuck({ ...state, stage: 1 })]).toEqual([true, false]);
  });
  it('rows from before are read by the words of then', () => {
    expect(
      modernAttempt({ id: '1', stage: 'The whole phrase', measured: { fix: 'It runs away by 60 ms a minute.' } }),
    ).toEqual({
      id: '1',
      drilled: { id: 'earlier', kind: 'whole' },
      measured: {
        finding: { kind: 'earlier', words: 'It runs away by 60 ms a minute.', fix: 'tempo', stage: 'steady-foot' },
      },
    });
    const read = readShelf(readFileSync(join(__dirname, 'testing/shelves/version-2.json'), 'utf8'));
    expect(read.ok && failKinds(failsByTempo(read.value.contents.attempts)).length).toBe(10);
  });
});
