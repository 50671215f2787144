import { countAt, USUAL_SCHOOLS } from '../../time';
import { barsSpan, countingOf, select, selectorFor, type Pattern, type Selector } from '../../pattern';
import type { Pick } from './pick';
import { firstSlot, limbsHere } from './stretches';

/** Strokes of which nothing was said. */
export const ANY: Pick = Object.freeze({ base: 'all', said: '' });

/** So many counts are read at a glance. */
const MOST_COUNTS = 12;

/** The selector that says what was said, where it chooses exactly these strokes; else the shortest one that does. */
export function selectorOf(pick: Pick, pattern: Pattern, own: readonly number[]): Selector {
  const same = (s: Selector): boolean => select(pattern, s).join() === own.join();
  const limbs = limbsHere(pattern, pick);
  const { bars: many } = barsSpan(pattern);
  const [first] = pick.counts ?? [];
  const bar = first && pick.counts?.every((c) => c.bar === first.bar) ? first.bar : null;
  const plain: Selector = {
    ...(limbs ? { limbs: [...limbs] } : {}),
    ...(pick.levels ? { levels: [...pick.levels] } : {}),
    ...(pick.voices ? { voices: [...pick.voices] } : {}),
    ...(pick.counts ? { counts: pick.counts.map((c) => `${c.beat ?? ''}${c.syllable}`) } : {}),
    ...(pick.bars ? { bars: pick.bars.map((b) => (b === 'last' ? many : b)) } : bar !== null ? { bars: [bar] } : {}),
  };
  if (same(plain)) return plain;
  if (pick.order?.kind === 'of' && pick.order.which !== 'last') {
    const { each, which } = pick.order;
    const run = which === 1 || which === 2 ? which : undefined;
    const said: Selector | null =
      each === 'double' && run ? { ...plain, inRun: run } : each === 'repeat' ? { ...plain, places: [which] } : null;
    if (said && same(said)) return said;
  }
  if (pick.order?.kind === 'every' && pick.grid === undefined) {
    const { n, of } = pick.order;
    for (const offset of of === 'slot' ? [firstSlot(pick, pattern) / pattern.grid] : [0, 1]) {
      const every: Selector = { ...plain, every: { n, offset, of } };
      if (Number.isInteger(offset) && same(every)) return every;
    }
  }
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  const counts = own.map((i) => countAt(pattern.start + (pattern.strokes[i]?.at ?? 0), counting).text);
  const counted: Selector = {
    ...(limbs ? { limbs: [...limbs] } : {}),
    counts: [...new Set(counts)],
    ...(plain.bars ? { bars: plain.bars } : {}),
  };
  // What was said by counts or by its order is said by counts, where they are not too many to be read.
  const byCount = (pick.counts ?? pick.order ?? pick.before ?? pick.after ?? pick.since) !== undefined;
  if (byCount && counted.counts && counted.counts.length <= MOST_COUNTS && same(counted)) return counted;
  const shortest = selectorFor(pattern, own);
  // In a phrase of one cell a count says more than "the fifth of every group".
  return (shortest.places || shortest.ticks) && pattern.groups.length < 2 && same(counted) ? counted : shortest;
}
