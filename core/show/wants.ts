import type { GoalDay } from '../recipe';
import type { Show } from '../shelf';
import { SAFE } from './night';
import { goodSpots } from './room';

/** What a show wants of a phrase: the tempo of its cue, in counted beats a minute, by the show's day. */
export interface Want {
  readonly tempo: number;
  readonly day: number;
  readonly show: string;
}

/** What shows that are to come want of each phrase, the first day first. Shows without a day want nothing by a day. */
export function wantsOf(shows: readonly Show[], today: number): ReadonlyMap<string, readonly Want[]> {
  const found = new Map<string, Want[]>();
  for (const show of shows) {
    const { day } = show;
    if (show.dropped || day === null || day < today) continue;
    for (const cue of show.cues)
      for (const { phrase } of goodSpots(cue))
        if (phrase !== null)
          found.set(phrase, [...(found.get(phrase) ?? []), { tempo: cue.tempo, day, show: show.name }]);
  }
  for (const own of found.values()) own.sort((a, b) => a.day - b.day || b.tempo - a.tempo);
  return found;
}

/** The goal of a phrase and the day it is wanted. */
export interface Goal {
  readonly goal: number;
  readonly by: GoalDay | null;
}

/**
 * The goal of a phrase that shows want: the harder demand. That is the first night for which it is not ready yet; where
 * it is ready for all of them, the fastest. Its own goal counts where it has a day that is no later; without a day the
 * show's stands in its place. With no wants it is its own. `chanceOf` is the chance that a tempo is ready by a day.
 */
export function goalUnder(own: Goal, wants: readonly Want[], chanceOf: (tempo: number, day: number) => number): Goal {
  const [first] = wants;
  if (!first) return own;
  const isOpen = (w: Want): boolean => chanceOf(w.tempo, w.day) < SAFE;
  const pressing = wants.find(isOpen);
  const fastest = wants.reduce((best, w) => (w.tempo > best.tempo ? w : best), first);
  const { tempo, day } = pressing ?? fastest;
  // Of one night it is the faster of its cues.
  const goal = Math.max(tempo, ...wants.filter((w) => w.day === day).map((w) => w.tempo));
  const mine = own.by !== null && own.by.day <= day && own.goal >= goal;
  return mine
    ? own
    : { goal: own.by === null || own.by.day > day ? goal : Math.max(goal, own.goal), by: { day, what: 'night' } };
}
