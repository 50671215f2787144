import { ticks } from '../../time';
import type { Pattern } from '../../pattern';
import { select, type Selection } from '../../selection';

/** Whether a choice says where, and nothing of what is struck there. */
export function namesPlaces(s: Selection): boolean {
  if (s.is === 'and') return s.all.every(namesPlaces);
  if (s.is === 'or') return s.any.every(namesPlaces);
  return s.is === 'count' || s.is === 'beat' || s.is === 'bar' || s.is === 'half' || s.is === 'stretch';
}

/**
 * Slots that a choice names by where they are, struck or not, from 0 and ascending: found by putting a stroke on each.
 * None where it chooses by what is struck.
 */
export function namedSlots(pattern: Pattern, selection: Selection): readonly number[] {
  if (!namesPlaces(selection)) return [];
  const { grid } = pattern;
  const strokes = Array.from({ length: Math.ceil(pattern.length / grid) }, (_, slot) => ({
    at: ticks(slot * grid),
    limb: 'R' as const,
    voice: 'snare' as const,
    level: 'tap' as const,
    from: { index: slot, repeat: 0, move: null },
  }));
  return select({ ...pattern, strokes }, selection);
}
