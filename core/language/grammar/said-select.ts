import { barsSpan, type Pattern } from '../../pattern';
import { countedBeats } from '../../time';
import { ALL, both, describeStrokes, either, select, type Selection, type Which, type Within } from '../../selection';
import { LAST, refOf, type CountSaid } from './counts';
import { eitherWay } from './either';
import type { Each, Pick } from './pick';
import { firstSlot, limbsHere } from './stretches';

/** Strokes of which nothing was said. */
export const ANY: Pick = Object.freeze({ base: 'all', said: '' });

/** So many ways to put an expression together are looked at. */
const MOST_WAYS = 48;

/**
 * What was said, as the expression it is, where it chooses exactly these strokes; else the shortest expression that
 * does.
 */
export function selectionOf(pick: Pick, pattern: Pattern, own: readonly number[]): Selection {
  const wanted = own.join();
  const said = expressionsOf(pick, pattern);
  // Sent, moved or given: what feet play there was never meant.
  const hands = said.map((s) => both({ is: 'limb', limbs: ['R', 'L'] }, s));
  const meant = [...said, ...hands].find((s) => select(pattern, s).join() === wanted);
  return meant ?? describeStrokes(pattern, own);
}

/** Every expression that the words can stand for; none where they speak of what was said before. */
function expressionsOf(pick: Pick, pattern: Pattern): readonly Selection[] {
  const { base, order, except = [], and } = pick;
  if (base === 'them' || base === 'else' || base === 'it' || order?.kind === 'next') return [];
  if (pick.where) return [];
  const open = eitherWay(pick, pattern);
  if (open) return open.flatMap((p) => expressionsOf(p, pattern));
  const plain = besideWhat(pick, describedBy(pick, pattern), pattern);
  const counted = pick.counts ? countsOf(pick.counts, pattern) : [ALL];
  let all = counted.map((c) => both(...plain, c));
  if (order) all = all.flatMap((s) => orderedBy(pick, s, pattern));
  for (const e of except)
    all = all.flatMap((of) => excepted(e, pick, pattern).map((not): Selection => ({ is: 'but', of, not })));
  if (and) all = all.flatMap((s) => expressionsOf(and, pattern).map((more) => either(s, more)));
  return all.slice(0, MOST_WAYS);
}

/** Of those that are described the next before or behind others. */
function besideWhat({ beside }: Pick, plain: readonly Selection[], pattern: Pattern): readonly Selection[] {
  if (!beside) return plain;
  const [what = ALL] = expressionsOf(beside.what, pattern);
  return [{ is: 'beside', of: both(...plain), how: beside.how, what }];
}

/** What is taken out: "except the first" is the first of what is meant. */
function excepted(e: Pick, pick: Pick, pattern: Pattern): readonly Selection[] {
  const { except: _, and: __, order: ___, ...rest } = pick;
  const bare = e.order && !e.limb && !e.levels && !e.voices && !e.counts && !e.bars;
  return expressionsOf(bare ? { ...rest, order: e.order } : e, pattern);
}

/** What it is, and bars, halves and stretches. */
function describedBy(pick: Pick, pattern: Pattern): readonly Selection[] {
  const limbs = limbsHere(pattern, pick);
  const { levels, voices, ornaments, bars, half, halfOf, repeat, before, after, since, to } = pick;
  const all: Selection[] = [];
  if (pick.base === 'hands') all.push({ is: 'limb', limbs: ['R', 'L'] });
  if (limbs) all.push({ is: 'limb', limbs });
  if (levels) all.push({ is: 'height', levels });
  if (voices) all.push({ is: 'piece', voices });
  if (ornaments) all.push({ is: 'ornament', ornaments });
  if (bars) all.push({ is: 'bar', bars });
  if (half) all.push({ is: 'half', half, of: bars || halfOf === 'bar' ? 'bar' : 'phrase' });
  if (repeat) all.push({ is: 'repeat', repeats: [repeat] });
  const edges = { before, after, from: since, to } as const;
  for (const edge of ['from', 'to', 'before', 'after'] as const) {
    const count = edges[edge];
    // Where slots are counted from is said by the order.
    if (count && !(edge === 'from' && pick.order?.kind === 'every'))
      all.push({ is: 'stretch', edge, count: refOf(count) });
  }
  return all;
}

