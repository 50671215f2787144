import { computed, effect, inject, InjectionToken, signal, untracked, type Signal } from '@angular/core';

/**
 * How long a thing must be still before what only follows from it is worked out, in milliseconds. 0 works it out at
 * once.
 */
export const STILLNESS = new InjectionToken<number>('stillness', { factory: () => 140 });

/**
 * Follows a value when it has been still for a moment: for what may come later than the ribbon under the hand, so that
 * writing is never waited for. What comes after nothing is there at once. `times` waits longer, so that several
 * followers do not work in the same frame. Must be called in an injection context.
 */
export function stilled<T>(source: () => T | null, times = 1): Signal<T | null> {
  const still = inject(STILLNESS) * times;
  if (still === 0) return computed(source);
  const state = signal<T | null>(null);
  effect((onCleanup) => {
    const now = source();
    const before = untracked(state);
    if (now === before) return;
    if (before === null || now === null) {
      state.set(now);
      return;
    }
    const timer = setTimeout(() => state.set(now), still);
    onCleanup(() => clearTimeout(timer));
  });
  return state.asReadonly();
}
