import { checkedAt, mod } from '../base';
import { barTicks, parseCount, USUAL_SCHOOLS } from '../time';
import { isHand, type Stroke } from '../stroke';
import type { Facets } from '../selection';
import { countingOf, landingAt, rolesOf, runsOf, type Pattern } from '../pattern';

type Selector = Facets;

type Test = (stroke: Stroke, index: number) => boolean;

/**
 * What plain restrictions chose before selections were expressions (recipes up to version 3 of the shelf): kept as it
 * was then, to see that those recipes open to the same patterns.
 */
export function selectEarlier(pattern: Pattern, selector: Selector): readonly number[] {
  const tests = testsOf(pattern, selector);
  const chosen = pattern.strokes.flatMap((stroke, i) => (tests.every((test) => test(stroke, i)) ? [i] : []));
  const { every } = selector;
  if (!every) return chosen;
  if (every.of === 'stroke') return chosen.filter((_, nth) => nth % every.n === every.offset % every.n);
  return chosen.filter((i) => {
    const slot = (pattern.strokes[i]?.at ?? 0) / pattern.grid;
    return Number.isInteger(slot) && mod(slot - every.offset, every.n) === 0;
  });
}

function testsOf(pattern: Pattern, selector: Selector): Test[] {
  const { limbs, levels, voices, places, counts, bars, repeats, inRun, roles } = selector;
  const tests: Test[] = [];
  const landing = landingAt(pattern);
  if (landing !== null && !namesLanding(pattern, selector, landing)) tests.push((s) => s.at < landing);
  if (limbs) tests.push((s) => limbs.includes(s.limb));
  if (levels) tests.push((s) => levels.includes(s.level));
  if (voices) tests.push((s) => voices.includes(s.voice));
  if (places) tests.push((s) => places.includes(s.from.index + 1));
  if (counts) tests.push(countTest(pattern, counts));
  if (bars) tests.push((s) => bars.includes(Math.floor((pattern.start + s.at) / barTicks(pattern.meter)) + 1));
  if (repeats) tests.push(repeatTest(pattern, repeats));
  if (inRun) tests.push(runTest(pattern, inRun));
  if (roles) {
    const found = rolesOf(pattern);
    tests.push((_, i) => roles.includes(checkedAt(found, i, 'role')));
  }
  if (selector.ticks) {
    const wanted = new Set(selector.ticks);
    tests.push((s) => wanted.has(s.at));
  }
  return tests;
}

/** A landing is chosen only where its bar, its repeat or its places are named: "all rights" are those of the phrase. */
function namesLanding(pattern: Pattern, { ticks, bars, repeats }: Selector, landing: number): boolean {
  if (ticks) return true;
  const bar = Math.floor((pattern.start + landing) / barTicks(pattern.meter)) + 1;
  return (bars?.includes(bar) ?? false) || (repeats?.includes((pattern.groups.at(-1)?.repeat ?? 0) + 1) ?? false);
}

/** The counts of a recipe in any bar. */
function countTest(pattern: Pattern, counts: readonly string[]): Test {
  const bar = barTicks(pattern.meter);
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const wanted = new Set(
    counts.flatMap((text) => {
      const tick = parseCount(text, counting);
      return tick === null ? [] : [mod(tick, bar)];
    }),
  );
  return (s) => wanted.has(mod(pattern.start + s.at, bar));
}

function repeatTest(pattern: Pattern, repeats: readonly ('first' | 'last' | number)[]): Test {
  const landing = landingAt(pattern) ?? Infinity;
  const numbers = pattern.strokes.flatMap((s) => (s.at < landing ? [s.from.repeat] : []));
  const last = numbers.reduce((a, b) => Math.max(a, b), 0);
  const wanted = new Set(repeats.map((r) => (r === 'first' ? 0 : r === 'last' ? last : r - 1)));
  return (s) => wanted.has(s.from.repeat);
}

/** A run is strokes of one hand on neighbouring slots. */
function runTest(pattern: Pattern, place: 1 | 2): Test {
  const hands = pattern.strokes.flatMap((s, i) => (isHand(s.limb) ? [{ limb: s.limb, at: s.at, i }] : []));
  const runs = runsOf(hands, (a, b) => a.limb === b.limb && b.at - a.at <= pattern.grid);
  const chosen = new Set(
    runs.flatMap((run) =>
      run.length < 2 ? [] : run.filter((_, nth) => nth % 2 === place - 1).map((nth) => hands[nth]?.i),
    ),
  );
  return (_, i) => chosen.has(i);
}
