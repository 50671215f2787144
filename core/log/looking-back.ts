import type { Family } from '../recipe';

/** A day of practice over the whole shelf. */
export interface PracticeDay {
  /** Days since 1970-01-01 on the player's own calendar. */
  readonly day: number;
  /** Seconds by family. */
  readonly seconds: Readonly<Partial<Record<Family, number>>>;
  /** Strokes of each hand. */
  readonly R: number;
  readonly L: number;
}

/** What a phrase gave to a day. */
export interface PhraseDay {
  readonly day: number;
  readonly seconds: number;
  readonly beats: number;
}

/** The days of all phrases together, oldest first. `hands` is strokes of each hand in a counted beat. */
export function practiceDays(
  phrases: readonly {
    readonly family: Family;
    readonly hands: { readonly R: number; readonly L: number };
    readonly days: readonly PhraseDay[];
  }[],
): readonly PracticeDay[] {
  const by = new Map<number, { day: number; seconds: Partial<Record<Family, number>>; R: number; L: number }>();
  for (const { family, hands, days } of phrases)
    for (const { day, seconds, beats } of days) {
      const own = by.get(day) ?? { day, seconds: {}, R: 0, L: 0 };
      own.seconds[family] = (own.seconds[family] ?? 0) + seconds;
      own.R += beats * hands.R;
      own.L += beats * hands.L;
      by.set(day, own);
    }
  return [...by.values()].sort((a, b) => a.day - b.day);
}

/** Strokes of the busier hand on a day. */
export function busier({ R, L }: Pick<PracticeDay, 'R' | 'L'>): number {
  return Math.round(Math.max(R, L));
}

/** Minutes of a day in all. */
export function minutesOf({ seconds }: Pick<PracticeDay, 'seconds'>): number {
  return Object.values(seconds).reduce((a, b) => a + b, 0) / 60;
}

/** A phrase that is owned and was not played lately. */
export interface Avoided {
  readonly id: string;
  readonly name: string;
  /** Days since it was played. */
  readonly days: number;
  /** The chance that a try at its goal is clean, 0–1. */
  readonly sure: number;
  /** Days until its night; null without one. */
  readonly night: number | null;
}

/**
 * What is avoided, the most pressing first: what has a night before what has none, then what was longest not played.
 */
export function mostAvoided(phrases: readonly Avoided[]): readonly Avoided[] {
  const soon = (p: Avoided): number => p.night ?? Infinity;
  return [...phrases].sort((a, b) => {
    const [x, y] = [Number(soon(a) < Infinity), Number(soon(b) < Infinity)];
    return y - x || b.days - a.days || (a.name < b.name ? -1 : 1);
  });
}
