import { inject, Injectable } from '@angular/core';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** How loud a hit must be to count, and how loud the hardest is: peaks from 0 to 1. */
export interface MicLevels {
  readonly threshold: number;
  readonly loudest: number;
}

const USUAL: MicLevels = Object.freeze({ threshold: 0.05, loudest: 0.7 });

/** The microphone's levels, set by hitting softly and hard, remembered. */
@Injectable({ providedIn: 'root' })
export class MicLevelsRepo {
  private readonly value = new KeptValue<MicLevels>(inject(Database), 'mic-levels', USUAL, isLevels);
  readonly now = this.value.now;

  keep(levels: MicLevels): Promise<boolean> {
    return this.value.keep(levels);
  }
}

function isLevels(value: unknown): value is MicLevels {
  if (typeof value !== 'object' || value === null || !('threshold' in value) || !('loudest' in value)) return false;
  const { threshold, loudest } = value;
  return (
    typeof threshold === 'number' && typeof loudest === 'number' && threshold > 0 && loudest > threshold && loudest <= 4
  );
}
