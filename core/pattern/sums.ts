import { count as counted, fraction, listed, nth } from '../base';
import {
  barTicks,
  beatTicks,
  countAt,
  countWords,
  divisionOf,
  feelWords,
  gridName,
  slotsWords,
  meterText,
  type Count,
  type Schools,
  USUAL_SCHOOLS,
  type Ticks,
  ticks,
} from '../time';
import { isHand, type Stroke } from '../stroke';
import { gracesOf, withGraces } from './graces';
import { countingOf, type Pattern } from './pattern';

/** "28 = 5 × 5 + 3": how often a cell fits a space, in slots, and what is left over. */
export interface FitSum {
  readonly slots: number;
  readonly cell: number;
  readonly repeats: number;
  readonly rest: number;
  readonly text: string;
}

/**
 * How often a cell of `cell` slots fits a space of `slots`.
 * Null when the cell is empty.
 * @example
 * fitSum(28, 5).text // => "28 = 5 × 5 + 3"
 * fitSum(16, 4).text // => "16 = 4 × 4"
 * fitSum(3, 5).text // => "3 = 0 × 5 + 3"
 */
export function fitSum(slots: number, cell: number): FitSum | null {
  if (cell <= 0) return null;
  const repeats = Math.floor(slots / cell);
  const rest = slots - repeats * cell;
  return {
    slots,
    cell,
    repeats,
    rest,
    text: `${fraction(slots)} = ${repeats} × ${fraction(cell)}${rest === 0 ? '' : ` + ${fraction(rest)}`}`,
  };
}

/** A sum with more terms than this is told by sizes instead of by order. */
const MOST_TERMS = 5;

/**
 * The sum of a space of `slots` laid out in groups of `sizes` slots: equal neighbours counted together, in the order
 * they stand. Where that is more than five terms, all of one size are counted together, in the order in which each size
 * comes first. What the groups leave over is the last term.
 * @example
 * groupSum(28, [5, 5, 5, 5, 5, 3]) // => "28 = 5 × 5 + 3"
 * groupSum(12, [5, 4, 3]) // => "12 = 5 + 4 + 3"
 * groupSum(20, [4, 4, 8]) // => "20 = 2 × 4 + 8 + 4"
 * groupSum(32, [3, 3, 2, 3, 3, 2, 3, 3, 2, 3, 3, 2]) // => "32 = 8 × 3 + 4 × 2"
 */
export function groupSum(slots: number, sizes: readonly number[]): string {
  const left = slots - sizes.reduce((a, b) => a + b, 0);
  const all = left > 0 ? [...sizes, left] : sizes;
  const runs: { readonly size: number; readonly many: number }[] = [];
  for (const size of all) {
    const last = runs.at(-1);
    if (last?.size === size) runs[runs.length - 1] = { size, many: last.many + 1 };
    else runs.push({ size, many: 1 });
  }
  const terms =
    runs.length <= MOST_TERMS
      ? runs
      : [...new Set(all)].map((size) => ({ size, many: all.filter((s) => s === size).length }));
  const words = terms.map(({ size, many }) =>
    many === 1 && terms.length > 1 ? fraction(size) : `${many} × ${fraction(size)}`,
  );
  return `${fraction(slots)} = ${words.join(' + ')}`;
}

/**
 * What the sum of some lengths of a pattern is counted in, in ticks, and how it is told: slots of its grid. Where
 * strokes lie between the slots and their halves, as in a bar that is half in triplets, a slot is not what is played:
 * whole beats are counted then, if the lengths are such.
 * @example
 * sumUnit(patternOfText(parseStrokeText('(R L)x8').value, meter(4, 4), GRID.sixteenths), [20160]).unit // => 1260
 */
export function sumUnit(
  { strokes, grid, meter }: Pick<Pattern, 'strokes' | 'grid' | 'meter'>,
  lengths: readonly number[],
): { readonly unit: number; readonly told: (sum: string) => string } {
  const beat = beatTicks(meter);
  if (strokes.every((s) => (s.at * 2) % grid === 0) || lengths.some((n) => n % beat !== 0))
    return { unit: grid, told: (sum) => sum };
  return { unit: beat, told: (sum) => sum.replace(/^\d+/, (n) => `${n} ${n === '1' ? 'beat' : 'beats'}`) };
}

