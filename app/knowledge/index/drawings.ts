import type { Kit } from '@core/kit';
import type { Pattern } from '@core/pattern';
import { build, type Phrase } from '@core/recipe';
import { rendition } from '@core/rendition';

/** Patterns that are kept at hand. */
const MOST_PATTERNS = 400;

/** The patterns of phrases as they sound on the kit: those that were asked for last are kept. */
export class Drawings {
  private readonly patterns = new Map<string, Pattern>();

  constructor(private readonly kit: () => Kit | null) {}

  of(id: string): Pattern | null {
    return this.patterns.get(id) ?? null;
  }

  /** Works out a phrase; the one that was kept longest makes room. */
  draw({ id, recipe }: Phrase): void {
    const { pattern } = build(recipe);
    const kit = this.kit();
    if (this.patterns.size >= MOST_PATTERNS) {
      const [oldest] = this.patterns.keys();
      if (oldest !== undefined) this.patterns.delete(oldest);
    }
    this.patterns.set(id, kit ? rendition({ phrase: pattern, kit }).pattern : pattern);
  }

  forget(id: string): void {
    this.patterns.delete(id);
  }

  clear(): void {
    this.patterns.clear();
  }
}
