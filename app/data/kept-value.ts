import { signal, type Signal, type WritableSignal } from '@angular/core';
import type { Database } from './database';
import { NewestWrite } from './newest-write';

/**
 * One value that is kept under a name, followed live so that two tabs agree. While a write is under way what comes back
 * from the database is older than what is here, and is passed over.
 */
export class KeptValue<T> {
  private readonly state: WritableSignal<T>;
  readonly now: Signal<T>;
  private readonly writes: NewestWrite<T>;

  constructor(database: Database, key: string, usual: T, isValue: (value: unknown) => value is T) {
    this.state = signal(usual);
    this.now = this.state.asReadonly();
    this.writes = new NewestWrite((value) => database.put(key, value));
    database
      .live<unknown>(null, async () => (await database.db.kept.get(key))?.value)
      .subscribe((value) => {
        if (!this.writes.underWay && isValue(value)) this.state.set(value);
      });
  }

  /** Resolves to whether the value was kept; a failure is shown by the database. */
  keep(value: T): Promise<boolean> {
    this.state.set(value);
    return this.writes.keep(value);
  }
}
