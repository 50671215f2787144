import { gridName, meterText } from '@core/time';
import { lengthWords, type Pattern } from '@core/pattern';
import { USUAL_KIT, type Kit } from '@core/kit';
import { rendition } from '@core/rendition';
import { FAMILIES, type Family, type Phrase } from '@core/recipe';
import { NO_BEST, type Best } from '@core/drill';
import { knownPattern, patternOf } from '../data/patterns';

/** A phrase as it lies on the shelf. Its pattern is worked out when it comes into view. */
export interface Strip {
  readonly kind: 'strip';
  readonly phrase: Phrase;
  readonly pattern: Pattern;
  readonly facts: string;
  readonly best: Best;
  /** Share of the goal that is clean, 0–1. */
  readonly share: number;
}

/** The head of a family, with how many lie under it. */
export interface Head {
  readonly kind: 'head';
  readonly family: Family;
  readonly title: string;
  readonly many: number;
}

export type Row = Head | Strip;

/** The longest a strip is drawn, in ticks: eight bars of 4/4. */
export const LONGEST_STRIP = 8 * 20160;

const TITLES: Readonly<Record<Family, string>> = {
  fill: 'Fills',
  lick: 'Licks',
  groove: 'Grooves',
  'warm-up': 'Warm-ups',
};
const { compare } = new Intl.Collator();

export function stripOf(phrase: Phrase, best: Best, kit: Kit = USUAL_KIT): Strip {
  let voiced: Pattern | null = null;
  const pattern = (): Pattern => (voiced ??= rendition({ phrase: patternOf(phrase), kit }).pattern);
  return {
    kind: 'strip',
    phrase,
    best,
    share: Math.min(1, (best.clean ?? 0) / phrase.goal),
    get pattern() {
      return pattern();
    },
    get facts() {
      const p = pattern();
      return `${lengthWords(p)} of ${meterText(p.meter)} · ${gridName(p.grid)}`;
    },
  };
}

/**
 * Phrases that hold every word of the search in name, family, note, meter or grid. Of one not worked out yet, meter and
 * grid are those it begins with.
 */
export function found(phrases: readonly Phrase[], words: string): readonly Phrase[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return phrases;
  return phrases.filter((p) => {
    const text = textOf(p);
    return wanted.every((w) => text.includes(w));
  });
}

/** What was put together for the search, for phrases whose pattern was known by then. */
const texts = new WeakMap<Phrase, string>();

function textOf(phrase: Phrase): string {
  const said = texts.get(phrase);
  if (said !== undefined) return said;
  const pattern = knownPattern(phrase);
  const { meter, grid } = phrase.recipe.source;
  const measure = pattern ? `${meterText(pattern.meter)} ${gridName(pattern.grid)}` : `${meter} ${gridName(grid)}`;
  const text = `${phrase.name} ${phrase.family} ${phrase.note} ${measure}`.toLowerCase();
  if (pattern) texts.set(phrase, text);
  return text;
}

/** Phrases in the order of their names. */
export function byName(phrases: readonly Phrase[]): readonly Phrase[] {
  return [...phrases].sort((a, b) => compare(a.name, b.name));
}

/** The rows of the shelf: each family that has phrases, and its phrases in the order they come in. */
export function rowsOf(
  phrases: readonly Phrase[],
  best: ReadonlyMap<string, Best>,
  kit: Kit = USUAL_KIT,
): readonly Row[] {
  return FAMILIES.flatMap((family): Row[] => {
    const own = phrases.filter((p) => p.family === family);
    if (own.length === 0) return [];
    return [
      { kind: 'head', family, title: TITLES[family], many: own.length },
      ...own.map((p) => stripOf(p, best.get(p.id) ?? NO_BEST, kit)),
    ];
  });
}
