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
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { count } from '@core/base';
import { countAt } from '@core/time';
import { countingOf } from '@core/pattern';
import { drillPass, drillTempo, isRunning, newDrill } from '@core/drill';
import { Transport } from '../audio/transport.service';
import { DrillsRepo } from '../data/drills.repo';
import { PhrasesRepo } from '../data/phrases.repo';
import { SettingsRepo } from '../data/settings.repo';
import { KeysService } from '../shell/keys.service';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';
import { StairsComponent } from '../ui/stairs/stairs.component';
import { NO_MARKS, type RibbonMarks } from '../ui/ribbon/marks';
import { DrillSetupComponent } from './drill-setup.component';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';
import { JudgedComponent } from './judged.component';
import { CalibrateComponent } from './calibrate.component';
import { HitSources } from '../input/sources.service';
import { PracticeGuard } from './practice.guard';
import { RoomSoundComponent } from './room-sound.component';
import { SubjectStore } from './subject.store';
import { TakeRecorder } from './take.recorder';
import { TryMeter } from './try.meter';

/** The practice room: readable from a music stand, run with Space, Enter and the arrows. */
@Component({
  selector: 'ls-drill',
  imports: [
    RouterLink,
    RibbonComponent,
    StairsComponent,
    DrillSetupComponent,
    JudgedComponent,
    CalibrateComponent,
    RoomSoundComponent,
  ],
  providers: [DrillStore, RoomChoices, SubjectStore, TakeRecorder, TryMeter],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drill.component.html',
  styleUrl: './drill.component.css',
})
export class DrillComponent implements OnDestroy {
  readonly phrase = input<string>();
  readonly store = inject(DrillStore);
  readonly choices = inject(RoomChoices);
  readonly settings = inject(SettingsRepo);
  readonly transport = inject(Transport);
  readonly missing = signal(false);
  /** Whether the room's sound is being set. */
  readonly sounds = signal(false);
  readonly calibrating = signal(false);
  private readonly sources = inject(HitSources);
  readonly source = computed(() => {
    const kind = this.choices.source();
    return kind === null ? null : this.sources.of(kind);
  });
  readonly pass = computed(() => {
    const drill = this.drill();
    return drill ? drillPass(drill) : null;
  });
  readonly loaded = signal(false);
  readonly loopsOf = (n: number): string => count(n, 'loop');

