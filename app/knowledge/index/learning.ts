import { checksumOf, stableJson } from '@core/base';
import { shownTempo, type ShownTempo } from '@core/drill';
import type { Kit } from '@core/kit';
import type { Pattern } from '@core/pattern';
import {
  effectiveProfile,
  ceilingOn,
  gathered,
  lessonFor,
  taughtBy,
  type Able,
  type Lesson,
  type Profile,
} from '@core/reach';
import { now } from '../../environment/clock';
import type { Entry } from './entries';
import type { Ceiling } from './entry';

/** For whom and on which kit ceilings are worked out, with what clean tries showed beyond the tests. */
export interface PlayerContext {
  readonly kit: Kit;
  readonly profile: Profile;
  /** What kit and profile are known by, and what they are with the lessons; the same where there are none. */
  readonly key: string;
  readonly ableKey: string;
  readonly lessons: readonly Lesson[];
  readonly able: Able;
}

/** The reckoning before anything was learnt. */
export function playerContext(kit: Kit, profile: Profile): PlayerContext {
  const key = checksumOf(stableJson([kit, profile]));
  return { kit, profile, key, ableKey: key, lessons: [], able: profile };
}

/** The same with other lessons. */
export function learnt(before: PlayerContext, lessons: readonly Lesson[]): PlayerContext {
  const { key, profile } = before;
  if (lessons.length === 0) return { ...before, lessons, ableKey: key, able: profile };
  return {
    ...before,
    lessons,
    ableKey: checksumOf(stableJson([key, lessons])),
    able: effectiveProfile(profile, lessons),
  };
}

/** What was shown of a phrase, where it goes beyond what is worked out of it: it has something to teach. */
function teaching({ best, changed }: Entry, bpm: number | null): ShownTempo | null {
  const shown = shownTempo(best.shown ?? [], changed, now());
  return shown && bpm !== null && shown.bpm > bpm ? shown : null;
}

/** What clean tries of all phrases teach, from what each was found to teach. */
export function lessonsFrom(entries: readonly Entry[], { key, profile }: PlayerContext): readonly Lesson[] {
  const all = entries.flatMap((e) => {
    const known = e.ceiling?.for === key && teaching(e, e.ceiling.bpm) ? e.ceiling.teaches : null;
    return (known?.lessons ?? []).map((l) => ({ ...l, name: e.name.slice(0, 200) }));
  });
  return gathered(all, profile);
}

/** Whether all that follows from a phrase by itself is known: its ceiling, and what was shown beyond it. */
export function isKnown(entry: Entry, { key }: PlayerContext): boolean {
  const { ceiling } = entry;
  if (ceiling?.for !== key) return false;
  const shown = teaching(entry, ceiling.bpm);
  return shown === null || (ceiling.teaches?.bpm === shown.bpm && ceiling.teaches.at === shown.at);
}

/** Whether a ceiling is what would be worked out now, with what others teach. */
export function isWorkedOut(entry: Entry, reckoned: PlayerContext): boolean {
  const { ableKey, lessons } = reckoned;
  return isKnown(entry, reckoned) && (lessons.length === 0 || entry.ceiling?.taught?.for === ableKey);
}

/** The ceiling of a phrase, what was shown beyond it, and with what was shown on other phrases. */
export function ceilingFor(pattern: Pattern, entry: Entry, reckoned: PlayerContext): Ceiling {
  const { kit, profile, key, ableKey, lessons, able } = reckoned;
  const before = ceilingOn(pattern, kit, profile);
  const bpm = before.bpm === null ? null : Math.floor(before.bpm);
  const shown = teaching(entry, bpm);
  const teaches = shown && {
    bpm: shown.bpm,
    at: shown.at,
    lessons: gathered(taughtBy({ name: '', pattern, bpm: shown.bpm, at: shown.at }, kit, profile), profile),
  };
  const found = { for: key, bpm, estimate: before.estimate, teaches };
  if (lessons.length === 0 || before.bpm === null) return { ...found, taught: null };
  const raised = ceilingOn(pattern, kit, able).bpm ?? before.bpm;
  const lesson = lessonFor(before, lessons);
  return { ...found, taught: { for: ableKey, bpm: raised, name: lesson?.name ?? '', at: lesson?.at ?? 0 } };
}
