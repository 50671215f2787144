import { checkedAt, mod } from '../base';
import { barTicks, parseCount, USUAL_SCHOOLS } from '../time';
import { isHand, type Stroke } from '../stroke';
import { barsSpan, countingOf, landingAt, rolesOf, runsOf, type Pattern } from '../pattern';
import { beatIn, partsIn, type Stretch } from './parts';
import type { Part, Selection, SelectionOf, Which, Within } from './selection';

/**
 * What a node chooses, a landing among it, and whether it names the landing: by its bar, its repeat, its count with a
 * bar, or by hand. "All rights" are those of the phrase; "rights in bar 3" are those of the landing too.
 */
interface Chosen {
  readonly has: (index: number) => boolean;
  readonly names: boolean;
}

/**
 * Indexes into `pattern.strokes` of the strokes a selection chooses, in order; empty where it fits nothing.
 * @example
 * select(patternOfText(parseStrokeText('R l R K').value, meter(4, 4), GRID.quarters), { is: 'limb', limbs: ['R'] }) // => [0, 2]
 * select(patternOfText(parseStrokeText('R l R K').value, meter(4, 4), GRID.quarters), { is: 'order', of: { is: 'limb', limbs: ['R'] }, which: { last: 1 }, within: 'phrase' }) // => [2]
 */
export function select(pattern: Pattern, selection: Selection): readonly number[] {
  return settled(new Scene(pattern), selection);
}

/** A pattern with what is worked out of it only once. */
class Scene {
  readonly strokes: readonly Stroke[];
  readonly landing: number;
  readonly bar: number;
  private runs: readonly (readonly number[])[] | null = null;
  private readonly parts = new Map<Within, readonly Stretch[]>();

  constructor(readonly pattern: Pattern) {
    this.strokes = pattern.strokes;
    this.landing = landingAt(pattern) ?? Infinity;
    this.bar = barTicks(pattern.meter);
  }

  at(index: number): number {
    return checkedAt(this.strokes, index, 'stroke').at;
  }

  /** Where a stroke stands from the first bar line. */
  place(index: number): number {
    return this.pattern.start + this.at(index);
  }

  barOf(index: number): number {
    return Math.floor(this.place(index) / this.bar) + 1;
  }

  partsIn(within: Within): readonly Stretch[] {
    const known = this.parts.get(within) ?? partsIn(this.pattern, within);
    this.parts.set(within, known);
    return known;
  }

  /** Strokes of one hand on neighbouring slots, by index. */
  handRuns(): readonly (readonly number[])[] {
    if (this.runs) return this.runs;
    const hands = this.strokes.flatMap((s, i) => (isHand(s.limb) ? [{ limb: s.limb, at: s.at, i }] : []));
    const found = runsOf(hands, (a, b) => a.limb === b.limb && b.at - a.at <= this.pattern.grid);
    return (this.runs = found.map((run) => run.map((nth) => checkedAt(hands, nth, 'stroke').i)));
  }
}

function settled(scene: Scene, selection: Selection): readonly number[] {
  const { has, names } = chosen(scene, selection);
  return scene.strokes.flatMap((s, i) => ((names || s.at < scene.landing) && has(i) ? [i] : []));
}

const those = (indexes: readonly number[], names = true): Chosen => {
  const all = new Set(indexes);
  return { has: (i) => all.has(i), names };
};

