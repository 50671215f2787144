import { computed, inject, Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import { difference, differenceWords, type Pattern } from '@core/pattern';
import { SettingsRepo } from '../../../storage/settings.repo';
import { BenchStore } from './bench.store';

/** Another phrase laid beneath the one on the Bench. */
export interface Compared {
  /** Null for a variant, which is not on the shelf. */
  readonly id: string | null;
  readonly name: string;
  readonly pattern: Pattern;
}

/** Two phrases against each other: where they differ, in words and by tick, and which of them sounds. */
@Injectable({ providedIn: 'root' })
export class CompareStore {
  private readonly bench = inject(BenchStore);
  private readonly settings = inject(SettingsRepo);
  private readonly otherState = signal<Compared | null>(null);
  private readonly hearsOther = signal(false);
  readonly other = this.otherState.asReadonly();
  /** Whether the phrases are laid beneath each other now. */
  readonly open = signal(false);

  /** The other phrase while it is the one that sounds. */
  readonly heard = computed(() => (this.open() && this.hearsOther() ? (this.otherState()?.pattern ?? null) : null));
  readonly ticks = computed((): readonly number[] => {
    const [own, other] = [this.bench.build()?.pattern, this.otherState()?.pattern];
    return own && other && this.open() ? [...new Set(difference(own, other).map((d): number => d.at))] : [];
  });
  readonly words = computed(() => {
    const [own, other] = [this.bench.build()?.pattern, this.otherState()?.pattern];
    return own && other ? differenceWords(own, other, this.settings.schools()) : '';
  });

  choose(other: Compared | null): void {
    this.otherState.set(other);
    if (!other) this.hearsOther.set(false);
  }

  private readonly shows = new Subject<void>();
  /** Something was laid beneath and is to be seen. */
  readonly shown$ = this.shows.asObservable();

  show(): void {
    this.shows.next();
  }

  /** The other of the two sounds from the next beat on. */
  swap(): void {
    if (this.otherState()) this.hearsOther.update((on) => !on);
  }
}
