import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { tinykeys } from 'tinykeys';
import { HealthService } from '../storage/health.service';

/** One key of a place: the combination, what it does in words, and the doing. */
export interface Key {
  readonly combo: string;
  /** How the key is written for people. */
  readonly shown: string;
  readonly does: string;
  readonly run: (event: KeyboardEvent) => void;
}

/** Keys of the shell and of the place that is open. The list is also what `?` shows. */
@Injectable({ providedIn: 'root' })
export class KeysService {
  private readonly health = inject(HealthService);
  private readonly listed = signal<readonly (readonly Key[])[]>([]);
  /** Every key that works now, the shell's first. */
  readonly all = computed(() =>
    this.listed().map((keys, i, lists) =>
      keys.filter((key) => !lists.slice(i + 1).some((later) => later.some((k) => k.combo === key.combo))),
    ),
  );

  /** Binds keys for as long as the calling component lives. Must run in an injection context. */
  use(keys: readonly Key[]): void {
    const unbind = tinykeys(
      window,
      Object.fromEntries(
        keys.map((key) => [
          key.combo,
          (e: KeyboardEvent) => this.isLast(keys, key) && this.health.ended() === null && runIfFree(key, e),
        ]),
      ),
    );
    this.listed.update((all) => [...all, keys]);
    inject(DestroyRef).onDestroy(() => {
      unbind();
      this.listed.update((all) => all.filter((k) => k !== keys));
    });
  }

  /** A key of a place goes before the same key of the shell. */
  private isLast(keys: readonly Key[], { combo }: Key): boolean {
    return this.listed().findLast((list) => list.some((k) => k.combo === combo)) === keys;
  }
}

/** Letters that step through something: held, they go on. */
const STEPS = ',.';

/**
 * Keys belong to whoever is typing first: letters to fields, Space and Enter to buttons and switches that were reached
 * by keyboard.
 */
function runIfFree(key: Key, event: KeyboardEvent): void {
  const target = event.target instanceof Element ? event.target : null;
  if (target?.closest('.p-dialog') && key.combo !== 'Escape') return;
  if (
    target?.closest(
      'input:not([type=range]):not([type=checkbox]), textarea, select, [contenteditable=true], [role=combobox], [role=listbox]',
    )
  )
    return;
  if (target?.closest('[role=slider]') && event.key.startsWith('Arrow')) return;
  const activates = event.key === ' ' || event.key === 'Enter';
  // A key that is held is one act; only what steps or walks goes on.
  const acts = activates || (event.key.length === 1 && !STEPS.includes(event.key));
  if (event.repeat && acts && !event.ctrlKey && !event.metaKey) return;
  if (activates && target?.closest('button, a, input, [role=switch], [role=option], [role=button]')) return;
  event.preventDefault();
  key.run(event);
}
