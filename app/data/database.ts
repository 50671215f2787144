import { inject, Injectable } from '@angular/core';
import { liveQuery } from 'dexie';
import { catchError, from, Observable, of, retry, shareReplay, switchMap } from 'rxjs';
import { ShelfDb } from './db';
import { fillDemo } from './demo';
import { HealthService } from './health.service';
import { currentShelf } from './which-shelf';

/** How often a query that failed is run again, and after how long, in milliseconds. */
const TRIES = 2;
const TRY_AFTER = 250;

/** The open database of this tab's shelf, and its queries as live Observables. */
@Injectable({ providedIn: 'root' })
export class Database {
  private readonly health = inject(HealthService);
  readonly db = new ShelfDb(currentShelf() === 'demo' ? 'loop-shelf-demo' : 'loop-shelf');
  /** Resolves when the database can be read; the demo is filled by then. */
  readonly ready = this.health.during(() => this.open());

  private async open(): Promise<void> {
    this.db.on('versionchange', () => {
      this.db.close();
      this.health.tell('Loop Shelf was updated in another tab. Reload this one to go on; nothing is lost.');
    });
    this.db.on('blocked', () =>
      this.health.tell('Another tab still holds the old shelf. Close it, and this one opens.'),
    );
    try {
      await this.db.open();
      if (currentShelf() === 'demo') await fillDemo(this.db);
    } catch (error) {
      this.health.fail(error);
    }
  }

  /**
   * A query that runs again whenever what it read changes, in this tab or another. It begins when the database can be
   * read: a query that waited inside itself would no longer be followed. A failure is tried again, as when another tab
   * was just closing; then it is shown and gives `empty`.
   */
  live<T>(empty: T, query: () => Promise<T>): Observable<T> {
    const followed = new Observable<T>((sub) => {
      const inner = liveQuery(query).subscribe({ next: (v) => sub.next(v), error: (e: unknown) => sub.error(e) });
      return () => inner.unsubscribe();
    });
    return from(this.ready).pipe(
      switchMap(() => followed),
      retry({ count: TRIES, delay: TRY_AFTER }),
      catchError((error: unknown) => {
        this.health.fail(error);
        return of(empty);
      }),
      shareReplay({ bufferSize: 1, refCount: true }),
    );
  }

  /**
   * A write in one transaction over all tables. `about` names what is written where a later write makes an earlier one
   * idle.
   */
  write(run: () => Promise<unknown>, about?: string): Promise<boolean> {
    const { db } = this;
    return this.health.write(async () => {
      await this.ready;
      await db.transaction('rw', [db.phrases, db.attempts, db.drills, db.kept, db.takes], run);
    }, about);
  }

  /** A thing that is kept under a name. */
  put(key: string, value: unknown): Promise<boolean> {
    return this.write(() => this.db.kept.put({ key, value }), `kept ${key}`);
  }

  /** Work that reads before it writes: the page is not left unasked while it lasts. */
  during<T>(work: () => Promise<T>): Promise<T> {
    return this.health.during(work);
  }
}
