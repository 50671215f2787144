import { inject, Injectable } from '@angular/core';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** A number for each source, by its kind. */
export type BySource = Readonly<Record<string, number>>;

/** The calibrated latency of every source, remembered with when it was calibrated. */
@Injectable({ providedIn: 'root' })
export class LatencyRepo {
  private readonly database = inject(Database);
  private readonly value = new KeptValue<BySource>(this.database, 'latency', {});
  private readonly times = new KeptValue<BySource>(this.database, 'latency-at', {});
  /** Seconds by which each source is behind. */
  readonly now = this.value.now;
  /** Milliseconds since 1970 of each calibration. */
  readonly at = this.times.now;

  async keep(source: string, seconds: number, at: number): Promise<boolean> {
    const kept = await Promise.all([
      this.value.keep({ ...this.now(), [source]: seconds }),
      this.times.keep({ ...this.at(), [source]: at }),
    ]);
    return kept.every(Boolean);
  }
}
