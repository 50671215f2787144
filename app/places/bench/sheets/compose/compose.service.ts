import { Injectable } from '@angular/core';
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

/** Looks for phrases off the main thread. Each search has a worker of its own, and cancelling ends it at once. */
@Injectable({ providedIn: 'root' })
export class ComposeWorker {
  ask(asked: Asked, told: Told, tell: (answer: Answer) => void): Asking {
    const worker = spawnCompose();
    const remote: Remote<ComposeApi> = remoteOf<ComposeApi>(worker);
    const found = remote.ask(asked, told, proxy(tell)).finally(() => worker.terminate());
    return { found, cancel: () => worker.terminate() };
  }
}
