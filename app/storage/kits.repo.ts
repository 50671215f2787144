import { computed, inject, Injectable } from '@angular/core';
import {
  currentKit,
  handVoicesOn,
  ownNames,
  pieceFor,
  saidOn,
  USUAL_KITS,
  voiceNameOn,
  voiceOn,
  type Kit,
  type Kits,
} from '@core/kit';
import { VOICE, VOICES, type Voice } from '@core/stroke';
import { Database } from './database';
import { KeptValue } from './kept-value';

/** The user's kits. Phrases never change with them. */
@Injectable({ providedIn: 'root' })
export class KitsRepo {
  private readonly value = new KeptValue<Kits>(inject(Database), 'kits', USUAL_KITS);
  readonly all = this.value.now;
  readonly current = computed<Kit>(() => currentKit(this.all()));

  /** Voices for hands as choices: the usual ones, what the kit has besides, and what is chosen. */
  voicesFor(chosen: readonly Voice[]): readonly { readonly value: Voice; readonly words: string }[] {
    const kit = this.current();
    return handVoicesOn(kit, chosen).map((value) => ({ value, words: voiceNameOn(kit, value) }));
  }

  /** Every voice, those out of the ordinary only where the kit has them. */
  readonly voices = computed((): readonly Voice[] =>
    VOICES.filter((v) => !VOICE[v].extra || pieceFor(this.current(), v) !== null),
  );

  /** Pieces of the player's own, by the names they have. */
  readonly own = computed(() => ownNames(this.current()));

  /** A sentence with those names in it. */
  said(words: string): string {
    return this.own().length === 0 ? words : saidOn(this.current(), words);
  }

  nameOf(voice: Voice): string {
    return voiceNameOn(this.current(), voice);
  }

  /** What a pad's voice is on the kit that is set up: a ride's edge is the ride where nothing else was said of it. */
  heardAs(voice: Voice | null): Voice | null {
    return voice && VOICE[voice].extra ? voiceOn(this.current(), voice) : voice;
  }

  keep(kits: Kits): Promise<boolean> {
    return this.value.keep(kits);
  }
}