/** The hand of the first hand stroke; null for feet alone. */
export function leadHand(strokes: readonly Stroke[]): 'R' | 'L' | null {
  for (const { limb } of strokes) if (isHand(limb)) return limb;
  return null;
}

/**
 * Ticks of the strokes before which the other hand plays grace strokes, in order: a phrase with such is not linear,
 * also where nothing falls together.
 */
export function splitGraces(pattern: Pattern): readonly Ticks[] {
  return withGraces(pattern).strokes.flatMap((s) => {
    const graces = gracesOf(s);
    return graces && graces.limb !== s.limb ? [s.at] : [];
  });
}

/** Ticks at which two or more limbs strike together, in order. */
export function unisons(pattern: Pattern): readonly Ticks[] {
  const found: Ticks[] = [];
  pattern.strokes.forEach((s, i) => {
    if (pattern.strokes[i - 1]?.at === s.at && found.at(-1) !== s.at) found.push(s.at);
  });
  return found;
}

/**
 * Strokes a second at `quarterBpm` quarters a minute, over the whole pattern.
 * @example
 * notesPerSecond(16, 20160, 120) // => 8
 */
export function notesPerSecond(strokes: number, length: number, quarterBpm: number): number {
  return length === 0 ? 0 : (strokes * quarterBpm * 5040) / (length * 60);
}

/** The count of a tick of the pattern, with its bar in words when the pattern is longer than a bar. */
export function countOfStroke(pattern: Pattern, at: number, schools: Schools): Count {
  return countAt(pattern.start + at, countingOf(pattern, schools));
}

/**
 * "the e of 3", with the bar behind when there is more than one; "the & of 4 before the 1" of a pick-up. Of several
 * strokes off the grid for which there would be one name, each is told by its number: "the 3rd stroke of beat 2".
 */
export function placeWords(pattern: Pattern, at: number, schools: Schools): string {
  const words = nameOf(pattern, at, schools);
  const count = countOfStroke(pattern, at, schools);
  if (!OFF_GRID.test(count.text)) return words;
  const inBeat = [...(pattern.start === 0 ? (pattern.pickup ?? []) : []), ...pattern.strokes]
    .flatMap((s) => (Math.abs(s.at - at) < barTicks(pattern.meter) ? [s.at] : []))
    .filter((tick, i, all) => all.indexOf(tick) === i && sharesBeat(count, countOfStroke(pattern, tick, schools)))
    .sort((a, b) => a - b);
  const alike = inBeat.filter((tick) => nameOf(pattern, tick, schools) === words);
  if (alike.length < 2 || !inBeat.some((tick) => tick === at)) return words;
  const stroke = `the ${nth(inBeat.findIndex((tick) => tick === at) + 1)} stroke of beat ${count.beat}`;
  return endOf(pattern, at, count, stroke);
}

/** A count that is told with its division, or with how far it is from one. */
const OFF_GRID = /[/+·]/;

function sharesBeat(a: Count, b: Count): boolean {
  return a.bar === b.bar && a.beat === b.beat;
}

function nameOf(pattern: Pattern, at: number, schools: Schools): string {
  const count = countOfStroke(pattern, at, schools);
  return endOf(pattern, at, count, countWords(count, false));
}

function endOf({ start, length, meter }: Pattern, at: number, { bar }: Count, words: string): string {
  if (start + at < 0) return `${words} before the 1`;
  return start + length > barTicks(meter) ? `${words} in bar ${bar}` : words;
}

/**
 * A place as a count that is read back to it: "3&", with its bar where there is more than one, "2:3&".
 * @example
 * countRef(patternOfText(parseStrokeText('(R)x32').value, meter(4, 4), GRID.sixteenths), 25200) // => "2:2"
 */
export function countRef(pattern: Pattern, at: number): string {
  const { bar, text } = countOfStroke(pattern, at, USUAL_SCHOOLS);
  return pattern.start + pattern.length > barTicks(pattern.meter) ? `${bar}:${text}` : text;
}

/** How many places a list names before it says how many more there are. */
const MOST_PLACES = 12;
/** And where they are spelt out: "the let of 3". */
const MOST_SPELT = 4;

