import { inject, Injectable } from '@angular/core';
import { USUAL_MAP, type MidiMap, type Voice } from '@core/stroke';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** What each note of the user's pads means, remembered. */
@Injectable({ providedIn: 'root' })
export class MidiMapRepo {
  private readonly value = new KeptValue<MidiMap>(inject(Database), 'midi-map', USUAL_MAP);
  readonly now = this.value.now;

  voiceOf(note: number): Voice | null {
    return this.now()[String(note)] ?? null;
  }

  teach(note: number, voice: Voice): Promise<boolean> {
    return this.value.keep({ ...this.now(), [String(note)]: voice });
  }

  reset(): Promise<boolean> {
    return this.value.keep(USUAL_MAP);
  }
}
