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
  type WritableSignal,
} from '@angular/core';

/**
 * The width of an element in px, followed as it changes. It is measured when it is first asked for: what is drawn for a
 * guess would be drawn twice. Must be called in an injection context.
 */
export function followWidth(element: HTMLElement): Signal<number> {
  const side = follow(element, signal<number | null>(null), ({ width }) => width);
  return computed(() => side() ?? widthNow(element));
}

/**
 * The same of a part of the view that is still to be made, as wide as other such parts: what is known of one is known
 * of all, and none has the page laid out to be measured.
 */
export function followSharedWidth(
  part: Signal<ElementRef<HTMLElement>>,
  shared: WritableSignal<number | null>,
): Signal<number> {
  const injector = inject(Injector);
  const begin = (): void =>
    void runInInjectionContext(injector, () => follow(part().nativeElement, shared, ({ width }) => width));
  afterNextRender({ read: begin });
  return computed(() => shared() ?? widthNow(part().nativeElement));
}

function widthNow(element: HTMLElement): number {
  return element.clientWidth || 640;
}

/**
 * The height of an element in px, followed as it changes; `first` until it is known. Must be called in an injection
 * context.
 */
export function followHeight(element: HTMLElement, first: number): Signal<number> {
  return follow(element, signal(element.clientHeight || first), ({ height }) => height);
}

function follow<T extends number | null>(
  element: HTMLElement,
  side: WritableSignal<T | number>,
  sideOf: (size: DOMRectReadOnly) => number,
): Signal<T | number> {
  const observer = new ResizeObserver(([entry]) => {
    const now = entry ? sideOf(entry.contentRect) : 0;
    if (now > 0) side.set(Math.floor(now));
  });
  observer.observe(element);
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return side.asReadonly();
}
