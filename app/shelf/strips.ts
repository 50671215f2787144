import { gridName, meterText } from '@core/time';
import { lengthWords, type Pattern } from '@core/pattern';
import { FAMILIES, type Family, type Phrase } from '@core/recipe';
import { NO_BEST, type Best } from '@core/drill';
import { builtOf } from '../data/built';

/** A phrase as it lies on the shelf. */
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

const TITLES: Readonly<Record<Family, string>> = { fill: 'Fills', lick: 'Licks', groove: 'Grooves', 'warm-up': 'Warm-ups' };

export function stripOf(phrase: Phrase, best: Best): Strip {
  const { pattern } = builtOf(phrase);
  const facts = `${lengthWords(pattern)} of ${meterText(pattern.meter)} · ${gridName(pattern.grid)}`;
  return { kind: 'strip', phrase, pattern, facts, best, share: Math.min(1, (best.clean ?? 0) / phrase.goal) };
}

/** Phrases that hold every word of the search in name, family, note, meter or grid. */
export function found(phrases: readonly Phrase[], words: string): readonly Phrase[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return phrases;
  return phrases.filter((p) => {
    const { pattern } = builtOf(p);
    const text = `${p.name} ${p.family} ${p.note} ${meterText(pattern.meter)} ${gridName(pattern.grid)}`.toLowerCase();
    return wanted.every((w) => text.includes(w));
  });
}

/** The rows of the shelf: each family that has phrases, and its phrases by name. */
export function rowsOf(phrases: readonly Phrase[], best: ReadonlyMap<string, Best>): readonly Row[] {
  return FAMILIES.flatMap((family): Row[] => {
    const own = phrases.filter((p) => p.family === family).sort((a, b) => a.name.localeCompare(b.name));
    if (own.length === 0) return [];
    return [{ kind: 'head', family, title: TITLES[family], many: own.length }, ...own.map((p) => stripOf(p, best.get(p.id) ?? NO_BEST))];
  });
}

/** Ticks that the strips' full width stands for: the longest pattern, up to eight bars of 4/4. */
export function widestTicks(rows: readonly Row[]): number {
  return rows.reduce((most, r) => (r.kind === 'strip' ? Math.max(most, Math.min(8 * 20160, r.pattern.length)) : most), 1);
}
