import { DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { proxy } from 'comlink';
import { switchMap, type Observable } from 'rxjs';
import { spawnIndex } from './index/spawn-index';
import { Unfetched, UNFETCHED } from '../environment/workers';
import { Database } from '../storage/database';
import { HealthService } from '../storage/health.service';
import { databaseName } from '../environment/which-shelf';
import type { Wanted } from '@core/map';
import type { Trait, Traits } from '@core/shelf';
import type { Lesson } from '@core/reach';
import type { KinAnswer, NamedPhrase, ShelfAnswer, ShelfQuestion, ShelfRow } from './index/entry';
import type { IndexApi } from './index/index-api';
import { KitsRepo } from '../storage/kits.repo';
import { ProfileRepo } from '../storage/profile.repo';

/** By this name it is said that the index could not be fetched. */
const INDEX = 'index';
/** For so long the index may not know of a phrase that was just kept, in milliseconds. */
const GIVEN_FOR = 3000;

/** What the whole shelf is asked: it is known in a worker, and the page holds only what it shows. */
@Injectable({ providedIn: 'root' })
export class ShelfIndex {
  private readonly database = inject(Database);
  private readonly health = inject(HealthService);
  private readonly name = databaseName();
  private readonly changes = signal(0);
  /** Names that were given a moment ago, and that the index may not have seen yet. */
  private readonly given = new Set<string>();
  private readonly workingState = signal(true);
  /** Counts on whenever an answer may be another one. */
  readonly changed = this.changes.asReadonly();
  /** Whether facts are still being worked out. */
  readonly working = this.workingState.asReadonly();
  private readonly changed$ = toObservable(this.changes);
  private api: Promise<IndexApi> | null = null;
  /** Resolves when the index is to be fetched again; null while it is there. */
  private mending: Promise<void> | null = null;

  constructor() {
    const [kits, profile] = [inject(KitsRepo), inject(ProfileRepo)];
    effect(() => {
      const [kit, own] = [kits.current(), profile.now()];
      void this.call((api) => api.about(kit, own));
    });
    inject(DestroyRef).onDestroy(() => void this.api?.then((api) => api.end()));
  }

  async ask(question: ShelfQuestion): Promise<ShelfAnswer> {
    return this.call((api) => api.ask(question));
  }

  async rows(places: readonly number[]): Promise<readonly ShelfRow[]> {
    return this.call((api) => api.rows(places));
  }

  async patternsOf(ids: readonly string[]): ReturnType<IndexApi['patternsOf']> {
    return this.call((api) => api.patternsOf(ids));
  }

  /** Phrases that are so long on a grid, in ticks, for others to be held against. */
  async alike(grid: number, from: number, until: number): ReturnType<IndexApi['alike']> {
    return this.call((api) => api.alike(grid, from, until));
  }

  /** The map of the shelf by two traits; of a day that is past as it was then. */
  async map(row: Trait, column: Trait, day: number | null = null): ReturnType<IndexApi['map']> {
    return this.call((api) => api.map(row, column, day));
  }

  /** What stands in the spots of a show, how it is filled best, and how ready it is. */
  async show(asked: Parameters<IndexApi['show']>[0]): ReturnType<IndexApi['show']> {
    return this.call((api) => api.show(asked));
  }

  /** The goal of a phrase as shows want it; null where it is not known. */
  async goalOf(id: string): ReturnType<IndexApi['goalOf']> {
    return this.call((api) => api.goalOf(id));
  }

  /** What is asked of a composed phrase for a square of the map; null where that cannot be asked for. */
  async demandsFor(wanted: Wanted): ReturnType<IndexApi['demandsFor']> {
    return this.call((api) => api.demandsFor(wanted));
  }

  /** What a phrase would be the first of on the shelf. */
  async firsts(traits: Traits): ReturnType<IndexApi['firsts']> {
    return this.call((api) => api.firsts(traits));
  }

  /** What leads to an empty square of the map, the likeliest to be ready soon first. */
  async stepsTo(wanted: Wanted): ReturnType<IndexApi['stepsTo']> {
    return this.call((api) => api.stepsTo(wanted));
  }

  /** The best that leads to empty squares of a map. */
  async nextToLearn(row: Trait, column: Trait): ReturnType<IndexApi['nextToLearn']> {
    return this.call((api) => api.nextToLearn(row, column));
  }

  async names(which: 'all' | 'drilled'): Promise<readonly NamedPhrase[]> {
    return this.call((api) => api.names(which));
  }

  /** The next free name of a series. */
  async next(name: string): Promise<string> {
    return this.call((api) => api.next(name, [...this.given]));
  }

  /** A name was given to a new phrase. */
  gave(name: string): void {
    this.given.add(name);
    setTimeout(() => this.given.delete(name), GIVEN_FOR);
  }

  /** Ids of the phrases that bear a name. */
  async called(name: string): Promise<readonly string[]> {
    return this.call((api) => api.called(name));
  }

  async kin(id: string): Promise<KinAnswer> {
    return this.call((api) => api.kin(id));
  }

  /** The day as it is best practised. */
  async plan(asked: Parameters<IndexApi['plan']>[0]): ReturnType<IndexApi['plan']> {
    return this.call((api) => api.plan(asked));
  }

  /** What is believed of a phrase today. */
  async believed(id: string): ReturnType<IndexApi['believed']> {
    return this.call((api) => api.believed(id));
  }

  /** What the Log draws of a phrase, without reading its tries. */
  async phraseLog(id: string): ReturnType<IndexApi['phraseLog']> {
    return this.call((api) => api.phraseLog(id));
  }

  /** What the Log draws of all that was practised. */
  async lookBack(): ReturnType<IndexApi['lookBack']> {
    return this.call((api) => api.lookBack());
  }

  /** What of the shelf came in a sitting; `tell` hears the share that is done. Null when it was given up. */
  async readSitting(
    asked: Parameters<IndexApi['readSitting']>[0],
    tell: (share: number) => void,
  ): ReturnType<IndexApi['readSitting']> {
    return this.call((api) => api.readSitting(asked, proxy(tell)));
  }

  /** Gives up the sitting that is being read. */
  async stopReading(): Promise<void> {
    return this.call((api) => api.stopReading());
  }

  /** Ids of the phrase that came last, while somebody plays. */
  async justPlayed(...args: Parameters<IndexApi['justPlayed']>): ReturnType<IndexApi['justPlayed']> {
    return this.call((api) => api.justPlayed(...args));
  }

  /** What is used of the shelf in free play. */
  async usage(): ReturnType<IndexApi['usage']> {
    return this.call((api) => api.usage());
  }

  /** Phrases that can be called. */
  async callables(...args: Parameters<IndexApi['callables']>): ReturnType<IndexApi['callables']> {
    return this.call((api) => api.callables(...args));
  }

  /** The player's own share of their ceilings, for what is to be believed of a phrase. */
  async shareFor(id: string): ReturnType<IndexApi['shareFor']> {
    return this.call((api) => api.shareFor(id));
  }

  /** What clean tries showed of the player's limbs, beyond their tests. */
  async lessons(): Promise<readonly Lesson[]> {
    return this.call((api) => api.lessons());
  }

  /** The forms of the shelf's phrases, by which it is known what it has already. */
  async forms(): Promise<readonly string[]> {
    return this.call((api) => api.forms());
  }

  /** The names of the phrases, followed. */
  names$(which: 'all' | 'drilled'): Observable<readonly NamedPhrase[]> {
    return this.changed$.pipe(switchMap(() => this.names(which)));
  }

  /** Asks the index. Where it cannot be fetched that is said, and the question waits until it is tried again. */
  private async call<T>(ask: (api: IndexApi) => T | Promise<T>): Promise<T> {
    for (;;) {
      await this.mending;
      const asked = this.open();
      try {
        return await ask(await asked);
      } catch (error) {
        if (!(error instanceof Unfetched)) throw error;
        if (this.api === asked) this.mend();
      }
    }
  }

  private mend(): void {
    this.api = null;
    this.mending = new Promise<void>((mended) =>
      this.health.stand(INDEX, UNFETCHED, () => {
        this.mending = null;
        this.health.over(INDEX);
        mended();
      }),
    );
  }

  private open(): Promise<IndexApi> {
    // It does not wait for the page's own database: it opens one beside it.
    this.api ??= Promise.resolve(
      spawnIndex(this.name, (what) => {
        if (what === 'blocked') return this.database.noteBlocked();
        this.workingState.set(what === 'changed');
        if (what === 'aside') this.database.noteAside();
        this.changes.update((n) => n + 1);
      }),
    );
    return this.api;
  }
}
