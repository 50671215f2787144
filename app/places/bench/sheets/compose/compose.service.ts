import { DestroyRef, inject, Injectable } from '@angular/core';
import { proxy, type Remote } from 'comlink';
import type { Answer, Asked, Composed, Known, Relaxation } from '@core/compose';
import type { Kit } from '@core/kit';
import type { Able } from '@core/reach';
import type { Schools } from '@core/time';
import { remoteOf } from '../../../../environment/workers';
import { spawnCompose } from './spawn-compose';

/** What a search comes to: answers, or where there are none what would give some. */
export type Found = Composed & { readonly relaxed: readonly Relaxation[] };

export interface Told {
  readonly kit: Kit;
  readonly profile: Able;
  readonly shelf: readonly Known[];
  readonly schools: Schools;
}

interface ComposeApi {
  ask(asked: Asked, told: Told, tell: (answer: Answer) => void): Found;
}

/** A search that is under way. */
export interface Asking {
  readonly found: Promise<Found>;
  cancel(): void;
}

interface Searcher {
  readonly worker: Worker;
  readonly remote: Remote<ComposeApi>;
}

/**
 * Looks for phrases off the main thread. Cancelling ends the worker at once; one that has answered waits for the next
 * search, which is faster in it than in a new one.
 */
@Injectable({ providedIn: 'root' })
export class ComposeWorker {
  private idle: Searcher | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.idle?.worker.terminate());
  }

  /** A worker is there before it is asked. */
  warm(): void {
    this.idle ??= this.spawn();
  }

  ask(asked: Asked, told: Told, tell: (answer: Answer) => void): Asking {
    const own = this.idle ?? this.spawn();
    this.idle = null;
    let ended = false;
    const end = (): void => {
      ended = true;
      own.worker.terminate();
    };
    const found = own.remote.ask(asked, told, proxy(tell)).then(
      (answer) => {
        if (ended) return answer;
        if (this.idle) end();
        else this.idle = own;
        return answer;
      },
      (error: unknown) => {
        end();
        throw error;
      },
    );
    return { found, cancel: () => (this.idle === own ? undefined : end()) };
  }

  private spawn(): Searcher {
    const worker = spawnCompose();
    return { worker, remote: remoteOf<ComposeApi>(worker) };
  }
}
