import { computed, inject, Injectable, signal } from '@angular/core';
import { difference, type Pattern } from '@core/pattern';
import { BenchStore } from './bench.store';

/** What the phrase would become by words that stand in the box: the ribbon shows it beforehand, and what it changes. */
@Injectable({ providedIn: 'root' })
export class PreviewStore {
  private readonly bench = inject(BenchStore);
  private readonly state = signal<{ readonly pattern: Pattern; readonly words: string } | null>(null);
  readonly pattern = computed(() => this.state()?.pattern ?? null);
  /** What is shown, in words; null while the ribbon shows what is. */
  readonly words = computed(() => {
    const shown = this.state();
    return shown ? `Preview: ${shown.words}` : null;
  });
  /** Ticks at which it differs from the phrase. */
  readonly changed = computed((): readonly number[] => {
    const [own, other] = [this.bench.build()?.pattern, this.pattern()];
    return own && other ? [...new Set(difference(own, other).map((d): number => d.at))] : [];
  });

  show(shown: { readonly pattern: Pattern; readonly words: string } | null): void {
    this.state.set(shown);
  }
}
