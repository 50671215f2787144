import { mod, nth } from '../base';
import { DIVISIONS, divisionOf, type Division, type Grid } from './grid';
import { barTicks, beatTicks, isCompound, type Meter } from './meter';
import { ticks, type Ticks } from './ticks';

/** How triplets and sextuplets are spoken; a setting of the user. */
export interface Schools {
  readonly triplets: 'trip-let' | 'and-a';
  readonly sextuplets: 'trip-let' | 'ta-la';
}

export const USUAL_SCHOOLS: Schools = Object.freeze({ triplets: 'trip-let', sextuplets: 'trip-let' });

const EVERY_SCHOOL: readonly Schools[] = [USUAL_SCHOOLS, { triplets: 'and-a', sextuplets: 'ta-la' }];

/** Everything that decides how a tick is counted. */
export interface Counting {
  readonly meter: Meter;
  readonly grid: Grid;
  readonly schools: Schools;
  /** Counted against a beat twice as long (half-time) or half as long (double-time); as written when absent. */
  readonly pace?: 'half' | 'double';
}

/** Length of the beat that is counted at a pace. */
function pacedBeat({ meter, pace }: Counting): number {
  const beat = beatTicks(meter);
  return pace === 'half' ? beat * 2 : pace === 'double' ? beat / 2 : beat;
}

/** How many slots of the home grid make a paced beat, when that is a usual division. */
function pacedDivision(counting: Counting): Division | null {
  if (!counting.pace) return divisionOf(counting.grid, counting.meter);
  const parts = pacedBeat(counting) / counting.grid;
  return DIVISIONS.find((d) => d === parts) ?? null;
}

/**
 * A tick as it is counted: bar and beat from 1, the syllable ('' on the beat), and the compact text that parses back.
 */
export interface Count {
  readonly bar: number;
  readonly beat: number;
  readonly syllable: string;
  readonly text: string;
}

const COMPOUND: readonly string[] = ['', '&', 'a'];

/** Syllables of each slot of a beat in `division` parts; the first is '' because the beat's number is said there. */
function syllables(division: Division, schools: Schools, compound: boolean): readonly string[] {
  // In 6/8 and its like the three eighths of a beat are no triplets: 1 & a, and the 16ths between them are dots.
  if (compound && division === 3) return COMPOUND;
  if (compound && division === 6) return dotted(COMPOUND);
  const trip = ['', 'trip', 'let'];
  const sext =
    schools.sextuplets === 'trip-let' ? ['', 'trip', 'let', '&', '&trip', '&let'] : ['', 'ta', 'la', '&', '&ta', '&la'];
  switch (division) {
    case 1:
      return [''];
    case 2:
      return ['', '&'];
    case 3:
      return schools.triplets === 'trip-let' ? trip : ['', '&', 'a'];
    case 4:
      return ['', 'e', '&', 'a'];
    case 6:
      return sext;
    case 8:
      return dotted(['', 'e', '&', 'a']);
    case 12:
      return dotted(sext);
    case 5:
    case 7:
    case 9:
      return Array.from({ length: division }, (_, i) => (i === 0 ? '' : `.${i + 1}`));
  }
}

/** Marks the in-betweens of a grid with a dot: 1 · e · & · a · */
function dotted(base: readonly string[]): string[] {
  return base.flatMap((s) => [s, `${s}·`]);
}

/** How a beat is divided where the home grid does not tell: the coarsest division that holds the offset. */
function divisionFor(offset: number, beat: number, home: Division | null): Division | null {
  if (home !== null && (offset * home) % beat === 0) return home;
  return DIVISIONS.find((d) => (offset * d) % beat === 0) ?? null;
}

/**
 * The spoken count of a tick, measured from the first bar line; negative ticks count in bars before bar 1.
 *
 * A tick on the home grid reads plainly ("3e", and "bar 2" apart). A tick off it says which division it is counted by
 * ("3e/4": in four to the beat), and a tick on no grid at all how far it is from the beat ("3+37"), so that every tick
 * has a count and every count is one tick.
 * @example
 * countAt(12600, { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }).text // => "3&"
 * countAt(26460, { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }) // => { bar: 2, beat: 2, syllable: 'e', text: '2e' }
 */