function chosen(scene: Scene, s: Selection): Chosen {
  const { strokes } = scene;
  const stroke = (i: number): Stroke => checkedAt(strokes, i, 'stroke');
  const plain = (has: (index: number) => boolean): Chosen => ({ has, names: false });
  switch (s.is) {
    case 'all':
      return plain(() => true);
    case 'limb':
      return plain((i) => s.limbs.includes(stroke(i).limb));
    case 'height':
      return plain((i) => s.levels.includes(stroke(i).level));
    case 'piece':
      return plain((i) => s.voices.includes(stroke(i).voice));
    case 'ornament':
      return plain((i) => s.ornaments.some((o) => o === stroke(i).ornament));
    case 'role': {
      const roles = rolesOf(scene.pattern);
      return plain((i) => s.roles.includes(checkedAt(roles, i, 'role')));
    }
    case 'part':
      return those(partsOf(scene, s.part), false);
    case 'count':
      return onCounts(scene, s.counts);
    case 'beat':
      return plain(inBeats(scene, s.beats));
    case 'bar': {
      const { bars: many } = barsSpan(scene.pattern);
      const bars = s.bars.map((b) => (b === 'last' ? many : b));
      return { has: (i) => bars.includes(scene.barOf(i)), names: bars.includes(landingBar(scene)) };
    }
    case 'half':
      return plain(inHalf(scene, s));
    case 'stretch':
      return plain(inStretch(scene, s));
    case 'place':
      return plain((i) => s.places.includes(stroke(i).from.index + 1));
    case 'repeat':
      return inRepeats(scene, s.repeats);
    case 'slots':
      return plain(onSlots(scene, s));
    case 'hand':
      return { has: (i) => s.at.includes(scene.at(i)), names: true };
    case 'order':
      return those(inOrder(scene, settled(scene, s.of), s.which, s.within));
    case 'beside':
      return those(beside(scene, settled(scene, s.of), s.how, settled(scene, s.what)));
    case 'alone':
      return those(settled(scene, s.of).filter((i) => [i - 1, i + 1].every((k) => strokes[k]?.at !== stroke(i).at)));
    case 'and': {
      const all = s.all.map((one) => chosen(scene, one));
      return { has: (i) => all.every((one) => one.has(i)), names: all.some((one) => one.names) };
    }
    case 'or':
      return those(s.any.flatMap((one) => settled(scene, one)));
    case 'but': {
      const [of, not] = [chosen(scene, s.of), chosen(scene, s.not)];
      return { has: (i) => of.has(i) && !not.has(i), names: of.names };
    }
  }
}

function landingBar({ landing, pattern, bar }: Scene): number {
  return landing === Infinity ? -1 : Math.floor((pattern.start + landing) / bar) + 1;
}

/** Counts in every bar, of every beat ("*&"), or of one bar ("2:1"). What is no count of the meter is nowhere. */
function onCounts(scene: Scene, counts: readonly string[]): Chosen {
  const counting = countingOf(scene.pattern, USUAL_SCHOOLS);
  const inBar = new Set<number>();
  const exact = new Set<number>();
  let names = false;
  for (const text of counts) {
    if (text.startsWith('*')) {
      for (let beat = 1; beatIn(scene.pattern.meter, beat) !== null; beat++) {
        const tick = parseCount(`${beat}${text.slice(1)}`, counting);
        if (tick !== null) inBar.add(mod(tick, scene.bar));
      }
      continue;
    }
    const tick = parseCount(text, counting);
    if (tick === null) continue;
    if (text.includes(':')) {
      exact.add(tick);
      names ||= Math.floor(tick / scene.bar) + 1 === landingBar(scene);
    } else inBar.add(mod(tick, scene.bar));
  }
  return {
    has: (i) => exact.has(scene.place(i)) || inBar.has(mod(scene.place(i), scene.bar)),
    names,
  };
}

function inBeats(scene: Scene, beats: readonly (number | 'last')[]): (index: number) => boolean {
  const { meter } = scene.pattern;
  const spans = beats.flatMap((b) => (b === 'last' ? [] : (beatIn(meter, b) ?? [])));
  const last = beats.includes('last') ? lastBeat(scene) : null;
  return (i) => {
    const at = mod(scene.place(i), scene.bar);
    return (
      spans.some((s) => at >= s.from && at < s.until) ||
      (last !== null && scene.place(i) >= last.from && scene.place(i) < last.until)
    );
  };
}

/** The last beat of the last bar. */
function lastBeat(scene: Scene): Stretch {
  const { bars } = barsSpan(scene.pattern);
  let beat = 1;
  while (beatIn(scene.pattern.meter, beat + 1)) beat++;
  const own = beatIn(scene.pattern.meter, beat) ?? { from: 0, until: scene.bar };
  const before = (bars - 1) * scene.bar;
  return { from: before + own.from, until: before + own.until };
}

function inHalf(scene: Scene, { half, of }: SelectionOf<'half'>): (index: number) => boolean {
  const middle = (of === 'bar' ? scene.bar : scene.pattern.length) / 2;
  return (i) => (of === 'bar' ? mod(scene.place(i), scene.bar) : scene.at(i)) < middle === (half === 1);
}

function inStretch(scene: Scene, { edge, count }: SelectionOf<'stretch'>): (index: number) => boolean {
  const tick = parseCount(count, countingOf(scene.pattern, USUAL_SCHOOLS));
  if (tick === null) return () => false;
  const every = !count.includes(':');
  return (i) => {
    const at = every ? mod(scene.place(i), scene.bar) : scene.place(i);
    switch (edge) {
      case 'from':
        return at >= tick;
      case 'to':
        return at <= tick;
      case 'before':
        return at < tick;
      case 'after':
        return at > tick;
    }
  };
}

