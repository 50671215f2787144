import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Pattern } from '@core/pattern';
import { withLimbs, type Stickings, type StickingWish } from '@core/sticking';
import type { LightStickings } from './light-stickings';
import { spawnSticking } from './spawn-sticking';

interface StickingApi {
  find(pattern: Pattern, wish: StickingWish, tell: (share: number) => void): LightStickings;
}

/** A worker and its remote, kept together: a remote that is thrown away takes the worker's ear with it. */
interface Held {
  readonly worker: Worker;
  readonly remote: Remote<StickingApi>;
  /** Fails when the worker breaks: its remote would wait for ever. */
  readonly broken: Promise<never>;
}

/** A search for stickings that is under way. */
export interface StickingSearch {
  readonly found: Promise<Stickings>;
  cancel(): void;
}

/**
 * Finds stickings off the main thread. A worker that has answered is kept for the next search, as the first one of a
 * fresh worker takes several times as long; cancelling ends it at once, and another stands ready.
 */
@Injectable({ providedIn: 'root' })
export class StickingWorker {
  private spare: Held | null = null;

  /** Has a worker ready before it is asked. */
  warm(): void {
    this.spare ??= this.start();
  }

  search(pattern: Pattern, wish: StickingWish, tell: (share: number) => void): StickingSearch {
    const held = this.spare ?? this.start();
    this.spare = null;
    let over = false;
    const found = Promise.race([held.remote.find(pattern, wish, proxy(tell)), held.broken]).then(
      (light): Stickings => {
        over = true;
        if (this.spare) held.worker.terminate();
        else this.spare = held;
        return { ...light, found: light.found.map((s) => ({ ...s, pattern: withLimbs(pattern, s.limbs) })) };
      },
      (error: unknown) => {
        over = true;
        held.worker.terminate();
        throw error;
      },
    );
    const cancel = (): void => {
      if (over) return;
      over = true;
      held.worker.terminate();
      this.warm();
    };
    return { found, cancel };
  }

  private start(): Held {
    const worker = spawnSticking();
    const broken = new Promise<never>((_, fail) => (worker.onerror = (event) => fail(new Error(event.message))));
    // One that breaks while nobody waits for it is found out at the next search.
    broken.catch(() => undefined);
    return { worker, remote: wrap<StickingApi>(worker), broken };
  }
}
