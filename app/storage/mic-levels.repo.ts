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
  private readonly value = new KeptValue<MicLevels>(inject(Database), 'mic-levels', USUAL);
  readonly now = this.value.now;

  keep(levels: MicLevels): Promise<boolean> {
    return this.value.keep(levels);
  }
}
