import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { PlayRequest } from '@core/playback';
import type { Handover } from '../sound/transport.service';

/** Stands in for the transport: remembers what it was asked to play, and is turned by hand. */
export class SilentTransport {
  readonly loops$ = new Subject<number>();
  readonly began$ = new Subject<void>();
  readonly slept$ = new Subject<void>();
  readonly playing = signal(false);
  readonly position = signal<number | null>(null);
  readonly handover = signal<Handover>({ sounds: 0, late: 0, nearest: null });
  readonly trouble = signal<string | null>(null);
  readonly requests: PlayRequest[] = [];
  readonly changes: Partial<PlayRequest>[] = [];
  stops = 0;

  readonly starts: number[] = [];

  play(request: PlayRequest, from = 0): Promise<void> {
    this.requests.push(request);
    this.starts.push(from);
    this.playing.set(true);
    return Promise.resolve();
  }

  /** The page's clock stands at the tick, one second to a quarter. */
  pageTimeOf(tick: number): number | null {
    return this.playing() ? tick / 5040 : null;
  }

  change(part: Partial<PlayRequest>): void {
    this.changes.push(part);
  }

  stop(): void {
    this.stops++;
    this.playing.set(false);
  }
}