/**
 * Places as a short list by bar: "1, 3& and 6", or "bar 1: 1, 3& and 6; bar 2: 4" when there are more bars than one.
 */
export function placesWords(pattern: Pattern, at: readonly number[], schools: Schools): string {
  const all = at.map((t) => countOfStroke(pattern, t, schools));
  // "3&" is read at a glance; "4trip" is not, and words take room.
  const isSpelt = all.some((c) => /[a-z]{2}/.test(c.syllable));
  const most = isSpelt ? MOST_SPELT : MOST_PLACES;
  const counts = all.slice(0, most).map((c) => (isSpelt ? { ...c, text: countWords(c, false) } : c));
  const more = at.length > most ? ` and ${at.length - most} more` : '';
  if (pattern.start + pattern.length <= barTicks(pattern.meter)) return `${listed(counts.map((c) => c.text))}${more}`;
  const bars = [...new Set(counts.map((c) => c.bar))];
  return `${bars.map((bar) => `bar ${bar}: ${listed(counts.filter((c) => c.bar === bar).map((c) => c.text))}`).join('; ')}${more}`;
}

/** Where the last stroke stands and where the pattern is over; null for a pattern without strokes. */
export function endsOn(pattern: Pattern): { readonly last: Ticks; readonly release: Ticks } | null {
  const last = pattern.strokes.at(-1);
  return last ? { last: last.at, release: pattern.length } : null;
}

/**
 * Ticks from the first bar line at which a pattern must start so that its last stroke falls on `on`, a tick of a bar:
 * every start on the grid that fits into `bars` bars, earliest first.
 */
export function startsToEndOn(pattern: Pattern, on: number, bars: number): readonly Ticks[] {
  const bar = barTicks(pattern.meter);
  const last = endsOn(pattern)?.last;
  if (last === undefined) return [];
  const starts = Array.from({ length: bars }, (_, i) => on + i * bar - last);
  return starts.filter((s) => s >= 0 && s + pattern.length <= bars * bar && s % pattern.grid === 0).map(ticks);
}

/**
 * Length in words: "2 bars", "half a bar", "15 sixteenths". Of one that does not begin on the 1, and so sounds over a
 * bar more than it is long, also that: "15 sixteenths over 2 bars".
 */
export function lengthWords(
  pattern: Pick<Pattern, 'length' | 'grid' | 'meter'> & Partial<Pick<Pattern, 'start'>>,
): string {
  const { start = 0 } = pattern;
  const own = ownLength(pattern);
  if (start === 0) return own;
  const bar = barTicks(pattern.meter);
  const bars = Math.ceil((start + pattern.length) / bar);
  // Half a bar from 3 is half a bar; what reaches over one bar line more than it is long is said.
  return bars === Math.ceil(pattern.length / bar) ? own : `${own} over ${counted(bars, 'bar')}`;
}

/**
 * What a phrase is, in a line: "2 bars of 7/8 · 16ths", with its feel where it swings.
 */
export function shapeWords(pattern: Pick<Pattern, 'length' | 'grid' | 'meter' | 'feel'> & { start?: Ticks }): string {
  const { meter, grid, feel } = pattern;
  const swing = feelWords(feel);
  const long = lengthWords(pattern);
  // A length in sixteenths has said its subdivision.
  const on = long.startsWith(slotsWords(pattern.length / grid, grid)) ? '' : ` · ${gridName(grid)}`;
  return `${long} ${on === '' ? 'in' : 'of'} ${meterText(meter)}${on}${swing === '' ? '' : ` · ${swing}`}`;
}

function ownLength(pattern: Pick<Pattern, 'length' | 'grid' | 'meter'>): string {
  const bar = barTicks(pattern.meter);
  const bars = pattern.length / bar;
  if (bars === 0.5) return 'half a bar';
  if (Number.isInteger(bars * 2)) return bars === 1 ? '1 bar' : `${fraction(bars)} bars`;
  const slots = pattern.length / pattern.grid;
  return divisionOf(pattern.grid, pattern.meter) !== null || Number.isInteger(slots)
    ? slotsWords(slots, pattern.grid)
    : `${fraction(bars)} bars`;
}
