import { inject, Injectable } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Database } from './database';
import type { Aside } from './db';

/** What could not be read and was set aside: told, kept, and given back as a file. */
@Injectable({ providedIn: 'root' })
export class AsideRepo {
  private readonly database = inject(Database);
  readonly all = toSignal(
    this.database.live<readonly Aside[]>([], () => this.database.db.aside.toArray()),
    { initialValue: [] },
  );

  /** All of it as the text of a file. */
  text(): string {
    return JSON.stringify({ format: 'loop-shelf-aside', version: 1, rows: this.all() }, null, 1);
  }

  /** Drops it. Resolves to what brings it back. */
  async drop(): Promise<(() => Promise<boolean>) | null> {
    const rows = [...this.all()];
    const { aside } = this.database.db;
    const well = await this.database.write(() => aside.bulkDelete(rows.flatMap((r) => r.n ?? [])));
    return well ? () => this.database.write(() => aside.bulkPut(rows)) : null;
  }
}