export function countAt(tick: number, counting: Counting): Count {
  const { meter, schools } = counting;
  const bar = barTicks(meter);
  const beat = pacedBeat(counting);
  const inBar = mod(tick, bar);
  const number = Math.floor(inBar / beat) + 1;
  const offset = inBar % beat;
  const home = pacedDivision(counting);
  const division = divisionFor(offset, beat, home);
  const place = { bar: Math.floor(tick / bar) + 1, beat: number };
  if (division === null) return { ...place, syllable: `+${offset}`, text: `${number}+${offset}` };
  const syllable = syllables(division, schools, isCompound(meter))[(offset * division) / beat] ?? '';
  const plain = division === home || offset === 0;
  return { ...place, syllable, text: `${number}${syllable}${plain ? '' : `/${division}`}` };
}

/**
 * A count back to its tick: "3e", "4&", "2:1a" (bar 2), "3e/4", "3+37". Ticks are measured from the first bar line; a
 * count without a bar is in bar 1. A syllable is read by the given schools first, then by the others, so that a recipe
 * means the same whatever its user says aloud. Null when the count is not one of this meter and grid.
 * @example
 * parseCount('4&', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }) // => 17640
 * parseCount('2:1a', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }) // => 23940
 * parseCount('1&', { meter: meter(4, 4), grid: 1680, schools: USUAL_SCHOOLS }) // => 1680
 * parseCount('1trip', { meter: meter(4, 4), grid: 1680, schools: { triplets: 'and-a', sextuplets: 'ta-la' } }) // => 1680
 * parseCount('5', { meter: meter(4, 4), grid: 1260, schools: USUAL_SCHOOLS }) // => null
 */
export function parseCount(text: string, counting: Counting): Ticks | null {
  const found = /^(?:(-?\d+):)?(\d+)(.*)$/.exec(text.replace(/\s+/g, '').toLowerCase().replace(/and/g, '&'));
  if (!found) return null;
  const { meter } = counting;
  const beat = pacedBeat(counting);
  const number = Number(found[2]);
  if (number < 1 || number > Math.ceil(barTicks(meter) / beat)) return null;
  const base = (Number(found[1] ?? '1') - 1) * barTicks(meter) + (number - 1) * beat;
  const offset = offsetOf(found[3] ?? '', beat, pacedDivision(counting), counting);
  return offset === null ? null : ticks(base + offset);
}

function offsetOf(rest: string, beat: number, home: Division | null, { schools, meter }: Counting): number | null {
  if (rest === '') return 0;
  const free = /^\+(\d+)$/.exec(rest);
  if (free) return Number(free[1]) < beat ? Number(free[1]) : null;
  const [, syllable = '', by] = /^([^/]*)(?:\/(\d+))?$/.exec(rest) ?? [];
  const wanted = by === undefined ? null : DIVISIONS.find((d) => d === Number(by));
  if (wanted === undefined) return null;
  const divisions = wanted !== null ? [wanted] : home !== null ? [home, ...DIVISIONS] : DIVISIONS;
  for (const division of divisions) {
    for (const school of [schools, ...EVERY_SCHOOL]) {
      const slot = syllables(division, school, isCompound(meter)).indexOf(syllable);
      if (slot > 0 && (beat * slot) % division === 0) return (beat * slot) / division;
    }
  }
  return null;
}

/**
 * A count as it stands in a sentence.
 * @example
 * countWords({ bar: 1, beat: 3, syllable: 'e', text: '3e' }, false) // => "the e of 3"
 * countWords({ bar: 2, beat: 1, syllable: '', text: '1' }, true) // => "beat 1 in bar 2"
 * countWords({ bar: 1, beat: 1, syllable: '&let', text: '1&let' }, false) // => "the let after the & of 1"
 * countWords({ bar: 1, beat: 2, syllable: 'e·', text: '2e·' }, false) // => "just after the e of 2"
 */
export function countWords(count: Count, withBar: boolean): string {
  const words = inBeatWords(count);
  return withBar ? `${words} in bar ${count.bar}` : words;
}

function inBeatWords({ beat, syllable }: Count): string {
  if (syllable === '') return `beat ${beat}`;
  if (syllable.startsWith('+')) return `just after beat ${beat}`;
  if (syllable.startsWith('.')) return `the ${nth(Number(syllable.slice(1)))} note of beat ${beat}`;
  if (syllable.endsWith('·'))
    return `just after ${inBeatWords({ bar: 1, beat, syllable: syllable.slice(0, -1), text: '' })}`;
  if (syllable.startsWith('&') && syllable.length > 1) return `the ${syllable.slice(1)} after the & of ${beat}`;
  return `the ${syllable} of ${beat}`;
}
