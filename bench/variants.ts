import { applyMove, build, type Recipe } from '@core/recipe';
import { allVariants, canonicalForm, changesOf, VARIANT_LIMITS } from '@core/variants';
import { otherHand } from '@core/stroke';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { USUAL_SCHOOLS } from '@core/time';
import { mod } from '@core/base';
import type { Pattern } from '@core/pattern';
import { median } from './measure';

/** A bar of 16ths with 13 hand strokes: five accents of it can be placed in many ways. */
const recipe: Recipe = {
  source: { kind: 'typed', text: '(R L R L R L R L R K)x2', meter: '5/4', grid: 1260 },
  moves: [],
};
const wish = {
  kinds: ['accents' as const],
  accents: 6,
  kit: USUAL_KIT,
  profile: USUAL_PROFILE,
  schools: USUAL_SCHOOLS,
};

const start = performance.now();
const sheet = allVariants(recipe, wish);
const seconds = (performance.now() - start) / 1000;
console.log(
  `\nvariants: ${sheet.candidates} candidates of at most ${VARIANT_LIMITS.candidates}, ${sheet.found} different, in ${seconds.toFixed(2)} s: ${Math.round(sheet.candidates / seconds)} a second`,
);

/** The naive way on a few of them: every candidate against every kept one, by trying all rotations and the mirror. */
const FEW = 300;
const parent = build(recipe).pattern;
const few: Pattern[] = [];
for (const change of changesOf('accents', parent, wish)) {
  if (few.length >= FEW) break;
  few.push(applyMove(parent, change.move, () => parent).pattern);
}
const key = (p: Pattern, by: number, mirror: boolean): string =>
  p.strokes
    .map((s) => `${mod(s.at + by, p.length)}${mirror ? otherHand(s.limb) : s.limb}${s.level}`)
    .sort()
    .join();
function alike(a: Pattern, b: Pattern): boolean {
  const target = key(b, 0, false);
  for (let by = 0; by < a.length; by += a.grid)
    if (key(a, by, false) === target || key(a, by, true) === target) return true;
  return false;
}
function naive(): number {
  const kept: Pattern[] = [];
  for (const p of few.slice(0, 40)) if (!kept.some((k) => alike(k, p))) kept.push(p);
  return kept.length;
}
function canonical(): number {
  return new Set(few.slice(0, 40).map(canonicalForm)).size;
}
const [slow, fast] = [median(naive), median(canonical)];
console.log(
  `de-duplicating 40: canonical forms ${fast.toFixed(0)} µs, ${(slow / fast).toFixed(0)} × faster than all pairs (${slow.toFixed(0)} µs)`,
);
