import { effect, inject, Injectable, untracked } from '@angular/core';
import { patternOfText, tidy, untilLanding, type Pattern } from '@core/pattern';
import { expectedOf } from '@core/rendition';
import { parseStrokeText } from '@core/stroke';
import { barTicks, GRID, quarterTempo, ticks } from '@core/time';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { PlayChoices } from './choices';
import { PlayStore } from './play.store';

/** A phrase comes every so many bars; between them plain time. */
const EVERY = 4;

/**
 * The simulated player plays freely: plain time, and phrases of the shelf in it, so that one sees how it is heard.
 * Provided by the place.
 */
@Injectable()
export class StandIn {
  private readonly store = inject(PlayStore);
  private readonly choices = inject(PlayChoices);
  private readonly index = inject(ShelfIndex);
  private turn = -1;

  constructor() {
    effect(() => {
      const plays =
        this.store.phase() === 'playing' && this.choices.mode() === 'free' && this.store.source() === 'simulated';
      const long = this.store.secondsOf(EVERY * barTicks(this.store.meter()));
      const turn = plays ? Math.floor(this.store.seconds() / long) : -1;
      untracked(() => {
        if (turn > this.turn) void this.play(turn);
        this.turn = turn;
      });
    });
  }

  private async play(turn: number): Promise<void> {
    const meter = this.store.meter();
    const bpm = this.choices.bpm();
    const all = await this.index.callables(meter, bpm);
    const one = all[Math.floor(Math.random() * all.length)];
    const [drawn] = one ? await this.index.patternsOf([one.id]) : [];
    const expected = expectedOf(this.turnOf(drawn?.pattern ?? null), quarterTempo(bpm, meter), 0, 1);
    const by = this.store.secondsOf(turn * EVERY * barTicks(meter));
    this.store.ear.perform(expected.map((e) => ({ ...e, turn, seconds: e.seconds + by })));
  }

  /** Some bars of plain time with a phrase at their end, or in the second bar where it is longer. */
  private turnOf(phrase: Pattern | null): Pattern {
    const meter = this.store.meter();
    const bar = barTicks(meter);
    const read = parseStrokeText('R+K - R - R+L - R -');
    const beat = patternOfText(read.ok ? read.value : [], meter, GRID.eighths);
    const own = phrase ? untilLanding(phrase) : null;
    const bars = own ? Math.ceil((own.start + own.length) / bar) : 0;
    const from = own ? Math.max(1, EVERY - bars) * bar + own.start : EVERY * bar;
    const time = Array.from({ length: EVERY }, (_, b) =>
      beat.strokes.filter((s) => s.at < bar).map((s) => ({ ...s, at: ticks(b * bar + s.at) })),
    ).flat();
    const free = time.filter((s) => s.at < from || s.at >= from + (own?.length ?? 0));
    const strokes = [...free, ...(own?.strokes ?? []).map((s) => ({ ...s, at: ticks(from + s.at) }))];
    return tidy({
      ...beat,
      grid: own?.grid ?? beat.grid,
      feel: own?.feel ?? beat.feel,
      length: ticks(EVERY * bar),
      strokes,
      groups: [],
    });
  }
}
