import { computed, effect, inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { clamp } from '@core/base';
import { TEMPO } from '@core/time';
import { whenIdle } from '../../common/idle';
import { StickingWorker } from './sheets/stickings/sticking.service';
import { BenchStore } from './document/bench.store';
import { CompareStore } from './document/compare.store';
import { KeepingStore } from './document/keeping.store';
import { TrailStore } from './document/trail.store';
import { ViewStore, type Sheet } from './document/view.store';
import { LinesStore } from './ribbon/lines.store';
import { SoundStore } from './ribbon/sound.store';

/** How long what is drawn has the machine to itself before a worker starts that may be wanted, in milliseconds. */
const WARM_AFTER = 2000;

/** What can be done on the Bench as a whole, by button and by key. Provided by the Bench. */
@Injectable()
export class BenchCommands {
  readonly store = inject(BenchStore);
  readonly view = inject(ViewStore);
  readonly lines = inject(LinesStore);
  readonly sound = inject(SoundStore);
  readonly keeping = inject(KeepingStore);
  private readonly trail = inject(TrailStore);
  private readonly compare = inject(CompareStore);
  private readonly sticker = inject(StickingWorker);

  constructor() {
    this.compare.shown$.pipe(takeUntilDestroyed()).subscribe(() => this.view.layBeneath());
    // By the time a sticking is asked for, the worker that finds it has started.
    const worked = computed(() => this.store.recipe() !== null);
    effect((callOff) => {
      if (!worked()) return;
      const timer = setTimeout(() => (idle = whenIdle(() => this.sticker.warm())), WARM_AFTER);
      let idle = (): void => clearTimeout(timer);
      callOff(() => idle());
    });
  }

  /** A step back or on through the recipe, and how it sounds there. */
  walk(by: 1 | -1): void {
    if (by < 0) this.trail.back();
    else this.trail.on();
    this.sound.takeOver();
  }

  toggleSheet(what: Sheet): void {
    // What is asked for begins with nothing too.
    if (this.store.recipe() || what === 'compose') this.view.toggleSheet(what);
  }

  hearOther(): void {
    if (this.view.lower() !== 'compare') this.view.lower.set('compare');
    this.compare.swap();
  }

  print(): void {
    if (this.store.recipe()) this.view.printing.update((on) => !on);
  }

  takeAlong(): void {
    if (this.store.recipe()) this.view.takingAlong.update((on) => !on);
  }

  bringIn(): void {
    this.view.bringing.set({ file: null });
  }

  nudge(by: number): void {
    this.store.setTempo(clamp(this.store.tempo() + by, TEMPO.least, TEMPO.most));
  }
}
