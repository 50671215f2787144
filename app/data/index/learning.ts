import { checksumOf, stableJson } from '@core/base';
import { shownTempo } from '@core/drill';
import type { Kit } from '@core/kit';
import type { Pattern } from '@core/pattern';
import { ableOf, ceilingOn, lessonFor, lessonsOf, type Able, type Lesson, type Profile } from '@core/reach';
import { now } from '../clock';
import type { Entry } from './entries';
import type { Ceiling } from './entry';

/** For whom and on which kit ceilings are worked out, with what clean tries showed beyond the tests. */
export interface Reckoned {
  readonly kit: Kit;
  readonly profile: Profile;
  /** What kit and profile are known by, and what they are with the lessons; the same where there are none. */
  readonly key: string;
  readonly ableKey: string;
  readonly lessons: readonly Lesson[];
  readonly able: Able;
}

/** The reckoning before anything was learnt. */
export function reckonedFor(kit: Kit, profile: Profile): Reckoned {
  const key = checksumOf(stableJson([kit, profile]));
  return { kit, profile, key, ableKey: key, lessons: [], able: profile };
}

/** The same with other lessons. */
export function learnt(before: Reckoned, lessons: readonly Lesson[]): Reckoned {
  const { key, profile } = before;
  if (lessons.length === 0) return { ...before, lessons, ableKey: key, able: profile };
  return { ...before, lessons, ableKey: checksumOf(stableJson([key, lessons])), able: ableOf(profile, lessons) };
}

/** The phrases that were played clean above what is worked out of them: they have something to teach. */
export function teachers(entries: readonly Entry[], { key }: Reckoned): readonly Entry[] {
  return entries.filter((e) => {
    if (e.ceiling?.for !== key || e.ceiling.bpm === null) return false;
    const shown = shownTempo(e.best.shown ?? [], e.changed, now());
    return shown !== null && shown.bpm > e.ceiling.bpm;
  });
}

/** What they teach. */
export function lessonsFrom(
  taught: readonly { readonly entry: Entry; readonly pattern: Pattern }[],
  { kit, profile }: Reckoned,
): readonly Lesson[] {
  const proofs = taught.flatMap(({ entry, pattern }) => {
    const shown = shownTempo(entry.best.shown ?? [], entry.changed, now());
    return shown ? [{ name: entry.name.slice(0, 200), pattern, bpm: shown.bpm, at: shown.at }] : [];
  });
  return lessonsOf(proofs, kit, profile);
}

/** Whether a ceiling is what would be worked out now. */
export function isWorkedOut(ceiling: Ceiling | null, { key, ableKey, lessons }: Reckoned): boolean {
  return ceiling?.for === key && (lessons.length === 0 || ceiling.taught?.for === ableKey);
}

/** The ceiling of a pattern, with what was shown on other phrases. */
export function ceilingFor(pattern: Pattern, { kit, profile, key, ableKey, lessons, able }: Reckoned): Ceiling {
  const before = ceilingOn(pattern, kit, profile);
  const found = { for: key, bpm: before.bpm === null ? null : Math.floor(before.bpm), estimate: before.estimate };
  if (lessons.length === 0 || before.bpm === null) return { ...found, taught: null };
  const bpm = ceilingOn(pattern, kit, able).bpm ?? before.bpm;
  const lesson = lessonFor(before, lessons);
  return { ...found, taught: { for: ableKey, bpm, name: lesson?.name ?? '', at: lesson?.at ?? 0 } };
}
