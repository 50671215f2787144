import { clamp, readFail, readOk, type Read } from '../base';
import { TEMPO } from '../time';

/** The most rungs a ladder may have. */
export const MOST_RUNGS = 60;

/** Ways to climb: steps in bpm, steps of a share, shares of the goal, three plateaus, two up and one back. */
export const LADDER_SCHOOLS = ['steps', 'percent', 'fractions', 'plateaus', 'wave'] as const;
export type LadderSchool = (typeof LADDER_SCHOOLS)[number];

/** What each is called, and what it does. */
export const LADDER_WORDS: Readonly<Record<LadderSchool, { readonly name: string; readonly words: string }>> =
  Object.freeze({
    steps: { name: 'Steps in bpm', words: 'So many bpm each time; the last step ends at the goal.' },
    percent: { name: 'Steps in percent', words: 'Small steps when slow, bigger when fast.' },
    fractions: { name: 'Shares of the goal', words: 'Half, two thirds, four fifths, nine tenths, the goal.' },
    plateaus: { name: 'Three plateaus', words: 'Slow, medium, at the goal.' },
    wave: { name: 'Two up, one back', words: 'Each tempo is met again with ease.' },
  });

/** A rung nearer to the goal than this share of the step before it, or than two beats a minute, is left out. */
const NEAR_GOAL = 1 / 3;

/** Rungs with the goal at their end, without one so near to it that it would be the goal twice. */
function closedBy(rungs: readonly number[], goal: number): readonly number[] {
  const [before, last] = [rungs.at(-2), rungs.at(-1)];
  const near = last !== undefined && goal - last < Math.max(2, (last - (before ?? last)) * NEAR_GOAL);
  return [...(near && rungs.length > 1 ? rungs.slice(0, -1) : rungs), goal];
}

/**
 * Tempos from start to goal in fixed steps; the last rung is always the goal, and no rung is almost the goal. A start
 * above the goal gives the goal alone. A step too small for the distance is widened until the ladder has at most 60
 * rungs.
 * @example
 * fixedLadder(60, 84, 10) // => [60, 70, 80, 84]
 * fixedLadder(60, 81, 10) // => [60, 70, 81]
 * fixedLadder(90, 80, 5) // => [80]
 */
export function fixedLadder(start: number, goal: number, step: number): readonly number[] {
  const [from, to] = bounds(start, goal);
  if (from >= to) return [to];
  const width = Math.max(step, 1, Math.ceil((to - from) / (MOST_RUNGS - 1)));
  const rungs: number[] = [];
  for (let bpm = from; bpm < to; bpm += width) rungs.push(bpm);
  return closedBy(rungs, to);
}

function bounds(start: number, goal: number): readonly [number, number] {
  return [clamp(start, TEMPO.least, TEMPO.most), clamp(goal, TEMPO.least, TEMPO.most)];
}

/**
 * The rungs of a ladder of any school. They begin at the start, end at the goal, never leave the span between, and rise
 * but for the wave, which steps back on its way. `step` is beats a minute for steps and the wave, and per cent for
 * the steps of a share; the other schools need none.
 * @example
 * ladder('percent', 60, 100, 20) // => [60, 72, 86, 100]
 * ladder('fractions', 50, 100, 0) // => [50, 67, 80, 90, 100]
 * ladder('plateaus', 60, 100, 0) // => [60, 80, 100]
 * ladder('wave', 60, 90, 10) // => [60, 70, 80, 70, 80, 90]
 */
export function ladder(school: LadderSchool, start: number, goal: number, step: number): readonly number[] {
  const [from, to] = bounds(start, goal);
  if (from >= to) return [to];
  switch (school) {
    case 'steps':
      return fixedLadder(from, to, step);
    case 'percent': {
      const by = 1 + clamp(step, 1, 100) / 100;
      const rungs: number[] = [];
      for (let bpm = from; Math.round(bpm) < to && rungs.length < MOST_RUNGS - 1; bpm = Math.max(bpm * by, bpm + 1))
        rungs.push(Math.round(bpm));
      return closedBy(rungs, to);
    }
    case 'fractions':
      return rising([from, ...[0.5, 2 / 3, 0.8, 0.9].map((share) => Math.round(to * share))], from, to);
    case 'plateaus':
      return rising([from, Math.round((from + to) / 2)], from, to);
    case 'wave': {
      const up = fixedLadder(from, to, Math.max(step, (2 * (to - from)) / (MOST_RUNGS - 2)));
      const wave = up.flatMap((bpm, i) =>
        i >= 2 && i % 2 === 0 && i < up.length - 1 ? [bpm, up[i - 1] ?? bpm, bpm] : [bpm],
      );
      return wave.slice(0, MOST_RUNGS - 1).concat(wave.length >= MOST_RUNGS ? [to] : wave.slice(MOST_RUNGS - 1));
    }
  }
}

function rising(rungs: readonly number[], from: number, to: number): readonly number[] {
  const own = [...new Set(rungs.filter((r) => r >= from && r < to))].sort((a, b) => a - b);
  // Two shares that meet are one rung.
  return closedBy(
    own.filter((r, i) => r - (own[i - 1] ?? -Infinity) >= 2),
    to,
  );
}

