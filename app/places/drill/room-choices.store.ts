import { computed, inject, Injectable, signal } from '@angular/core';
import type { ClickGap, ClickKind, CountKind, Dynamic } from '@core/playback';
import type { Strictness } from '@core/take';
import { RoomRepo } from '../../storage/room.repo';
import type { SourceKind } from '../../hits/source';

/**
 * What is chosen in the room: habits are remembered for the next day, the rest lasts as long as the room is open.
 * Provided by the room.
 */
@Injectable()
export class RoomChoices {
  private readonly habits = inject(RoomRepo);
  private readonly standIn = signal(false);
  /** What hears the player; null for the player's own ear. */
  readonly source = computed((): SourceKind | null => (this.standIn() ? 'simulated' : this.habits.now().source));
  readonly strictness = computed(() => this.habits.now().strictness);
  readonly click = computed(() => this.habits.now().click);
  /** Who counts along; null for nobody. */
  readonly counts = computed((): CountKind | null => {
    const { counts, counting } = this.habits.now();
    return counts ? (counting ?? 'tones') : null;
  });
  /** How loud the rungs are meant. */
  readonly dynamic = signal<Dynamic>('medium');
  readonly gap = signal<ClickGap | null>(null);

  listenTo(source: SourceKind | null): void {
    this.standIn.set(source === 'simulated');
    if (source !== 'simulated') void this.habits.change({ source });
  }

  judge(strictness: Strictness): void {
    void this.habits.change({ strictness });
  }

  clickOn(click: ClickKind): void {
    void this.habits.change({ click });
  }

  countAlong(kind: CountKind | null): void {
    void this.habits.change(kind ? { counts: true, counting: kind } : { counts: false });
  }
}
