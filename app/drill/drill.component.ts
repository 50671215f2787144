import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  type OnDestroy,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { countAt } from '@core/time';
import { countingOf } from '@core/pattern';
import { drillTempo, isRunning, newDrill, type DrillPlan } from '@core/drill';
import { Transport } from '../audio/transport.service';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { SettingsRepo } from '../data/settings.repo';
import { KeysService } from '../shell/keys.service';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { StairsComponent } from '../ui/stairs/stairs.component';
import { TempoFieldComponent } from '../ui/tempo-field.component';
import { DrillStore } from './drill.store';

/** The practice room: dark, readable from a music stand, run with Space, Enter and the arrows. */
@Component({
  selector: 'ls-drill',
  imports: [RouterLink, RibbonComponent, StairsComponent, TempoFieldComponent],
  providers: [DrillStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drill.component.html',
  styleUrl: './drill.component.css',
})
export class DrillComponent implements OnDestroy {
  readonly phrase = input<string>();
  readonly store = inject(DrillStore);
  readonly settings = inject(SettingsRepo);
  readonly transport = inject(Transport);
  readonly missing = signal(false);
  readonly loaded = signal(false);

  readonly plan = linkedSignal(() => this.store.suggestedPlan());
  readonly drill = this.store.drill;
  /** The stairs: of the drill, or of the one that would start. */
  readonly stairs = computed(() => this.drill() ?? newDrill('preview', this.store.phrase()?.id ?? '', this.plan()));
  readonly phase = computed(() => this.drill()?.phase ?? 'ready');
  readonly running = computed(() => isRunning(this.phase()));
  readonly loopMarks = computed(() => {
    const drill = this.drill();
    return drill
      ? Array.from({ length: drill.plan.loops }, (_, i) =>
          i < drill.loops ? 'over' : i === drill.loops && drill.phase === 'playing' ? 'now' : 'ahead',
        )
      : [];
  });
  readonly count = computed(() => {
    const tick = this.transport.position();
    const pattern = this.store.pattern();
    if (tick === null || !pattern) return null;
    const loop = this.store.loop();
    const at = tick < 0 ? tick : tick % loop;
    const { bar, beat } = countAt(Math.floor(at), countingOf(pattern, this.settings.schools()));
    return { beat, bar: tick < 0 ? 'count-in' : `bar ${bar}` };
  });
  /** Drills under way, for the room without a phrase. */
  private readonly allDrills = toSignal(inject(DrillsRepo).drills$, { initialValue: null });
  private readonly allPhrases = toSignal(inject(PhrasesRepo).all$, { initialValue: null });
  readonly underWay = computed(() => {
    const phrases = new Map((this.allPhrases() ?? []).map((p) => [p.id, p]));
    return (this.allDrills() ?? []).flatMap((d) => {
      const phrase = phrases.get(d.phrase);
      return phrase ? [{ id: phrase.id, name: phrase.name, at: drillTempo(d), goal: d.plan.goal }] : [];
    });
  });
  readonly said = computed(() => {
    const drill = this.drill();
    const last = drill?.attempts.at(-1);
    if (!drill || !last) return 'Space starts: one bar is counted in.';
    switch (drill.phase) {
      case 'done':
        return `The goal of ${drill.plan.goal} was clean. It is in the log.`;
      case 'stopped':
        return `Enough for today at ${drillTempo(drill)}. The drill waits here.`;
      case 'ready':
        return `You left at ${drillTempo(drill)}. Space goes on from there.`;
      case 'count-in':
      case 'playing':
      case 'judging':
        if (last.verdict === 'clean') return `${last.bpm} was clean.`;
        return last.bpm > drillTempo(drill) ? `Twice messy at ${last.bpm}: one rung down.` : `Messy at ${last.bpm}: once more.`;
    }
  });

  constructor() {
    effect(() => {
      const id = this.phrase();
      // What the store looks at while opening is no reason to open again.
      untracked(() => void this.open(id));
    });
    const good = (): void => this.pressGood();
    const bad = (): void => this.pressBad();
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Start; then: this try was clean', run: good },
      { combo: 'ArrowUp', shown: '↑', does: 'The same', run: good },
      { combo: 'ArrowRight', shown: '→', does: 'The same', run: good },
      { combo: 'Enter', shown: 'Enter', does: 'This try was messy; before the start: enough for today', run: bad },
      { combo: 'ArrowDown', shown: '↓', does: 'The same', run: bad },
      { combo: 'ArrowLeft', shown: '←', does: 'Pause', run: () => this.store.happen({ kind: 'pause' }) },
      { combo: 'Escape', shown: 'Esc', does: 'Enough for today', run: () => this.store.happen({ kind: 'stop' }) },
    ]);
  }

  ngOnDestroy(): void {
    this.store.destroy();
  }

  private async open(id: string | undefined): Promise<void> {
    this.loaded.set(false);
    this.missing.set(id !== undefined && !(await this.store.open(id)));
    this.loaded.set(true);
  }

  pressGood(): void {
    const drill = this.drill();
    if (!drill) this.store.begin(this.plan());
    else if (drill.phase === 'done') void this.store.startOver();
    else this.store.happen({ kind: this.running() ? 'clean' : 'start', at: Date.now() });
  }

  pressBad(): void {
    if (this.running()) this.store.happen({ kind: 'messy', at: Date.now() });
    else this.store.happen({ kind: 'stop' });
  }

  set(part: Partial<DrillPlan>): void {
    this.plan.update((p) => ({ ...p, ...part }));
  }

  wholeOf(event: Event, least: number, most: number): number {
    const n = event.target instanceof HTMLInputElement ? Math.round(Number(event.target.value)) : least;
    return Math.min(most, Math.max(least, Number.isFinite(n) ? n : least));
  }
}
