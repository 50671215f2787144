import { inject, Injectable } from '@angular/core';
import { liveQuery } from 'dexie';
import { catchError, Observable, of, shareReplay } from 'rxjs';
import { ShelfDb } from './db';
import { fillDemo } from './demo';
import { HealthService } from './health.service';
import { currentShelf } from './which-shelf';

/** The open database of this tab's shelf, and its queries as live Observables. */
@Injectable({ providedIn: 'root' })
export class Database {
  private readonly health = inject(HealthService);
  readonly db = new ShelfDb(currentShelf() === 'demo' ? 'loop-shelf-demo' : 'loop-shelf');
  /** Settles when the database can be read; the demo is filled by then. */
  readonly ready = this.open();

  private async open(): Promise<void> {
    this.db.on('versionchange', () => {
      this.db.close();
      this.health.tell('Loop Shelf was updated in another tab. Reload this one to go on; nothing is lost.');
    });
    this.db.on('blocked', () => this.health.tell('Another tab still holds the old shelf. Close it, and this one opens.'));
    try {
      await this.db.open();
      if (currentShelf() === 'demo') await fillDemo(this.db);
    } catch (error) {
      this.health.fail(error);
    }
  }

  /** A query that runs again whenever what it read changes, in this tab or another. A failure is shown and gives `empty`. */
  live<T>(empty: T, query: () => Promise<T>): Observable<T> {
    const source = new Observable<T>((sub) => {
      const inner = liveQuery(async () => {
        await this.ready;
        return query();
      }).subscribe({ next: (v) => sub.next(v), error: (e: unknown) => sub.error(e) });
      return () => inner.unsubscribe();
    });
    return source.pipe(
      catchError((error: unknown) => {
        this.health.fail(error);
        return of(empty);
      }),
      shareReplay({ bufferSize: 1, refCount: true }),
    );
  }

  /** A write in one transaction over all tables. */
  write(run: () => Promise<unknown>): Promise<boolean> {
    const { db } = this;
    return this.health.write(async () => {
      await this.ready;
      await db.transaction('rw', [db.phrases, db.attempts, db.drills, db.kept], run);
    });
  }
}