  readonly plan = linkedSignal(() => this.store.suggestedPlan());
  readonly drill = this.store.drill;
  /** The stairs: of the drill, or of the one that would start. */
  readonly stairs = computed(
    () => this.drill() ?? newDrill('preview', this.store.phrase()?.id ?? '', { ...this.plan(), stages: undefined }),
  );
  readonly phase = computed(() => this.drill()?.phase ?? 'ready');
  readonly running = computed(() => isRunning(this.phase()));
  private readonly setup = viewChild(DrillSetupComponent);
  readonly guard = inject(PracticeGuard);
  /** The stages of the drill, passed, present and to come. */
  readonly stages = computed(() => {
    const drill = this.drill();
    return (drill?.plan.stages ?? []).map((s, i) => ({
      ...s,
      state: i < (drill?.stage ?? 0) ? 'over' : i === (drill?.stage ?? 0) ? 'now' : 'ahead',
    }));
  });
  readonly marks = computed((): RibbonMarks => {
    const dots = this.store.recorder.dots();
    const last = dots.at(-1)?.turn ?? 0;
    return { ...NO_MARKS, dots: dots.map((d) => ({ tick: d.tick, limb: d.limb, old: d.turn < last })) };
  });
  readonly loopMarks = computed(() => {
    const drill = this.drill();
    return drill
      ? Array.from({ length: Math.min(32, this.store.need()) }, (_, i) =>
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
    if (this.store.slow()) return 'Half speed, to look at it: nothing counts. Space goes on with the rung.';
    if (!drill || (!last && !this.store.slept()))
      return drill && isRunning(drill.phase) ? '' : 'Space starts: one bar is counted in.';
    if (this.store.slept()) return 'The device slept, so the try was broken off. Space begins the rung again.';
    switch (drill.phase) {
      case 'done':
        return `The goal of ${drill.plan.goal} was clean. It is in the log.`;
      case 'stopped':
        return `Enough for today at ${drillTempo(drill)}. The drill waits here.`;
      case 'ready':
        if (!last) break;
        if (this.store.stage() && last.verdict === 'clean' && drill.rung === 0)
          return `${last.bpm} was clean. Next: ${this.store.stage()?.title ?? ''}.`;
        return `You left at ${drillTempo(drill)}. Space goes on from there.`;
      case 'count-in':
      case 'playing':
      case 'judging':
        if (!last) break;
        if (last.verdict === 'clean' && this.pass() && last.bpm === drillTempo(drill))
          return `${last.bpm} was clean ${last.dynamic}. Now ${this.pass()}.`;
        if (last.verdict === 'clean') return `${last.bpm} was clean.`;
        return last.bpm > drillTempo(drill)
          ? `Twice messy at ${last.bpm}: one rung down.`
          : `Messy at ${last.bpm}: once more.`;
    }
    return '';
  });

  constructor() {
    effect(() => {
      const id = this.phrase();
      // What the store looks at while opening is no reason to open again.
      untracked(() => void this.open(id));
    });
    effect(() => this.guard.playing(this.running()));
    const good = (): void => this.pressGood();
    const bad = (): void => this.pressBad();
    inject(KeysService).use([
      { combo: 'Space', shown: 'Space', does: 'Start; then: this try was clean', run: good },
      { combo: 'ArrowUp', shown: '↑', does: 'The same', run: good },
      { combo: 'ArrowRight', shown: '→', does: 'The same', run: good },
      { combo: 'Enter', shown: 'Enter', does: 'This try was messy; before the start: enough for today', run: bad },
      { combo: 'ArrowDown', shown: '↓', does: 'The same', run: bad },
      { combo: 'ArrowLeft', shown: '←', does: 'Pause', run: () => this.store.happen({ kind: 'pause' }) },
      {
        combo: 's',
        shown: 'S',
        does: 'Stay on this rung, or no longer',
        run: () => this.store.happen({ kind: 'stay' }),
      },
      { combo: 'PageDown', shown: 'Page ↓', does: 'One rung down', run: () => this.store.happen({ kind: 'down' }) },
      { combo: 'i', shown: 'I', does: 'Isolate the tight spot', run: () => this.store.isolate() },
      {
        combo: 'h',
        shown: 'H',
        does: 'The rung at half speed, to look at it; nothing counts meanwhile',
        run: () => this.store.toggleSlow(),
      },
      { combo: 'c', shown: 'C', does: 'Click, counts and loudness', run: () => this.toggleSounds() },
      { combo: 'Escape', shown: 'Esc', does: 'Enough for today', run: () => this.store.happen({ kind: 'stop' }) },
    ]);
  }

  ngOnDestroy(): void {
    this.guard.playing(false);
    this.store.destroy();
  }

  toggleSounds(): void {
    if (this.drill()) this.sounds.update((on) => !on);
  }

  private async open(id: string | undefined): Promise<void> {
    this.loaded.set(false);
    this.missing.set(id !== undefined && !(await this.store.open(id)));
    this.loaded.set(true);
  }

  pressGood(): void {
    const drill = this.drill();
    if (!drill) this.store.begin(this.setup()?.plan() ?? this.plan());
    else if (drill.phase === 'done') void this.store.startOver();
    else if (this.running()) this.store.judge('clean');
    else this.store.happen({ kind: 'start', at: Date.now() });
  }

  pressBad(): void {
    if (this.running()) this.store.judge('messy');
    else this.store.happen({ kind: 'stop' });
  }
}
