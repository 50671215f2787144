import { mod } from '../base';
import { barTicks, countAt, USUAL_SCHOOLS } from '../time';
import { LEVELS, LIMBS, VOICES } from '../stroke';
import { countingOf, type Pattern } from './pattern';
import { select, type Selector } from './selector';

/** A part of a selector that could describe the chosen strokes, with how many words it costs to say. */
interface Part {
  readonly part: Selector;
  readonly cost: number;
}

/** Lists longer than this are no description any more. */
const MOST_LISTED = 6;

function seen<T>(all: readonly T[], of: readonly T[]): T[] {
  return all.filter((x) => of.includes(x));
}

/** Every part that lets all the chosen strokes through, each as tight as it can be. */
function partsFor(pattern: Pattern, chosen: readonly number[]): Part[] {
  const own = chosen.flatMap((i) => pattern.strokes[i] ?? []);
  const bar = barTicks(pattern.meter);
  const limbs = seen(
    LIMBS,
    own.map((s) => s.limb),
  );
  const levels = seen(
    LEVELS,
    own.map((s) => s.level),
  );
  const voices = seen(
    VOICES,
    own.map((s) => s.voice),
  );
  const places = sorted(own.map((s) => s.from.index + 1));
  const repeats = sorted(own.map((s) => s.from.repeat + 1));
  const lastRepeat = pattern.strokes.reduce((most, s) => Math.max(most, s.from.repeat + 1), 1);
  const bars = sorted(own.map((s) => Math.floor((pattern.start + s.at) / bar) + 1));
  const inBar = sorted(own.map((s) => mod(pattern.start + s.at, bar)));
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const counts = inBar.map((t) => countAt(t, counting).text);
  const parts: Part[] = [
    { part: { limbs }, cost: 1 },
    { part: { levels }, cost: 1 },
    { part: { voices }, cost: 1 + voices.length },
    { part: { places }, cost: 1 + places.length },
    { part: { counts }, cost: 1 + counts.length },
    { part: { bars }, cost: 1 + bars.length },
    { part: { repeats }, cost: 1 + repeats.length },
    { part: { inRun: 1 }, cost: 2 },
    { part: { inRun: 2 }, cost: 2 },
  ];
  if (repeats.length === 1 && repeats[0] === lastRepeat && lastRepeat > 1)
    parts.push({ part: { repeats: ['last'] }, cost: 1 });
  const wanted = new Set(chosen);
  return parts.filter(({ part, cost }) => {
    if (cost > 1 + MOST_LISTED) return false;
    const found = new Set(select(pattern, part));
    return [...wanted].every((i) => found.has(i));
  });
}

function sorted(values: readonly number[]): number[] {
  return [...new Set(values)].sort((a, b) => a - b);
}

/**
 * The shortest selector that chooses exactly these strokes and no others, by index: what a person who pressed them one
 * by one most likely means. Where no description fits, the ticks themselves (and limbs, where several strike together)
 * are named. `select` gives the indexes back, in order. For indexes that are not there, or a choice that no selector
 * can tell apart, it chooses the least that holds them all.
 */
export function selectorFor(pattern: Pattern, chosen: readonly number[]): Selector {
  const wanted = sorted(chosen.filter((i) => pattern.strokes[i] !== undefined));
  if (wanted.length === 0) return { ticks: [] };
  if (wanted.length === pattern.strokes.length && select(pattern, {}).length === wanted.length) return {};
  const parts = partsFor(pattern, wanted);
  const combos = combinations(parts).sort((a, b) => a.cost - b.cost);
  const exact = combos.find(({ part }) => sameList(select(pattern, part), wanted));
  if (exact) return exact.part;
  const own = wanted.flatMap((i) => pattern.strokes[i] ?? []);
  const at = sorted(own.map((s) => s.at));
  const bare: Selector = { ticks: at };
  if (sameList(select(pattern, bare), wanted)) return bare;
  const limbs = seen(
    LIMBS,
    own.map((s) => s.limb),
  );
  return { limbs, ticks: at };
}

/** Every way to put up to three parts together. */
function combinations(parts: readonly Part[]): Part[] {
  const all: Part[] = [];
  const add = (from: number, part: Selector, cost: number, depth: number): void => {
    for (let i = from; i < parts.length; i++) {
      const next = parts[i];
      if (!next || Object.keys(next.part).some((k) => k in part)) continue;
      const joined = { part: { ...part, ...next.part }, cost: cost + next.cost };
      all.push(joined);
      if (depth < 2) add(i + 1, joined.part, joined.cost, depth + 1);
    }
  };
  add(0, {}, 0, 0);
  return all;
}

function sameList(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((x, i) => x === b[i]);
}
