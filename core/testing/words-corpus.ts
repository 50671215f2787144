import { barTicks, beatTicks, isCompound, parseGrid, type Meter } from '../time';
import type { Pattern } from '../pattern';
import { build, type Build, type MoveEntry } from '../recipe';

type Row = readonly [place: string, limb: string, voice: string, level: string, ornament: string | null];

/** A sentence with exact results, as a line of `words.jsonl` has it. */
export interface Sentence {
  readonly id: string;
  readonly kind: string;
  readonly base: {
    readonly text: string;
    readonly meter: string;
    readonly grid: string;
    readonly moves?: readonly string[];
    readonly strokes?: readonly Row[];
  };
  readonly say: string;
  readonly means: 'apply' | 'ask' | 'refuse';
  readonly result?: readonly Row[] | null;
  readonly results?: readonly (readonly Row[])[];
  readonly length?: number | string | null;
  readonly lengths?: readonly (number | string | null)[];
  readonly blame?: string;
}

export interface Answer {
  readonly offers: readonly { readonly moves: readonly MoveEntry[] }[];
  /** The words that are to blame; null when it does not say. */
  readonly blame: string | null;
}

/** right: exactly as it should be · missed: refused though it can be done · wrong: something else is done. */
export type Score = 'right' | 'missed' | 'wrong';

/** A place of the table as a tick from the first bar line: a count of the base's grid, or "+n/d" quarters. */
function tickOf(place: string, meter: Meter, grid: number): number {
  const free = /^\+(\d+)\/(\d+)$/.exec(place);
  if (free) return (Number(free[1]) * 5040) / Number(free[2]);
  const [, bar = '1', beat = '1', syllable = ''] = /^(?:(\d+):)?(\d+)(.*)$/.exec(place) ?? [];
  const long = beatTicks(meter);
  const parts = long / grid;
  const names: Readonly<Record<string, number>> = isCompound(meter)
    ? { '&': 1 / 3, a: 2 / 3 }
    : parts === 3
      ? { trip: 1 / 3, let: 2 / 3 }
      : parts === 6
        ? { trip: 1 / 6, let: 2 / 6, '&': 3 / 6, '&trip': 4 / 6, '&let': 5 / 6 }
        : { e: 1 / 4, '&': 1 / 2, a: 3 / 4 };
  const into = syllable === '' ? 0 : (names[syllable] ?? NaN);
  return Math.round((Number(bar) - 1) * barTicks(meter) + (Number(beat) - 1) * long + into * long);
}

const keyOf = (rows: readonly (readonly [number, ...unknown[]])[], length: number): string =>
  JSON.stringify([length, [...rows].sort((a, b) => a[0] - b[0] || (String(a[1]) < String(b[1]) ? -1 : 1))]);
const keyOfPattern = (p: Pattern): string =>
  keyOf(
    p.strokes.map((s) => [p.start + s.at, s.limb, s.voice, s.level, s.ornament ?? null]),
    p.length,
  );

const more = (built: Build, moves: readonly MoveEntry[]): Build => {
  const { moves: before } = built.recipe;
  return build({
    ...built.recipe,
    moves: [...before, ...moves.map((m, i) => ({ ...m, id: `c${before.length + i}` }))],
  });
};

/** The phrase a sentence is said of. Its earlier moves are words too; `strokes` is what they must have made. */
function baseOf({ base }: Sentence, read: (say: string, built: Build) => Answer): Build {
  const grid = parseGrid(base.grid);
  if (grid === null) throw new Error(`no grid: ${base.grid}`);
  let built = build({ source: { kind: 'typed', text: base.text, meter: base.meter, grid }, moves: [] });
  for (const words of base.moves ?? []) built = more(built, read(words, built).offers[0]?.moves ?? []);
  const { meter } = built.pattern;
  const made = keyOf(
    (base.strokes ?? []).map(([place, ...rest]) => [tickOf(place, meter, grid), ...rest]),
    built.pattern.length,
  );
  if (base.strokes && made !== keyOfPattern(built.pattern)) throw new Error(`base not made: ${base.text}`);
  return built;
}

/**
 * Scores what a reader makes of a sentence, strictly: one meaning where it is sure, exactly the meanings where it is
 * to be asked, the right words to blame where it is to be refused.
 */
export function scoreOf(sentence: Sentence, read: (say: string, built: Build) => Answer): Score {
  const built = baseOf(sentence, read);
  const { meter, grid, length } = built.pattern;
  const wanted = (rows: readonly Row[], long: number | string | null | undefined): string => {
    const [slots = 0, of = 1] = long === null || long === undefined ? [] : String(long).split('/').map(Number);
    const ticks = long === null || long === undefined ? length : (slots / of) * grid;
    return keyOf(
      rows.map(([place, ...rest]) => [tickOf(place, meter, grid), ...rest]),
      ticks,
    );
  };
  const { offers, blame } = read(sentence.say, built);
  const got = new Set(offers.map((o) => keyOfPattern(more(built, o.moves).pattern)));
  if (sentence.means === 'refuse') {
    const meant = words(sentence.blame ?? '');
    return got.size > 0 ? 'wrong' : words(blame ?? '').some((w) => meant.includes(w)) ? 'right' : 'missed';
  }
  if (got.size === 0) return 'missed';
  const all =
    sentence.means === 'ask'
      ? (sentence.results ?? []).map((r, i) => wanted(r, sentence.lengths?.[i]))
      : [wanted(sentence.result ?? [], sentence.length)];
  return got.size === all.length && all.every((w) => got.has(w)) ? 'right' : 'wrong';
}

const FILLER = new Set(['the', 'a', 'of', 'on', 'to', 'and', 'it', 'in', 'with']);
const words = (text: string): readonly string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9&%]+/)
    .filter((w) => w !== '' && !FILLER.has(w));
