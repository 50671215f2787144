import { effect, inject, Injectable, signal, untracked, type OnDestroy } from '@angular/core';
import { barTicks, beatTicks } from '@core/time';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { PlayChoices } from './choices';
import { PlayStore } from './play.store';

/** What is named live is looked for in so many seconds of what was played last. */
const WINDOW = 90;
/** A name stands so long, in milliseconds. */
const STANDS = 5000;

/** Names what just came while somebody plays over a click. Provided by the place. */
@Injectable()
export class LiveStore implements OnDestroy {
  private readonly store = inject(PlayStore);
  private readonly choices = inject(PlayChoices);
  private readonly index = inject(ShelfIndex);
  private readonly saidState = signal<{ readonly words: string; readonly n: number } | null>(null);
  /** What came last, by its name; null where nothing did, or long ago. */
  readonly said = this.saidState.asReadonly();
  private asking = false;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor() {
    effect(() => {
      // Twice a beat is soon enough to name it within a beat of its end.
      const half = Math.floor(((this.store.tick() ?? -1) * 2) / beatTicks(this.store.meter()));
      const on = this.choices.names() && this.choices.mode() === 'free' && this.store.phase() === 'playing';
      if (on && half >= 0) untracked(() => void this.ask());
    });
    effect(() => {
      if (!this.store.running()) untracked(() => this.forget());
    });
  }

  ngOnDestroy(): void {
    this.forget();
  }

  private async ask(): Promise<void> {
    const tick = this.store.tick();
    if (this.asking || tick === null || this.store.ear.many() === 0) return;
    this.asking = true;
    try {
      const { hits, meter, bpm } = this.store.played();
      const bar = barTicks(meter);
      const from = Math.max(0, Math.floor(tick / bar) - Math.ceil(WINDOW / this.store.secondsOf(bar)));
      const since = this.store.secondsOf(from * bar);
      const own = hits.filter((h) => h.seconds >= since).map((h) => ({ ...h, seconds: h.seconds - since }));
      const ids = await this.index.justPlayed({ hits: own, meter, bpm }, tick - from * bar, beatTicks(meter));
      if (ids && this.store.phase() === 'playing') this.say(ids.map(this.store.nameOf).slice(0, 2).join(' or '));
    } finally {
      this.asking = false;
    }
  }

  private say(words: string): void {
    this.saidState.set({ words, n: (this.said()?.n ?? 0) + 1 });
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.saidState.set(null), STANDS);
  }

  private forget(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.saidState.set(null);
  }
}
