import { ticks } from '../../time';
import type { Pattern } from '../../pattern';
import { select, selectionWords, type Selection } from '../../selection';

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

/** A stretch in slots, from one up to but without another. */
export interface Span {
  readonly from: number;
  readonly until: number;
}

/**
 * The stretches that are kept: the places that are named, which may lie apart; else all from the first stroke that is
 * chosen to the last.
 */
export function spansOf(pattern: Pattern, selection: Selection): readonly Span[] {
  const named = namedSlots(pattern, selection);
  if (named.length > 0)
    return named.reduce<Span[]>((all, slot) => {
      const last = all.at(-1);
      return last?.until === slot
        ? [...all.slice(0, -1), { from: last.from, until: slot + 1 }]
        : [...all, { from: slot, until: slot + 1 }];
    }, []);
  const slots = select(pattern, selection).map((i) => Math.floor((pattern.strokes[i]?.at ?? 0) / pattern.grid));
  return slots.length === 0 ? [] : [{ from: Math.min(...slots), until: Math.max(...slots) + 1 }];
}

/** What is chosen without "all strokes" before it: "bar 4", "the second half". */
export function partWords(selection: Selection, on?: Pattern): string {
  return selectionWords(selection, on).replace(/^all strokes (?:in|on) /, '');
}
