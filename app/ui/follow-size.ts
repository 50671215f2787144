import { DestroyRef, inject, signal, type Signal } from '@angular/core';

/** The width of an element in px, followed as it changes. Must be called in an injection context. */
export function followWidth(element: HTMLElement): Signal<number> {
  return follow(element, element.clientWidth || 640, ({ width }) => width);
}

/**
 * The height of an element in px, followed as it changes; `first` until it is known. Must be called in an injection
 * context.
 */
export function followHeight(element: HTMLElement, first: number): Signal<number> {
  return follow(element, element.clientHeight || first, ({ height }) => height);
}

function follow(element: HTMLElement, first: number, sideOf: (size: DOMRectReadOnly) => number): Signal<number> {
  const side = signal(first);
  const observer = new ResizeObserver(([entry]) => {
    const now = entry ? sideOf(entry.contentRect) : 0;
    if (now > 0) side.set(Math.floor(now));
  });
  observer.observe(element);
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return side.asReadonly();
}
