import { afterNextRender, computed, effect, inject, Injector, signal, untracked, type Signal } from '@angular/core';
import { STILLNESS } from './stilled';

/** How far the drawing is; whoever needs a part that is not there yet has all of them drawn at once. */
export interface Turns extends Signal<number> {
  /** All turns are over: the next drawing has every part. */
  atOnce(): void;
}

/**
 * Counts from 0 to `turns`, one more after each drawing, as soon as there is something to show: what a place shows is
 * drawn part by part, so that no task holds the page up and what matters most stands there first. It begins again
 * after there was nothing. Must be called in an injection context. Where nothing waits (`STILLNESS` of 0) all turns
 * are over at once.
 */
export function inTurns(turns: number, shows: () => boolean = () => true): Turns {
  if (inject(STILLNESS) === 0) return Object.assign(signal(turns).asReadonly(), { atOnce: () => undefined });
  const injector = inject(Injector);
  const turn = signal(0);
  // Only whether there is something: what is shown changes at every edit, and begins nothing anew.
  const isThere = computed(shows);
  effect((onCleanup) => {
    if (!isThere()) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // A task of its own: the browser may draw and hear the hand before it.
    const afterDrawing = (): void => {
      const next = (): void => void (timer = setTimeout(() => step()));
      const drawn = afterNextRender({ read: next }, { injector });
      stop = () => drawn.destroy();
    };
    const step = (): void => {
      turn.update((n) => Math.min(turns, n + 1));
      if (untracked(turn) < turns) afterDrawing();
    };
    let stop = (): void => undefined;
    afterDrawing();
    onCleanup(() => {
      stop();
      clearTimeout(timer);
      turn.set(0);
    });
  });
  return Object.assign(turn.asReadonly(), { atOnce: () => turn.set(turns) });
}
