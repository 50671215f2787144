import { computed, inject, Injectable, signal } from '@angular/core';
import type { PlayRequest } from '@core/playback';
import { Transport } from '../sound/transport.service';

/**
 * Who sounds. One thing sounds at a time, and it belongs to whoever began it: the phrase on the Bench, a variant, a
 * strip, a rung, a take. Drawings ask whether it is theirs; a change is heard only by its owner.
 */
@Injectable({ providedIn: 'root' })
export class Player {
  private readonly transport = inject(Transport);
  private readonly beganBy = signal<string | null>(null);
  /** Whose sound it is; null in silence. */
  readonly owner = computed(() => (this.transport.playing() ? this.beganBy() : null));

  /** Begins anew, from a tick on. */
  play(owner: string, request: PlayRequest, from = 0): void {
    this.beganBy.set(owner);
    void this.transport.play(request, from);
  }

  /** Takes over at the next beat from whatever sounds, so that two can be held against each other; else begins. */
  takeOver(owner: string, request: PlayRequest): void {
    const sounds = this.transport.playing();
    this.beganBy.set(owner);
    if (sounds) this.transport.change(request);
    else void this.transport.play(request);
  }

  /** What its owner's sound has become, from the next beat on; silence where nothing is left of it. */
  follow(owner: string, request: PlayRequest | null): void {
    if (this.owner() !== owner) return;
    if (request) this.transport.change(request);
    else this.transport.stop();
  }

  /** Stops whatever sounds; with an owner only what is theirs. */
  stop(owner?: string): void {
    if (owner === undefined || this.owner() === owner) this.transport.stop();
  }

  /** Stops what is theirs, or begins it. */
  toggle(owner: string, request: PlayRequest): void {
    if (this.owner() === owner) this.transport.stop();
    else this.play(owner, request);
  }
}
