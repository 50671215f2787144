import { DestroyRef, inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { liveQuery } from 'dexie';
import { catchError, concat, first, from, Observable, of, retry, shareReplay, Subject, switchMap } from 'rxjs';
import { putAside } from './aside';
import { isOlder, ShelfDb } from './db';
import { untilFilled } from './demo-filled';
import type { Keeper, InvalidRow } from './gate';
import { HealthService } from './health.service';
import { storageWords } from './storage-words';
import { currentShelf, databaseName } from '../environment/which-shelf';

/** How often a query that failed is run again, and after how long, in milliseconds. */
const TRIES = 2;
const TRY_AFTER = 250;
/** After so long without an answer it is said that the database does not answer, in milliseconds. */
const ANSWER_WITHIN = 3000;
/** What is said while the database cannot be opened, by this name. */
const SHUT = 'storage';
/** So long the index, which begins before the page, is let fill the demo alone, in milliseconds. */
const FILLED_WITHIN = 2500;

/** The open database of this tab's shelf, and its queries as live Observables. */
@Injectable({ providedIn: 'root' })
export class Database {
  private readonly health = inject(HealthService);
  private readonly oddOnes = new Subject<InvalidRow>();
  private readonly keeper: Keeper = { rules: null };
  private blocked = false;
  /** The database was opened again, after it could not be. */
  private readonly reopened = new Subject<void>();
  readonly db = new ShelfDb(databaseName(), this.keeper, (row) => this.oddOnes.next(row));
  /** Resolves when the database can be read; the demo is filled by then. */
  readonly ready = this.health.during(() => this.open());

  private readonly gone = inject(DestroyRef);

  constructor() {
    this.oddOnes.subscribe((row) => void this.putAside(row));
  }

  private async open(): Promise<void> {
    this.db.on('versionchange', () => {
      // Whatever this tab would write from here on could not be kept: it must not look as if it were.
      this.db.close();
      this.health.end(
        'This tab keeps nothing any more: a newer Loop Shelf is open in another tab. Everything kept before is safe.',
      );
    });
    this.db.on('blocked', () => this.noteBlocked());
    try {
      // The rules are large: the database is opened while they come, where nothing in it has to be put right first.
      const ruled = import('@core/formats/shelf-file').then(({ RULES }) => void (this.keeper.rules = RULES));
      if (await this.answering(isOlder(this.db.name))) await ruled;
      await Promise.all([this.answering(this.db.open()), ruled]);
      if (currentShelf() === 'demo' && !(await untilFilled(this.db, FILLED_WITHIN)))
        await (await import('./demo')).fillDemo(this.db);
      this.health.untell();
    } catch (error) {
      this.health.stand(SHUT, storageWords(error), () => void this.openAgain().catch(() => undefined));
    }
  }

  /** Opens a database that could not be opened, or that the browser closed, as on a full disk. */
  private async openAgain(): Promise<void> {
    const { db } = this;
    if (this.health.ended() !== null || db.isOpen()) return;
    try {
      db.close({ disableAutoOpen: false });
      await db.open();
      this.health.over(SHUT);
      this.reopened.next();
    } catch (error) {
      this.health.stand(SHUT, storageWords(error), () => void this.openAgain().catch(() => undefined));
      throw error;
    }
  }

  /** Says so when the browser's storage does not answer; that a line or the demo is slow is no reason. */
  private async answering<T>(asked: PromiseLike<T>): Promise<T> {
    const late = setTimeout(() => {
      if (this.blocked) return;
      this.health.tell(
        'The storage does not answer. Nothing is lost. Close other tabs of Loop Shelf, or restart the browser.',
      );
    }, ANSWER_WITHIN);
    try {
      return await asked;
    } finally {
      clearTimeout(late);
    }
  }

  /**
   * A query that runs again whenever what it read changes, in this tab or another. It begins when the database can be
   * read: a query that waited inside itself would no longer be followed. A failure is tried again, as when another tab
   * was just closing; then it is shown and gives `empty`.
   */
  live<T>(empty: T, query: () => Promise<T>): Observable<T> {
    const followed = new Observable<T>((sub) => {
      let answer: (() => void) | null = null;
      void this.health.awaited(new Promise<void>((done) => (answer = done)));
      const inner = liveQuery(query).subscribe({
        next: (v) => {
          answer?.();
          sub.next(v);
        },
        error: (e: unknown) => {
          answer?.();
          sub.error(e);
        },
      });
      return () => {
        answer?.();
        inner.unsubscribe();
      };
      // Whoever follows without an end follows no longer than there is a database.
    }).pipe(takeUntilDestroyed(this.gone));
    return from(this.ready).pipe(
      switchMap(() => followed),
      retry({ count: TRIES, delay: TRY_AFTER }),
      catchError((error: unknown, again) => {
        if (this.db.isOpen()) this.health.fail(error);
        return concat(
          of(empty),
          this.reopened.pipe(
            first(),
            switchMap(() => again),
          ),
        );
      }),
      shareReplay({ bufferSize: 1, refCount: true }),
    );
  }

  /** One reading, once the database can be read; a failure is shown and gives `empty`. */
  async read<T>(empty: T, query: () => Promise<T>): Promise<T> {
    await this.ready;
    try {
      await this.openAgain();
      return await this.health.awaited(query());
    } catch (error) {
      // That it is shut stands there already, with its retry.
      if (this.db.isOpen()) this.health.fail(error);
      return empty;
    }
  }

  /**
   * A write in one transaction over all tables. `about` names what is written where a later write makes an earlier one
   * idle.
   */
  write(run: () => Promise<unknown>, about?: string): Promise<boolean> {
    const { db } = this;
    return this.health.write(async () => {
      await this.ready;
      await this.openAgain();
      await db.transaction('rw', db.own, run);
    }, about);
  }

  /** Work that reads before it writes: the page is not left unasked while it lasts. */
  during<T>(work: () => Promise<T>): Promise<T> {
    return this.health.during(work);
  }

  /** A row that cannot be read is taken out of the way and kept: told, never hidden, never written over. */
  private async putAside(row: InvalidRow): Promise<void> {
    const { db } = this;
    const kept = await this.write(() => putAside(db, row), `aside ${row.table} ${String(row.key)}`);
    if (kept) this.noteAside();
  }

  /** Another tab holds the shelf as an older version left it; the page, or a worker that asked first, was told. */
  noteBlocked(): void {
    this.blocked = true;
    this.health.tell('Another tab still has the old shelf open. Close it; this one then continues.');
  }

  /** A row was set aside, here or in a worker. */
  noteAside(): void {
    this.health.tell(
      'A part of the shelf could not be read and was set aside. Nothing is lost. See Kit, My data and settings.',
    );
  }
}
