import { computed, inject, Injectable } from '@angular/core';
import { inEveryRepeat, type Edit } from '@core/recipe';
import { SettingsRepo } from '../../../storage/settings.repo';
import { NoticesService } from '../../../common/notices.service';
import { BenchStore } from './bench.store';

/** Whether a hand edit goes through all repeats of a cell or stays where it was made: asked once, remembered. */
@Injectable({ providedIn: 'root' })
export class RepeatsStore {
  private readonly bench = inject(BenchStore);
  private readonly settings = inject(SettingsRepo);
  private readonly notices = inject(NoticesService);

  /** How often the cell of the phrase is repeated. */
  readonly many = computed(() => (this.bench.build()?.pattern.groups ?? []).filter((g) => g.kind === 'cell').length);
  readonly every = computed(() => this.settings.now().repeats === 'every');

  choose(repeats: 'every' | 'one'): void {
    void this.settings.change({ repeats });
  }

  /** Hand edits, done in every repeat where that was chosen. */
  touch(edits: readonly Edit[], about: string | null = null): boolean {
    const pattern = this.bench.build()?.pattern;
    const all = pattern && this.many() > 1 ? inEveryRepeat(pattern, edits) : edits;
    const done = this.bench.touch(this.every() ? all : edits, about);
    if (done && all.length > edits.length && this.settings.now().repeats === undefined) {
      this.choose('one');
      this.notices.tell('Only this repeat was changed.', {
        label: 'In every repeat',
        run: () => {
          this.choose('every');
          this.bench.touch(all);
        },
      });
    }
    return done;
  }
}