function inRepeats(scene: Scene, repeats: readonly ('first' | 'last' | number)[]): Chosen {
  const numbers = scene.strokes.flatMap((s) => (s.at < scene.landing ? [s.from.repeat] : []));
  const last = numbers.reduce((a, b) => Math.max(a, b), 0);
  const wanted = new Set(repeats.map((r) => (r === 'first' ? 0 : r === 'last' ? last : r - 1)));
  const landed = scene.landing === Infinity ? -1 : (scene.pattern.groups.at(-1)?.repeat ?? -1);
  return {
    has: (i) => wanted.has(checkedAt(scene.strokes, i, 'stroke').from.repeat),
    names: repeats.some((r) => typeof r === 'number' && r - 1 === landed),
  };
}

/** Strokes on some slots of each part. A part that begins before the pattern still counts its slots from there. */
function onSlots(scene: Scene, { which, within }: SelectionOf<'slots'>): (i: number) => boolean {
  const wanted = new Set<number>();
  for (const { from, until } of scene.partsIn(within)) {
    const slots: number[] = [];
    for (let t = from; t < until; t += scene.pattern.grid) slots.push(t);
    for (const n of picked(slots.length, which)) wanted.add(checkedAt(slots, n, 'slot'));
  }
  return (i) => wanted.has(scene.at(i));
}

/** Positions, from 0, that are meant of so many in a row. */
function picked(many: number, which: Which): readonly number[] {
  const all = Array.from({ length: many }, (_, n) => n);
  if ('first' in which) return all.slice(0, which.first);
  if ('last' in which) return all.slice(Math.max(0, many - which.last));
  if ('nth' in which) return all.filter((n) => which.nth.includes(n + 1));
  if ('every' in which) return all.filter((n) => mod(n - (which.from - 1), which.every) === 0);
  return many === 0 ? [] : [Math.floor(many / 2)];
}

/** Strokes that an order chooses: those that are struck together are one in the row. */
function inOrder(scene: Scene, list: readonly number[], which: Which, within: Within): readonly number[] {
  const rows =
    within === 'run'
      ? runsAmong(scene, list)
      : scene.partsIn(within).map((p) => list.filter((i) => scene.at(i) >= p.from && scene.at(i) < p.until));
  if ('every' in which && which.single)
    return rows.flatMap((row) => picked(row.length, which).map((n) => checkedAt(row, n, 'stroke')));
  return rows.flatMap((row) => {
    const moments = [...new Set(row.map((i) => scene.at(i)))];
    const ticks = new Set(picked(moments.length, which).map((n) => checkedAt(moments, n, 'moment')));
    return row.filter((i) => ticks.has(scene.at(i)));
  });
}

function runsAmong(scene: Scene, list: readonly number[]): readonly (readonly number[])[] {
  const own = new Set(list);
  return scene.handRuns().map((run) => run.filter((i) => own.has(i)));
}

function partsOf(scene: Scene, part: Part): readonly number[] {
  const runs = scene.handRuns();
  switch (part) {
    case 'double':
      return runs.flatMap((run) => (run.length < 2 ? [] : run));
    case 'single':
      return runs.flatMap((run) => (run.length < 2 ? run : []));
    case 'first-of-double':
    case 'second-of-double': {
      const place = part === 'first-of-double' ? 0 : 1;
      return runs.flatMap((run) => (run.length < 2 ? [] : run.filter((_, nth) => nth % 2 === place)));
    }
    case 'head':
    case 'tail': {
      const found: number[] = [];
      for (const { from, until } of scene.partsIn('group')) {
        const own = scene.strokes.flatMap((s, i) => (s.at >= from && s.at < until ? [i] : []));
        const last = own.reduce((most, i) => Math.max(most, scene.at(i)), -1);
        found.push(...own.filter((i) => scene.at(i) === (part === 'head' ? from : last)));
      }
      return found;
    }
  }
}

/** What is struck with others (by another limb), or stands as the next before or behind each of them. */
function beside(
  scene: Scene,
  list: readonly number[],
  how: 'with' | 'before' | 'after',
  what: readonly number[],
): readonly number[] {
  if (how === 'with') return list.filter((i) => what.some((k) => k !== i && scene.at(k) === scene.at(i)));
  const moments = [...new Set(list.map((i) => scene.at(i)))];
  const wanted = new Set(
    what.flatMap((k) => {
      const at = scene.at(k);
      const next = how === 'before' ? moments.filter((t) => t < at).at(-1) : moments.find((t) => t > at);
      return next ?? [];
    }),
  );
  return list.filter((i) => wanted.has(scene.at(i)));
}
