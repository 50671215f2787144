import { ChangeDetectionStrategy, Component, computed, inject, output, type OnDestroy } from '@angular/core';
import { barsWords, spotText } from '@core/show';
import { EscDirective } from '../../common/esc.directive';
import { KeysService } from '../../common/keys.service';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import type { SourceKind } from '../../hits/source';
import { HitSources } from '../../hits/sources.service';
import { TakeRecorder } from '../../playing/take.recorder';
import { SelectComponent } from '../../widgets/select.component';
import { PAUSES, RunStore, type Pause, type SpotResult } from './run.store';

/** What a list holds for the player's own ear. */
const EAR = 'ear';

/** The run-through of a show: read from the stool, driven by Space and the arrows. */
@Component({
  selector: 'ls-run',
  imports: [EscDirective, RibbonComponent, SelectComponent],
  providers: [TakeRecorder, RunStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run.component.html',
  styleUrl: './run.component.css',
})
export class RunComponent implements OnDestroy {
  readonly store = inject(RunStore);
  readonly closed = output();
  private readonly sources = inject(HitSources);
  readonly ears = [{ value: EAR, words: 'my ear' }, ...this.sources.all.map((s) => ({ value: s.kind, words: s.name }))];
  readonly pauses = PAUSES.map((p) => ({ value: p, words: p === 0 ? 'wait for me' : `${p} seconds` }));
  readonly ear = computed(() => this.store.source() ?? EAR);
  /** What the drummer does next, in few words. */
  readonly says = computed(() => {
    const { phase, played } = this.store.run();
    switch (phase) {
      case 'ready':
        return 'Press Space: the click counts you in.';
      case 'count-in':
        return 'Counting in';
      case 'playing':
        return '';
      case 'between':
        return this.store.pause() === 0 ? 'Press Space for the next cue.' : 'The next cue follows.';
      case 'over':
        return played.length === 0 ? 'This show has no cues.' : 'That was the show.';
    }
  });
  readonly barText = computed(() => {
    const [bar, cue] = [this.store.bar(), this.store.cue()];
    if (!cue) return '';
    return bar === null ? barsWords(cue.bars) : bar === 0 ? 'count-in' : `bar ${bar} of ${Math.ceil(cue.bars)}`;
  });
  readonly where = computed(() => {
    const [next, cue] = [this.store.next(), this.store.cue()];
    return next && cue ? spotText({ ...next.spot, hits: [], free: [], lands: 'any' }, cue) : '';
  });
  /** How soon the spot comes. */
  readonly soon = computed(() => {
    const next = this.store.next();
    if (!next || next.bars === null) return 'first';
    return next.now ? 'now' : next.bars === 0 ? 'next bar' : `in ${next.bars} ${next.bars === 1 ? 'bar' : 'bars'}`;
  });
  readonly own = computed(() => this.store.results());

  constructor() {
    const { store } = this;
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Play, or stop', run: () => store.toggle() },
      { combo: 'Enter', shown: 'Enter', does: 'Play, or stop', run: () => store.toggle() },
      { combo: 'ArrowRight', shown: '→', does: 'Next cue', run: () => store.to(store.run().cue + 1) },
      { combo: 'ArrowLeft', shown: '←', does: 'Cue before', run: () => store.to(store.run().cue - 1) },
    ]);
  }

  listen(ear: string): void {
    this.store.listenTo(ear === EAR ? null : (ear as SourceKind));
  }

  setPause(pause: number): void {
    this.store.pause.set(pause as Pause);
  }

  whereOf(r: SpotResult): string {
    const cue = this.store.cues()[r.cue];
    return cue ? `${cue.name}, ${spotText({ ...r.where, hits: [], free: [], lands: 'any' }, cue)}` : '';
  }

  ngOnDestroy(): void {
    this.store.destroy();
  }
}
