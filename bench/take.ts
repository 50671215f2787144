import { GRID, meter } from '@core/time';
import { parseStrokeText } from '@core/stroke';
import { patternOfText } from '@core/pattern';
import { expectedOf } from '@core/rendition';
import { align, perform, USUAL_PLAYER } from '@core/take';
import { median } from './measure';

const read = parseStrokeText('(R L R L R L R K)x2');
const pattern = patternOfText(read.ok ? read.value : [], meter(4, 4), GRID.sixteenths);

/** A take of so many bars at 150, scattered by 8 ms, with some left out and some added. */
function take(bars: number) {
  const expected = expectedOf(pattern, 150, 0, bars);
  const { hits } = perform(expected, { ...USUAL_PLAYER, spread: 8, missed: 0.01, extra: 0.01 }, 3);
  return { expected, hits };
}

console.log('\ntakes (baseline: aligning 1,500 hits, same run)');
const base = take(94);
const one = median(() => align(base.expected, base.hits));
for (const bars of [94, 188, 375, 750]) {
  const { expected, hits } = take(bars);
  const us = median(() => align(expected, hits));
  console.log(
    `${hits.length} hits, ${((bars * 4) / 150).toFixed(1)} min: ${(us / 1000).toFixed(1)} ms = ${(us / one).toFixed(2)} × baseline; ${((us / one) * (base.hits.length / hits.length)).toFixed(2)} × a hit`,
  );
}

// Whole takes that lie elsewhere are sought: a slower tempo, and nothing that tells limbs apart.
const slower = base.hits.map((h) => ({ ...h, limb: null, voice: null, seconds: h.seconds * 1.03 }));
const us = median(() => align(base.expected, slower));
console.log(
  `${slower.length} hits 3 % slower, nothing known of them: ${(us / 1000).toFixed(1)} ms = ${(us / one).toFixed(2)} × baseline`,
);
