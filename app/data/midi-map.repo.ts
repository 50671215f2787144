import { inject, Injectable } from '@angular/core';
import { VOICE, VOICES, type Voice } from '@core/stroke';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** Which voice a MIDI note is, by the note's number. */
export type MidiMap = Readonly<Record<string, Voice>>;

/**
 * The percussion notes that most devices send from the factory (General MIDI's percussion key map), until they are
 * taught otherwise.
 */
export const USUAL_MAP: MidiMap = Object.freeze(
  Object.fromEntries(VOICES.flatMap((v) => VOICE[v].midi.map((note) => [String(note), v]))),
);

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
