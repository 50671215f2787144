import { signal, type Signal, type WritableSignal } from '@angular/core';
import { fieldChanges, patched } from '@core/shelf';
import { now } from '../environment/clock';
import type { Database } from './database';

/**
 * One value that is kept under a name, followed live so that two tabs agree. A change is put into what is kept, field
 * by field, not over it: a change in the first moment, or in another tab, undoes no other. While one is being written,
 * what comes back from the database is older than what is here, and is passed over.
 */
export class KeptValue<T> {
  private readonly state: WritableSignal<T>;
  readonly now: Signal<T>;
  /** Fields that were changed here and are not written yet. */
  private waiting = new Map<string, unknown>();
  private writing: Promise<boolean> | null = null;

  constructor(
    private readonly database: Database,
    private readonly key: string,
    private readonly usual: T,
  ) {
    this.state = signal(usual);
    this.now = this.state.asReadonly();
    database
      .live<unknown>(undefined, async () => (await database.db.kept.get(key))?.value)
      .subscribe((value) => {
        // What is read passed the gate: it is good by the rule of its name.
        if (!this.writing) this.state.set(value === undefined ? usual : (value as T));
      });
  }

  /** Resolves to whether the value was kept; a failure is shown by the database. */
  keep(value: T): Promise<boolean> {
    for (const [field, part] of fieldChanges(this.key, this.state(), value)) this.waiting.set(field, part);
    this.state.set(value);
    // Nothing changed: whoever began to write nothing would never be over.
    if (this.waiting.size === 0) return this.writing ?? Promise.resolve(true);
    this.writing ??= this.writeAll();
    return this.writing;
  }

  /** Some fields of the value, the others as they are. */
  patch(part: Partial<T>): Promise<boolean> {
    return this.keep({ ...this.state(), ...part });
  }

  private async writeAll(): Promise<boolean> {
    const { database, key, usual } = this;
    let well = true;
    while (this.waiting.size > 0) {
      const changes = this.waiting;
      this.waiting = new Map();
      well = await database.write(async () => {
        const old = await database.db.kept.get(key);
        await database.db.kept.put(patched(old, key, usual, changes, now()));
      }, `kept ${key}`);
    }
    this.writing = null;
    return well;
  }
}
