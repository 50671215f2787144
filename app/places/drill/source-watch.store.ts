import { computed, inject, Injectable } from '@angular/core';
import { latencyMoved } from '@core/take';
import { LatencyRepo } from '../../storage/latency.repo';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';

/** Watches whether what listens is still as late as it was when it was calibrated. Provided by the room. */
@Injectable()
export class SourceWatch {
  private readonly store = inject(DrillStore);
  private readonly choices = inject(RoomChoices);
  private readonly latency = inject(LatencyRepo);

  /** By how many milliseconds the source seems to have moved since it was calibrated; null when it has not. */
  readonly moved = computed(() => {
    const source = this.choices.source();
    if (source === null || source === 'simulated') return null;
    const since = this.latency.at()[source] ?? 0;
    const means = (this.store.drill()?.attempts ?? []).flatMap((a) =>
      a.source === source && a.at > since && a.measured ? [a.measured.mean] : [],
    );
    return latencyMoved(means);
  });
}