/** Rungs per session that feel like progress: about eight from start to goal. */
const RUNGS_WANTED = 8;

/** Where to begin and how wide to step, with the reason in words. */
export interface Suggestion {
  readonly start: number;
  readonly step: number;
  readonly why: string;
}

/**
 * Suggested start: `sure`, the tempo at which nine of ten are clean by what is believed of the player. Where that is
 * null, as before the first few tries: the lower of 60 % of the goal and 70 % of the ceiling, never above the last
 * clean tempo, rounded down to a multiple of 5, which is said. And a step that makes about eight rungs. `ceiling` is
 * null where nothing limits the phrase.
 * @example
 * suggestLadder(104, null) // => { start: 60, step: 5, why: 'a little under 60% of the goal.' }
 * suggestLadder(100, null) // => { start: 60, step: 5, why: '60% of the goal.' }
 * suggestLadder(104, 50) // => { start: 50, step: 6, why: 'your last clean tempo.' }
 * suggestLadder(104, null, 70) // => { start: 45, step: 7, why: 'a little under 70% of your ceiling.' }
 * suggestLadder(104, 70, 130, 83.4) // => { start: 83, step: 2, why: '9 of 10 tries are clean there.' }
 */
export function suggestLadder(
  goal: number,
  lastClean: number | null,
  ceiling: number | null = null,
  sure: number | null = null,
): Suggestion {
  if (sure !== null) {
    const start = clamp(Math.floor(sure), TEMPO.least, goal);
    const why = sure < goal ? '9 of 10 tries are clean there.' : '9 of 10 tries are clean at the goal.';
    return { start, step: stepOf(start, goal), why };
  }
  const candidates = [
    { bpm: goal * 0.6, why: '60% of the goal' },
    ...(ceiling === null ? [] : [{ bpm: ceiling * 0.7, why: '70% of your ceiling' }]),
    ...(lastClean === null ? [] : [{ bpm: lastClean, why: 'your last clean tempo' }]),
  ];
  const lowest = candidates.reduce((a, b) => (b.bpm < a.bpm ? b : a));
  const start = clamp(Math.floor(lowest.bpm / 5) * 5, TEMPO.least, goal);
  // What is said is what it is: rounded down to a multiple of five, it is a little less.
  const less =
    start < Math.round(lowest.bpm) ? 'a little under ' : start > lowest.bpm ? 'the slowest tempo, above ' : '';
  return { start, step: stepOf(start, goal), why: `${less}${lowest.why}.` };
}

function stepOf(start: number, goal: number): number {
  return Math.max(1, Math.floor((goal - start) / RUNGS_WANTED));
}

/**
 * Tempos as a player types them: numbers with spaces or commas between, in any order, each held as it is. The last is
 * where the drill ends. Fails with `no-tempos`, `no-number`, `out-of-bounds` or `too-many`, and says which.
 * @example
 * readRungs('60 117 150 235').value // => [60, 117, 150, 235]
 * readRungs('60, fast').problems[0].message // => "“fast” is not a tempo. Type numbers with spaces between: 60 80 100."
 * readRungs('10 60').problems[0].message // => "Tempos go from 20 to 400. 10 is outside."
 */
export function readRungs(text: string): Read<readonly number[], RungsCode> {
  const words = text.split(/[\s,;]+/).filter(Boolean);
  if (words.length === 0) return readFail('no-tempos', null, 'Type the tempos with spaces between: 60 80 100.');
  if (words.length > MOST_RUNGS)
    return readFail('too-many', null, `A ladder has at most ${MOST_RUNGS} rungs. You typed ${words.length}.`);
  const rungs: number[] = [];
  for (const word of words) {
    const bpm = Number(word);
    const column = { column: text.indexOf(word) + 1 };
    if (!Number.isFinite(bpm))
      return readFail('no-number', column, `“${word}” is not a tempo. Type numbers with spaces between: 60 80 100.`);
    if (bpm < TEMPO.least || bpm > TEMPO.most)
      return readFail('out-of-bounds', column, `Tempos go from ${TEMPO.least} to ${TEMPO.most}. ${word} is outside.`);
    rungs.push(Math.round(bpm * 10) / 10);
  }
  return readOk(rungs);
}
export type RungsCode = 'no-tempos' | 'no-number' | 'out-of-bounds' | 'too-many';

/** A ladder that is offered, with what it is good for. */
export interface OfferedLadder {
  readonly words: string;
  readonly rungs: readonly number[];
}

/**
 * One to three ladders from a start to a goal that differ: in steps in bpm, in shares of the goal, and three plateaus.
 * @example
 * offeredLadders(60, 104, 5).map((l) => l.rungs.length) // => [10, 5, 3]
 * offeredLadders(100, 100, 5).length // => 1
 */
export function offeredLadders(start: number, goal: number, step: number): readonly OfferedLadder[] {
  const all: readonly OfferedLadder[] = [
    { words: `steps of ${step}`, rungs: ladder('steps', start, goal, step) },
    { words: 'shares of the goal', rungs: ladder('fractions', start, goal, step) },
    { words: 'three plateaus', rungs: ladder('plateaus', start, goal, step) },
  ];
  return all.filter((l, i) => all.findIndex((o) => o.rungs.join() === l.rungs.join()) === i);
}