/** Counts as single slots, and as whole beats. */
function countsOf(said: readonly CountSaid[], pattern: Pattern): readonly Selection[] {
  const { bars } = barsSpan(pattern);
  const last = countedBeats(pattern.meter).length;
  const counts = said.map((c) =>
    c.beat === LAST ? `${c.bar ?? bars}:${last}` : c.beat === null ? `*${c.syllable}` : refOf(c),
  );
  const beats = said.flatMap((c): Selection[] => {
    if (c.syllable !== '' || c.beat === null) return [];
    const beat: Selection = { is: 'beat', beats: [c.beat === LAST ? (c.bar === null ? 'last' : last) : c.beat] };
    return [c.bar === null ? beat : both(beat, { is: 'bar', bars: [c.bar] })];
  });
  const [first, ...others] = beats;
  const numbers = beats.flatMap((b) => (b.is === 'beat' ? b.beats : []));
  const whole: Selection[] =
    !first || beats.length < said.length
      ? []
      : [numbers.length === beats.length ? { is: 'beat', beats: numbers } : either(first, ...others)];
  return [{ is: 'count', counts }, ...whole];
}

const WITHIN: Readonly<Record<Exclude<Each, 'double'>, readonly Within[]>> = {
  beat: ['beat'],
  bar: ['bar'],
  group: ['cell', 'group'],
  repeat: ['cell'],
};

function orderedBy(pick: Pick, of: Selection, pattern: Pattern): readonly Selection[] {
  const { order } = pick;
  if (!order) return [of];
  const ordered = (which: Which, within: Within = 'phrase'): Selection => ({ is: 'order', of, which, within });
  const onSlots = (which: Which, within: Within): Selection => both(of, { is: 'slots', which, within });
  switch (order.kind) {
    case 'first':
      return pick.grid === undefined ? [ordered({ first: order.n })] : [];
    case 'last':
      return pick.grid === undefined ? [ordered({ last: order.n })] : [];
    case 'nth': {
      const which: Which = order.n < 0 ? { last: -order.n } : order.n === 1 ? { first: 1 } : { nth: [order.n] };
      return pick.grid === undefined ? [ordered(which), ordered(which, 'cell')] : [];
    }
    case 'range':
      return [
        ordered({ nth: Array.from({ length: Math.max(1, order.to - order.from + 1) }, (_, i) => order.from + i) }),
      ];
    case 'every': {
      if (pick.grid !== undefined) return [];
      if (order.of === 'stroke') return [1, 2].map((from) => ordered({ every: order.n, from }));
      const from = firstSlot(pick, pattern) / pattern.grid;
      const slots = onSlots({ every: order.n, from: (from % order.n) + 1 }, 'phrase');
      const since: Selection[] = pick.since ? [{ is: 'stretch', edge: 'from', count: refOf(pick.since) }] : [];
      return Number.isInteger(from) ? [slots, both(slots, ...since)] : [];
    }
    case 'doubles':
      return [both(of, { is: 'part', part: 'double' })];
    case 'singles':
      return [both(of, { is: 'limb', limbs: ['R', 'L'] }, { is: 'part', part: 'single' })];
    case 'middle':
      return order.each === 'double' ? [] : WITHIN[order.each].map((within) => onSlots({ middle: true }, within));
    case 'of': {
      const { each, which, many = 1 } = order;
      if (each === 'double')
        return [both(of, { is: 'part', part: which === 1 ? 'first-of-double' : 'second-of-double' })];
      const w: Which = which === 'last' ? { last: many } : which === 1 ? { first: many } : { nth: [which] };
      return WITHIN[each].flatMap((within) => [
        ...(within === 'cell' && which !== 'last' && many === 1 && which <= 4
          ? [both(of, { is: 'place', places: [which] })]
          : []),
        onSlots(w, within),
        ordered(w, within),
      ]);
    }
    case 'next':
      return [];
  }
}
