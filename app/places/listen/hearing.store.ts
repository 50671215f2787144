import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { layMoment } from '@core/listen';
import { barTicks } from '@core/time';
import type { Check } from './listening.engine';
import { ListenStore } from './listen.store';
import { RecordStore } from './record.store';

/** Speeds at which a record is heard, as shares of its own. */
export const SPEEDS = [0.25, 0.5, 0.75, 1] as const;
/** What goes round: the lick, one bar, one beat, or the join of two beats. */
export const ROUNDS = ['lick', 'bar', 'beat', 'join'] as const;
export type Round = (typeof ROUNDS)[number];
/** Where nothing was marked, so much from the place that is heard on is slowed down, in seconds. */
const ONWARD = 12;

interface Part {
  readonly from: number;
  readonly to: number;
}

/** How a record is heard: what goes round, at which speed, alone or against the phrase. */
@Injectable({ providedIn: 'root' })
export class HearingStore {
  private readonly record = inject(RecordStore);
  private readonly store = inject(ListenStore);
  private readonly player = this.record.player;
  readonly speed = signal<number>(1);
  readonly round = signal<Round>('lick');
  /** Whether what sounds is still being made. */
  readonly making = signal(false);
  /** How the record is held against the phrase; null while it is heard alone. */
  readonly checking = signal<Check | null>(null);

  /** What goes round now, in seconds; null for on and on. */
  private readonly area = computed(
    (): Part | null => {
      const [s, span, round] = [this.store.stretch(), this.store.span(), this.round()];
      if (!span || (round === 'lick' && this.store.endless())) return null;
      if (!s || round === 'lick') return span;
      const [bar, beat] = [barTicks(s.lay.meter), this.store.beatTicks()];
      const begin = s.first * bar + this.store.beat() * beat;
      const between = (from: number, to: number): Part => ({ from: layMoment(s.lay, from), to: layMoment(s.lay, to) });
      switch (round) {
        case 'bar': {
          const line = Math.floor(begin / bar) * bar;
          return between(line, line + bar);
        }
        case 'beat':
          return between(begin, begin + beat);
        case 'join':
          return between(begin + beat / 2, begin + beat + beat / 2);
      }
    },
    { equal: (a, b) => a?.from === b?.from && a?.to === b?.to },
  );

  constructor() {
    // Under what sounds its part and its speed change at once, at the same place.
    effect(() => {
      this.area();
      this.speed();
      if (!untracked(this.player.playing)) return;
      untracked(() => {
        const how = this.checking();
        void (how === null ? this.sound() : this.against(how));
      });
    });
    effect(() => {
      if (this.player.playing()) return;
      this.checking.set(null);
      // Whoever stops has heard enough: from now on the lick goes round.
      this.store.endless.set(false);
    });
  }

  async toggle(): Promise<void> {
    if (this.player.playing()) this.player.stop();
    else await this.sound();
  }

  /** Sounds what goes round at the speed that is set; goes on at the place that is heard where something sounds. */
  async sound(at?: number): Promise<void> {
    const whole = this.record.buffer();
    if (!whole) return;
    const [area, speed] = [this.area(), this.speed()];
    this.checking.set(null);
    const start = at ?? this.player.position() ?? area?.from ?? this.store.lick()?.from ?? 0;
    const part = area ?? { from: start, to: Math.min(whole.duration, start + ONWARD) };
    // Bars that reach over an end of the record go round whole: there is silence where there is no record.
    const asItIs = speed === 1 && part.from >= 0 && part.to <= whole.duration;
    const buffer = asItIs ? whole : await this.made(() => this.record.paced(part.from, part.to, speed));
    if (!buffer || speed !== this.speed()) return;
    const from = asItIs ? 0 : part.from;
    const round = area && { from: (area.from - from) / speed, to: (area.to - from) / speed };
    const sound = { buffer, from, speed, round };
    if (this.player.playing() && at === undefined) this.player.goOn(sound);
    else await this.player.play(sound, start);
  }

  /** The record and the phrase in turn, together or one in each ear, round and round; once more to stop. */
  async check(how: Check): Promise<void> {
    if (this.checking() === how) return this.player.stop();
    await this.against(how);
  }

  private async against(how: Check): Promise<void> {
    const [stretch, pattern, span] = [this.store.stretch(), this.store.pattern(), this.store.span()];
    const { api } = this.record;
    const rate = this.record.buffer()?.sampleRate;
    if (!stretch || !pattern || !span || !rate || !api) return;
    const speed = this.speed();
    const { left, right, laid } = await this.made(() => api.check({ stretch, pattern, how, speed }));
    if (speed !== this.speed()) return;
    const buffer = this.player.bufferOf([left, right], rate);
    const sound = { buffer, from: span.from, speed, round: { from: 0, to: buffer.duration }, laid };
    await this.player.play(sound, span.from);
    this.checking.set(how);
  }

  private async made<T>(make: () => Promise<T>): Promise<T> {
    this.making.set(true);
    try {
      return await make();
    } finally {
      this.making.set(false);
    }
  }
}
