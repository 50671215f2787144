import { computed, inject, Injectable, signal } from '@angular/core';
import { lettersIn, phrasesIn, type LetteredPhrase, type ShelfPhrase } from '@core/language';
import { versionsOf } from '@core/shelf';
import type { NamedPhrase } from '../../../knowledge/index/entry';
import { PhrasesRepo } from '../../../storage/phrases.repo';
import { ShelfIndex } from '../../../knowledge/shelf-index.service';
import { BenchStore } from '../document/bench.store';
import { plainRecipe } from '../document/plain-recipe';
import type { Phrase } from '@core/recipe';

const asNamed = ({ id, name, recipe }: Phrase): ShelfPhrase => ({ id, name, recipe: plainRecipe(recipe) });

/** Phrases of the shelf that a line names: names are known once the box is used, recipes once they are said. */
@Injectable({ providedIn: 'root' })
export class NamedStore {
  private readonly index = inject(ShelfIndex);
  private readonly phrases = inject(PhrasesRepo);
  private readonly bench = inject(BenchStore);
  private readonly all = signal<readonly NamedPhrase[]>([]);
  private readonly found = signal<readonly ShelfPhrase[]>([]);
  private line = '';
  readonly names = computed(() => this.all().map((p) => p.name));
  /** Those that the line can mean. */
  readonly here = this.found.asReadonly();
  private readonly lettered = signal<readonly LetteredPhrase[]>([]);
  /** Orchestrations of the phrase on the Bench that the line names by their letters. */
  readonly versions = this.lettered.asReadonly();

  /** The box is used: names may have come and gone since. */
  async begin(): Promise<void> {
    this.all.set(await this.index.names('all'));
    await this.look(this.line);
  }

  /** Fetches what a line names; a line that was written meanwhile goes before. */
  async look(line: string): Promise<void> {
    this.line = line;
    await this.lookForVersions(line);
    if (this.line !== line) return;
    const named = phrasesIn(line, this.all());
    if (named.length === 0) {
      if (this.found().length > 0) this.found.set([]);
      return;
    }
    const all = await Promise.all(named.map((p) => this.phrases.get(p.id)));
    if (this.line !== line) return;
    this.found.set(all.flatMap((p) => (p ? [asNamed(p)] : [])));
  }

  private async lookForVersions(line: string): Promise<void> {
    const [letters, own] = [lettersIn(line), this.bench.phrase()];
    if (!letters || !own) {
      if (this.lettered().length > 0) this.lettered.set([]);
      return;
    }
    // One of them may have been kept while the box had the keyboard.
    this.all.set(await this.index.names('all'));
    const meant = versionsOf(own.name, this.all()).filter((v) => letters.includes(v.letter));
    const found = await Promise.all(meant.map((v) => this.phrases.get(v.phrase.id)));
    if (this.line !== line) return;
    this.lettered.set(
      meant.flatMap(({ letter }, i) => {
        const phrase = found[i];
        return phrase ? [{ letter, phrase: asNamed(phrase) }] : [];
      }),
    );
  }
}
