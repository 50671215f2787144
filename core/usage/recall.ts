import { gradeOf, newMemory, recall, remembered, type Memory } from '../player';
import type { CallCame } from './calls';

/** That a phrase came by itself, or did not when it was called. Days are practice days. */
export interface RecallEvent {
  readonly day: number;
  readonly came: CallCame;
}

/**
 * How surely a phrase comes by itself, as it is remembered: apart from how clean it is. What came in free
 * play came at once; a day counts once, as on a day of practice. Null where it was neither called nor used.
 * @example
 * recallMemory([]) // => null
 * recallMemory([{ day: 10, came: 'at once' }]).lastDay // => 10
 */
export function recallMemory(events: readonly RecallEvent[]): Memory | null {
  const days = [...new Set(events.map((e) => e.day))].sort((a, b) => a - b);
  const [first] = days;
  if (first === undefined) return null;
  return days.reduce((memory, day) => {
    const own = events.filter((e) => e.day === day);
    const came = own.reduce((n, e) => n + (e.came === 'at once' ? 1 : e.came === 'late' ? 0.5 : 0), 0);
    return remembered(memory, day, gradeOf(came, own.length));
  }, newMemory(first));
}

/**
 * The chance that a phrase comes by itself on a practice day, 0–1; null where nobody knows.
 * @example
 * recallOn([], 10) // => null
 */
export function recallOn(events: readonly RecallEvent[], day: number): number | null {
  const memory = recallMemory(events);
  if (!memory) return null;
  // What never came when it was called is not there, however short ago that is.
  const lately = events.filter((e) => e.day === memory.lastDay);
  return lately.every((e) => e.came === 'not at all') ? 0.1 : recall(memory, day);
}
