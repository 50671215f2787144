import { clamp } from '../base';
import { TEMPO } from '../time';

/** The most rungs a ladder may have. */
export const MOST_RUNGS = 60;

/** Ways to climb: even steps, steps of a share, shares of the goal, three plateaus, two up and one back. */
export const LADDER_SCHOOLS = ['steps', 'percent', 'fractions', 'plateaus', 'wave'] as const;
export type LadderSchool = (typeof LADDER_SCHOOLS)[number];

/** What each is called, and what it does. */
export const LADDER_WORDS: Readonly<Record<LadderSchool, { readonly name: string; readonly words: string }>> =
  Object.freeze({
    steps: { name: 'Even steps', words: 'The same number of beats each time.' },
    percent: { name: 'Steps of a share', words: 'Small when slow, wider when fast.' },
    fractions: { name: 'Shares of the goal', words: 'Half, two thirds, four fifths, nine tenths, the goal.' },
    plateaus: { name: 'Three plateaus', words: 'Slow, medium, at the goal.' },
    wave: { name: 'Two up, one back', words: 'Each tempo is met again with ease.' },
  });

/**
 * Tempos from start to goal in fixed steps; the last rung is always the goal. A start above the goal gives the goal
 * alone. A step too small for the distance is widened until the ladder has at most 60 rungs.
 * @example
 * fixedLadder(60, 84, 10) // => [60, 70, 80, 84]
 * fixedLadder(90, 80, 5) // => [80]
 */
export function fixedLadder(start: number, goal: number, step: number): readonly number[] {
  const [from, to] = bounds(start, goal);
  if (from >= to) return [to];
  const width = Math.max(step, 1, Math.ceil((to - from) / (MOST_RUNGS - 1)));
  const rungs: number[] = [];
  for (let bpm = from; bpm < to; bpm += width) rungs.push(bpm);
  return [...rungs, to];
}

function bounds(start: number, goal: number): readonly [number, number] {
  return [clamp(start, TEMPO.least, TEMPO.most), clamp(goal, TEMPO.least, TEMPO.most)];
}

/**
 * The rungs of a ladder of any school. They begin at the start, end at the goal, never leave the span between, and rise
 * but for the wave, which steps back on its way. `step` is beats a minute for even steps and the wave, and per cent for
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
      return [...new Set([...rungs, to])];
    }
    case 'fractions':
      return rising([from, ...[0.5, 2 / 3, 0.8, 0.9].map((share) => Math.round(to * share)), to], from, to);
    case 'plateaus':
      return rising([from, Math.round((from + to) / 2), to], from, to);
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
  return [...new Set(rungs.filter((r) => r >= from && r <= to))].sort((a, b) => a - b);
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
 * Suggested start: the lower of 60 % of the goal and 70 % of the ceiling, never above the last clean tempo, rounded
 * down to a multiple of 5; and a step that makes about eight rungs. `ceiling` is null where nothing limits the phrase.
 * @example
 * suggestLadder(104, null) // => { start: 60, step: 5, why: '60 % of the goal.' }
 * suggestLadder(104, 50) // => { start: 50, step: 6, why: 'Your last clean tempo.' }
 * suggestLadder(104, null, 70) // => { start: 45, step: 7, why: '70 % of your ceiling.' }
 */
export function suggestLadder(goal: number, lastClean: number | null, ceiling: number | null = null): Suggestion {
  const candidates = [
    { bpm: goal * 0.6, why: '60 % of the goal.' },
    ...(ceiling === null ? [] : [{ bpm: ceiling * 0.7, why: '70 % of your ceiling.' }]),
    ...(lastClean === null ? [] : [{ bpm: lastClean, why: 'Your last clean tempo.' }]),
  ];
  const lowest = candidates.reduce((a, b) => (b.bpm < a.bpm ? b : a));
  const start = clamp(Math.floor(lowest.bpm / 5) * 5, TEMPO.least, goal);
  const step = Math.max(1, Math.floor((goal - start) / RUNGS_WANTED));
  return { start, step, why: lowest.why };
}
