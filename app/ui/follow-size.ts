import {
  afterNextRender,
  computed,
  DestroyRef,
  inject,
  Injector,
  runInInjectionContext,
  signal,
  type ElementRef,
  type Signal,
} from '@angular/core';

/**
 * The width of an element in px, followed as it changes. It is measured when it is first asked for: what is drawn for a
 * guess would be drawn twice. Must be called in an injection context.
 */
export function followWidth(element: HTMLElement): Signal<number> {
  const side = follow(element, null, ({ width }) => width);
  return computed(() => side() ?? widthNow(element));
}

/** The same of a part of the view that is still to be made. */
export function followWidthOf(part: Signal<ElementRef<HTMLElement>>): Signal<number> {
  const injector = inject(Injector);
  const followed = signal<Signal<number | null> | null>(null);
  afterNextRender({
    read: () => {
      const side = runInInjectionContext(injector, () => follow(part().nativeElement, null, ({ width }) => width));
      followed.set(side);
    },
  });
  return computed(() => followed()?.() ?? widthNow(part().nativeElement));
}

function widthNow(element: HTMLElement): number {
  return element.clientWidth || 640;
}

/**
 * The height of an element in px, followed as it changes; `first` until it is known. Must be called in an injection
 * context.
 */
export function followHeight(element: HTMLElement, first: number): Signal<number> {
  return follow(element, element.clientHeight || first, ({ height }) => height);
}

function follow<T extends number | null>(
  element: HTMLElement,
  first: T,
  sideOf: (size: DOMRectReadOnly) => number,
): Signal<T | number> {
  const side = signal<T | number>(first);
  const observer = new ResizeObserver(([entry]) => {
    const now = entry ? sideOf(entry.contentRect) : 0;
    if (now > 0) side.set(Math.floor(now));
  });
  observer.observe(element);
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return side.asReadonly();
}
