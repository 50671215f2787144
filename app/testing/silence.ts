import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { PlayRequest } from '../audio/transport.service';

/** Stands in for the transport: remembers what it was asked to play, and is turned by hand. */
export class SilentTransport {
  readonly loops$ = new Subject<number>();
  readonly began$ = new Subject<void>();
  readonly playing = signal(false);
  readonly position = signal<number | null>(null);
  readonly late = signal(0);
  readonly trouble = signal<string | null>(null);
  readonly requests: PlayRequest[] = [];
  readonly changes: Partial<PlayRequest>[] = [];
  stops = 0;

  play(request: PlayRequest): Promise<void> {
    this.requests.push(request);
    this.playing.set(true);
    return Promise.resolve();
  }

  change(part: Partial<PlayRequest>): void {
    this.changes.push(part);
  }

  stop(): void {
    this.stops++;
    this.playing.set(false);
  }
}
