import { inject, Injectable } from '@angular/core';
import { LOUDEST, PARTS, type Loudness, type Part } from '@core/playback';
import { Database } from './database';
import { KeptValue } from './kept-value';

const USUAL: Loudness = Object.freeze({ primary: 1, timekeeping: 1, texture: 1, click: 1, counts: 1 });

/** How loud each part was set, remembered for the Bench and the practice room alike. */
@Injectable({ providedIn: 'root' })
export class LoudnessRepo {
  private readonly value = new KeptValue<Loudness>(inject(Database), 'loudness', USUAL, isLoudness);
  readonly now = this.value.now;

  set(part: Part, to: number): Promise<boolean> {
    return this.value.keep({ ...this.now(), [part]: Math.min(LOUDEST, Math.max(0, to)) });
  }

  reset(): Promise<boolean> {
    return this.value.keep(USUAL);
  }
}

function isLoudness(value: unknown): value is Loudness {
  if (typeof value !== 'object' || value === null) return false;
  const own = new Map<string, unknown>(Object.entries(value));
  return PARTS.every((p) => {
    const n = own.get(p);
    return typeof n === 'number' && n >= 0 && n <= LOUDEST;
  });
}
