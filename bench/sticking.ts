import { USUAL_SCHOOLS } from '@core/time';
import type { Hand } from '@core/stroke';
import { USUAL_KIT } from '@core/kit';
import { USUAL_PROFILE } from '@core/reach';
import { bestWays, choicesOf, costOf, Needs, rhythmOf, stickings, STICKING_SCHOOLS, type Terms } from '@core/sticking';
import { median } from './measure';
import { rhythm, wish } from './rhythm';

const eventsOf = (n: number) => rhythmOf(rhythm(n), 110, new Map(), USUAL_SCHOOLS);
const terms = (school: Terms['school']): Terms => ({ school, kit: USUAL_KIT, profile: USUAL_PROFILE });

console.log('\nstickings (baseline: 128 strokes, 20 best, one school, same run)');
const base = median(() => bestWays(terms('doubles'), eventsOf(128), 20));
console.log(`128 strokes, 20 best, one school: ${(base / 1000).toFixed(1)} ms`);
const four = median(() => stickings(rhythm(128), wish));
console.log(
  `128 strokes, 20 best, all ${STICKING_SCHOOLS.length} schools, reasons and ceilings with them: ${(four / 1000).toFixed(1)} ms = ${(four / base).toFixed(2)} × baseline`,
);
for (const n of [32, 64, 256, 512, 1024]) {
  const ms = median(() => bestWays(terms('doubles'), eventsOf(n), 20));
  console.log(
    `${n} strokes: ${(ms / base).toFixed(2)} × baseline; ${((ms / base) * (128 / n)).toFixed(2)} × per stroke`,
  );
}

const twenty = eventsOf(12);
const solve = median(() => bestWays(terms('lead hand'), twenty, 1));
const began = performance.now();
let least = Infinity;
const needs = new Needs(terms('lead hand'));
// Every one of the 2^12 stickings, depth first, so that what they share is added up once: trying all is not made slower
// than it must be. As the rhythm goes round, the first turn brings the hands to where they stand; the second counts.
const chosen: (readonly Hand[])[] = [];
function tryAll(i: number): void {
  const event = twenty.events[i];
  if (!event) {
    least = Math.min(least, costOf(terms('lead hand'), twenty, chosen, needs).cost);
    return;
  }
  for (const hands of choicesOf(event)) {
    chosen[i] = hands;
    tryAll(i + 1);
  }
}
tryAll(0);
const brute = performance.now() - began;
const same = Math.abs(least - (bestWays(terms('lead hand'), twenty, 1)[0]?.cost ?? 0)) < 1e-6;
console.log(
  `12 strokes, one best: ${(solve / 1000).toFixed(2)} ms; trying all 4,096: ${brute.toFixed(0)} ms = ${((brute * 1000) / solve).toFixed(0)} × slower; the same cost: ${same}`,
);
