import { computed, inject, Injectable, signal } from '@angular/core';
import { phrasesIn, type ShelfPhrase } from '@core/language';
import type { NamedPhrase } from '../../../knowledge/index/entry';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { plainRecipe } from '../document/plain-recipe';

/** Phrases of the shelf that a line names: names are known once the box is used, recipes once they are said. */
@Injectable({ providedIn: 'root' })
export class NamedStore {
  private readonly index = inject(ShelfIndex);
  private readonly phrases = inject(PhrasesRepo);
  private readonly all = signal<readonly NamedPhrase[]>([]);
  private readonly found = signal<readonly ShelfPhrase[]>([]);
  private line = '';
  readonly names = computed(() => this.all().map((p) => p.name));
  /** Those that the line can mean. */
  readonly here = this.found.asReadonly();

  /** The box is used: names may have come and gone since. */
  async begin(): Promise<void> {
    this.all.set(await this.index.names('all'));
    await this.look(this.line);
  }

  /** Fetches what a line names; a line that was written meanwhile goes before. */
  async look(line: string): Promise<void> {
    this.line = line;
    const named = phrasesIn(line, this.all());
    if (named.length === 0) {
      if (this.found().length > 0) this.found.set([]);
      return;
    }
    const all = await Promise.all(named.map((p) => this.phrases.get(p.id)));
    if (this.line !== line) return;
    this.found.set(all.flatMap((p) => (p ? [{ id: p.id, name: p.name, recipe: plainRecipe(p.recipe) }] : [])));
  }
}
