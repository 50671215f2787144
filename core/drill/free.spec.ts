import { happening } from '../testing/drilling';
import { GRID, meter, parseMeter, barTicks } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import {
  drillStep,
  isFree,
  newDrill,
  promptFor,
  simpleStage,
  stagePattern,
  stageRungs,
  type DrillState,
  type Stage,
} from '.';

const free: Stage = { ...simpleStage('free'), id: 'f' };
const phrase = (text: string, m = '4/4'): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], parseMeter(m) ?? meter(4, 4), GRID.sixteenths);
};

describe('free play', () => {
  it.each(['4/4', '3/4', '6/8', '7/8', '5/4'])('in %s is bars of time, then as many without a stroke', (m) => {
    const p = phrase('R l l R K R l l', m);
    const bar = barTicks(p.meter);
    for (const bars of [1, 2, 4]) {
      const open = stagePattern({ ...free, bars }, p);
      expect(open.length).toBe(2 * bars * bar);
      const struck = open.strokes.map((s) => s.at);
      expect(Math.max(...struck)).toBeLessThan(bars * bar);
      // Every bar of time has its 1.
      for (let b = 0; b < bars; b++) expect(struck).toContain(b * bar);
    }
    expect(stagePattern(free, p).length).toBe(4 * bar);
  });
  const plan = { start: 80, goal: 100, step: 10, loops: 2 };
  const run = (
    state: DrillState,
    ...kinds: ('start' | 'counted-in' | 'loop' | 'clean' | 'messy' | 'pause')[]
  ): DrillState => kinds.reduce((s, kind, i) => drillStep(s, happening(kind, 1000 * (i + 1))), state);
  it('goes on until the player has enough, at one tempo, and nothing of it is logged', () => {
    const two = newDrill('d', 'p', { ...plan, stages: [free, { ...simpleStage('whole'), id: 'w' }] });
    expect(two.rungs).toEqual([80]);
    expect(stageRungs(plan, free)).toEqual([80]);
    const playing = run(two, 'start', 'counted-in', 'loop', 'loop', 'loop', 'loop', 'messy', 'loop');
    expect([playing.phase, playing.loops, isFree(playing)]).toEqual(['playing', 5, true]);
    const next = run(playing, 'clean');
    expect([next.phase, next.stage, next.attempts.length, next.over]).toEqual(['ready', 1, 0, ['f']]);
    const last = run(newDrill('d', 'p', { ...plan, stages: [free] }), 'start', 'counted-in', 'loop', 'clean');
    expect([last.phase, last.attempts.length]).toEqual(['done', 0]);
    // What is paused waits; what is not running is not over.
    expect(run(playing, 'pause').phase).toBe('ready');
    expect(run(two, 'clean')).toBe(two);
  });
  it('says what may be tried, another thing every two turns, and names what is to be brought in', () => {
    const said = Array.from({ length: 64 }, (_, i) => promptFor(i, ['Cold rope', 'Kelp'], 4));
    said.forEach((words, i) => {
      expect(words).toBe(said[i - (i % 2)]);
      expect(words).toMatch(/^[A-Z].*\.$/);
      expect(words).not.toMatch(/[{}]|undefined/);
    });
    expect(new Set(said).size).toBeGreaterThan(8);
    expect(said.join()).toContain('Cold rope');
    expect(said.join()).toContain('Kelp');
    expect(promptFor(-5, [], 2)).toBe(promptFor(0, [], 2));
  });
});
