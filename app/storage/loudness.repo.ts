import { computed, inject, Injectable } from '@angular/core';
import { LOUDEST, type Loudness, type Part } from '@core/playback';
import { Database } from './database';
import { KeptValue } from './kept-value';

const USUAL: Loudness = Object.freeze({ primary: 1, timekeeping: 1, texture: 1, click: 1, counts: 1, record: 1 });

/** How loud each part was set, remembered for the Bench and the practice room alike. */
@Injectable({ providedIn: 'root' })
export class LoudnessRepo {
  private readonly value = new KeptValue<Loudness>(inject(Database), 'loudness', USUAL);
  /** What was kept before there were records says nothing of them. */
  readonly now = computed((): Loudness => ({ ...USUAL, ...this.value.now() }));

  set(part: Part, to: number): Promise<boolean> {
    return this.value.keep({ ...this.now(), [part]: Math.min(LOUDEST, Math.max(0, to)) });
  }

  reset(): Promise<boolean> {
    return this.value.keep(USUAL);
  }
}
