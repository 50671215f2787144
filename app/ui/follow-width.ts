import { DestroyRef, inject, signal, type Signal } from '@angular/core';

/** The width of an element in px, followed as it changes. Must be called in an injection context. */
export function followWidth(element: HTMLElement): Signal<number> {
  const width = signal(element.clientWidth || 640);
  const observer = new ResizeObserver(([entry]) => {
    if (entry && entry.contentRect.width > 0) width.set(Math.floor(entry.contentRect.width));
  });
  observer.observe(element);
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return width.asReadonly();
}
