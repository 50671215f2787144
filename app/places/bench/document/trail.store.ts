import { computed, inject, Injectable, signal } from '@angular/core';
import { effectOf } from '@core/recipe';
import { BenchStore } from './bench.store';
import { PickStore } from './pick.store';

/** Walking back and forth through the recipe, the way it would be taught, and what each card is worth to the whole. */
@Injectable({ providedIn: 'root' })
export class TrailStore {
  private readonly bench = inject(BenchStore);
  private readonly picks = inject(PickStore);
  private readonly stageState = signal<number | null>(null);
  /** The card under the pointer. */
  readonly hovered = signal<string | null>(null);

  /** The moves that are on, by their place in the recipe: the stages after the source. */
  private readonly steps = computed(() => {
    const built = this.bench.build();
    return built ? built.trail.flatMap((s, i) => (s.entry.on ? [i] : [])) : [];
  });
  /** How many stages there are: the source and each move that is on. */
  readonly many = computed(() => this.steps().length + 1);
  /** Which stage is shown, 0 for the source; null when the finished phrase is. */
  readonly stage = computed(() => {
    const stage = this.stageState();
    return stage === null || stage >= this.many() - 1 ? null : stage;
  });
  /** The id of the move whose result is shown; null for the source or the finished phrase. */
  readonly shownMove = computed(() => {
    const stage = this.stage();
    const index = stage === null || stage === 0 ? undefined : this.steps()[stage - 1];
    return index === undefined ? null : (this.bench.build()?.trail[index]?.entry.id ?? null);
  });
  readonly showsSource = computed(() => this.stage() === 0);
  /** The pattern that is shown and heard. */
  readonly pattern = computed(() => {
    const picked = this.picks.pattern();
    if (picked) return picked;
    const built = this.bench.build();
    const stage = this.stage();
    if (!built || stage === null) return built?.pattern ?? null;
    const index = this.steps()[stage - 1];
    return index === undefined ? built.source.pattern : (built.trail[index]?.pattern ?? built.pattern);
  });
  /** "Step 2 of 5: Add a kick at the end"; null for the finished phrase. */
  readonly words = computed(() => {
    const picking = this.picks.words();
    if (picking !== null) return picking;
    const stage = this.stage();
    if (stage === null) return null;
    const index = this.steps()[stage - 1];
    const sentence = index === undefined ? 'The sticking' : (this.bench.build()?.trail[index]?.sentence ?? '');
    return `Step ${stage + 1} of ${this.many()}: ${sentence}`;
  });
  /** Whether the ribbon shows the finished phrase, which can be edited on it. */
  readonly isFinished = computed(() => this.picks.pattern() === null && this.stage() === null);
  /** Ticks that the card under the pointer changed in the finished phrase. */
  readonly changed = computed((): readonly number[] => {
    const [built, id] = [this.bench.build(), this.hovered()];
    return built && id !== null && this.isFinished() ? effectOf(built, id) : [];
  });

  back(): void {
    this.bench.openCard.set(null);
    const now = this.stage() ?? this.many() - 1;
    this.stageState.set(Math.max(0, now - 1));
  }

  on(): void {
    this.bench.openCard.set(null);
    const now = this.stage();
    this.stageState.set(now === null ? null : now + 1);
  }

  finish(): void {
    this.stageState.set(null);
  }
}
