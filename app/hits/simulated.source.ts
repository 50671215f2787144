import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Expected } from '@core/rendition';
import { perform, USUAL_PLAYER, type Hit, type Player } from '@core/take';
import type { HitSource } from './source';

/** A stand-in that plays what is expected with faults that can be set. Shown as what it is: nobody's hands. */
@Injectable({ providedIn: 'root' })
export class SimulatedSource implements HitSource {
  readonly kind = 'simulated';
  readonly name = 'Simulated player';
  readonly hint = 'A program plays, with the faults you set. Its tries are marked and count for nothing of yours.';
  private readonly hits = new Subject<Hit>();
  readonly hits$ = this.hits.asObservable();
  readonly trouble = signal<string | null>(null).asReadonly();
  readonly news = signal<string | null>(null).asReadonly();
  readonly player = signal<Player>(USUAL_PLAYER);
  readonly seed = signal(1);
  private began = 0;
  private timers: ReturnType<typeof setTimeout>[] = [];

  start(): Promise<boolean> {
    return Promise.resolve(true);
  }

  /**
   * Plays strokes that are expected at times on the page's clock. Hits are told when they are due, with the exact time
   * they were meant for.
   */
  play(expected: readonly Expected[]): void {
    // A turn is a part of the playing: a tempo of its own goes on from turn to turn.
    if (expected[0]?.turn === 0) this.began = expected[0].seconds;
    const { hits } = perform(expected, this.player(), this.seed(), this.began);
    this.seed.update((n) => n + 1);
    const now = performance.now() / 1000;
    this.timers.push(
      ...hits.map((hit) => setTimeout(() => this.hits.next(hit), Math.max(0, (hit.seconds - now) * 1000))),
    );
  }

  stop(): void {
    this.timers.forEach(clearTimeout);
    this.timers = [];
  }
}
