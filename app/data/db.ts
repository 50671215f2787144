import Dexie, { type EntityTable } from 'dexie';
import type { Attempt, DrillState } from '@core/drill';
import type { Phrase } from '@core/recipe';
import type { KeptTake } from '@core/take';

/** A single thing that is kept under a name: settings, the draft on the Bench. */
export interface Kept {
  readonly key: string;
  readonly value: unknown;
}

/** The browser's database of one shelf. Each version of the schema stays here, so that an old shelf opens. */
export class ShelfDb extends Dexie {
  phrases!: EntityTable<Phrase, 'id'>;
  attempts!: EntityTable<Attempt, 'id'>;
  drills!: EntityTable<DrillState, 'id'>;
  kept!: EntityTable<Kept, 'key'>;
  takes!: EntityTable<KeptTake, 'id'>;

  constructor(name: string) {
    super(name);
    this.version(1).stores({ phrases: 'id', attempts: 'id, phrase', drills: 'id, &phrase', kept: 'key' });
    this.version(2).stores({ takes: 'id, phrase, at' });
  }
}
