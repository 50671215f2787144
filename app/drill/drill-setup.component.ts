import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output, signal } from '@angular/core';
import {
  growthStages,
  ladder,
  LADDER_SCHOOLS,
  LADDER_WORDS,
  stageRungs,
  type DrillPlan,
  type LadderSchool,
  type Stage,
} from '@core/drill';
import { DYNAMICS } from '@core/playback';
import { STRICTNESS } from '@core/take';
import type { SourceKind } from '../input/source';
import { HitSources } from '../input/sources.service';
import { MidiSource } from '../input/midi.source';
import { ChipsComponent, type Chip } from '../ui/chips.component';
import { NumberFieldComponent } from '../ui/number-field.component';
import { TempoFieldComponent } from '../ui/tempo-field.component';
import { CalibrateComponent } from './calibrate.component';
import { DrillStore } from './drill.store';
import { RoomChoices } from './room-choices.store';
import { MicLevelsComponent } from './mic-levels.component';
import { RoomSoundComponent } from './room-sound.component';
import { SimulatedSource } from '../input/simulated.source';
import type { Player } from '@core/take';

/**
 * What a drill is to be: its stages, its ladder, how a rung is held, who listens. Everything has a good answer already.
 */
@Component({
  selector: 'ls-drill-setup',
  imports: [
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    ChipsComponent,
    NumberFieldComponent,
    TempoFieldComponent,
    CalibrateComponent,
    MicLevelsComponent,
    RoomSoundComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drill-setup.component.html',
  styleUrl: './drill-setup.component.css',
})
export class DrillSetupComponent {
  readonly store = inject(DrillStore);
  readonly choices = inject(RoomChoices);
  readonly sources = inject(HitSources);
  readonly simulated = inject(SimulatedSource);
  readonly started = output<DrillPlan>();
  readonly changed = output<DrillPlan>();

  readonly schools = LADDER_SCHOOLS;
  readonly schoolWords = LADDER_WORDS;
  readonly strictnesses = STRICTNESS;
  readonly dynamics = DYNAMICS;
  readonly midi = inject(MidiSource);
  readonly ears: readonly Chip<SourceKind | null>[] = [
    { value: null, words: 'My ear' },
    ...this.sources.all.map((s) => ({ value: s.kind, words: s.name })),
  ];
  readonly calibrating = signal(false);
  /** What the player changed; it holds for this phrase, whatever comes in late about the kit or the log. */
  private readonly ownStages = linkedSignal<string | undefined, readonly Stage[] | null>({
    source: () => this.store.phrase()?.id,
    computation: () => null,
  });
  private readonly ownLadder = linkedSignal<string | undefined, Partial<DrillPlan>>({
    source: () => this.store.phrase()?.id,
    computation: () => ({}),
  });
  readonly stages = computed((): readonly Stage[] => this.ownStages() ?? this.store.proposed());
  readonly ladder = computed((): Omit<DrillPlan, 'stages'> => ({ ...this.store.suggestedPlan(), ...this.ownLadder() }));
  readonly plan = computed((): DrillPlan => ({
    ...this.ladder(),
    ...(this.stages().length > 0 ? { stages: [...this.stages()] } : {}),
  }));
  readonly rungs = computed(() =>
    ladder(this.ladder().ladder ?? 'steps', this.ladder().start, this.ladder().goal, this.ladder().step),
  );
  readonly hold = computed(() => this.ladder().hold?.kind ?? 'loops');
  readonly source = computed(() => {
    const kind = this.choices.source();
    return kind === null ? null : this.sources.of(kind);
  });
  /** About how long the whole takes, in minutes, if every rung passes at once. */
  readonly minutes = computed(() => {
    const plan = this.plan();
    const loop = this.store.loop() / 5040;
    const stages: readonly (Stage | undefined)[] = plan.stages ?? [undefined];
    const seconds = stages
      .flatMap((s) => stageRungs(plan, s))
      .reduce((sum, bpm) => sum + (plan.loops * loop * 60) / bpm + 6, 0);
    return Math.max(1, Math.round(seconds / 60));
  });

  set(part: Partial<DrillPlan>): void {
    this.ownLadder.update((p) => ({ ...p, ...part }));
    this.changed.emit(this.plan());
  }

  setSchool(event: Event): void {
    const school = LADDER_SCHOOLS.find((s: LadderSchool) => s === this.text(event));
    if (school)
      this.set({
        ladder: school,
        ...(school === 'percent' ? { step: 8 } : school === 'steps' ? { step: this.store.suggestion().step } : {}),
      });
  }

  setHold(event: Event): void {
    const kind = this.text(event);
    if (kind === 'bars' || kind === 'minutes') this.set({ hold: { kind, n: kind === 'bars' ? 8 : 2 } });
    else {
      this.ownLadder.update((p) => Object.fromEntries(Object.entries(p).filter(([key]) => key !== 'hold')));
      this.changed.emit(this.plan());
    }
  }

  setHeld(n: number): void {
    const { hold } = this.ladder();
    this.set(hold ? { hold: { kind: hold.kind, n } } : { loops: n });
  }

  move(event: CdkDragDrop<unknown>): void {
    this.shift(event.previousIndex, event.currentIndex);
  }

  shift(from: number, to: number): void {
    const next = [...this.stages()];
    if (to < 0 || to >= next.length) return;
    moveItemInArray(next, from, to);
    this.ownStages.set(next);
    this.changed.emit(this.plan());
  }

  drop(id: string): void {
    if (this.stages().length > 1) this.ownStages.set(this.stages().filter((s) => s.id !== id));
    this.changed.emit(this.plan());
  }

  /** Stages that are not proposed by themselves. */
  add(event: Event): void {
    const whole = this.store.whole();
    const what = this.text(event);
    if (event.target instanceof HTMLSelectElement) event.target.value = '';
    if (!whole) return;
    const own = this.stages();
    const free = (id: string): string => (own.some((s) => s.id === id) ? free(`${id}+`) : id);
    const grown = what === 'grow-4' ? growthStages(whole, 4) : what === 'grow-1' ? growthStages(whole, 1) : [];
    const single: Stage[] = what.startsWith('context-')
      ? [
          {
            id: free(what),
            kind: 'context',
            title: `${what.slice(8)} bars of time, then the fill`,
            why: 'Longer to wait, harder to begin in time.',
            bars: Number(what.slice(8)),
            short: false,
          },
        ]
      : what === 'skeleton' || what === 'voices' || what === 'steady-foot'
        ? [
            {
              id: free(what),
              kind: what,
              title: {
                skeleton: 'The skeleton',
                voices: 'All voices, no accents',
                'steady-foot': 'With a steady foot',
              }[what],
              why: 'Added by you.',
              short: true,
            },
          ]
        : [];
    this.ownStages.set([...grown.map((s) => ({ ...s, id: free(s.id) })), ...own, ...single].slice(0, 40));
    this.changed.emit(this.plan());
  }

  /** The phrase as it is, without the way there. */
  onlyWhole(): void {
    this.ownStages.set([
      {
        id: 'whole',
        kind: 'whole',
        title: 'The whole phrase',
        why: 'All of it, on the kit, up to the goal.',
        short: false,
      },
    ]);
    this.changed.emit(this.plan());
  }

  proposeAnew(): void {
    this.ownStages.set(null);
    this.changed.emit(this.plan());
  }

  setSource(kind: SourceKind | null): void {
    this.choices.listenTo(kind);
  }

  /** Another fault of the simulated player. */
  fault(part: Partial<Player>): void {
    this.simulated.player.update((p) => ({ ...p, ...part }));
  }

  /** How loud the rungs are meant: one way, or soft, medium and loud in turn. */
  setDynamic(event: Event): void {
    const text = this.text(event);
    const one = DYNAMICS.find((d) => d === text);
    if (one) this.choices.dynamic.set(one);
    this.set({ passes: text === 'passes' });
  }

  /** What keeps time before the fill in a stage: a groove of the shelf, or plain time. */
  setGroove(id: string, event: Event): void {
    const groove = this.text(event);
    this.ownStages.set(
      this.stages().map((s) => {
        if (s.id !== id) return s;
        if (groove !== '') return { ...s, groove };
        const plain = { ...s };
        delete plain.groove;
        return plain;
      }),
    );
    this.changed.emit(this.plan());
  }

  text(event: Event): string {
    return event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement
      ? event.target.value
      : '';
  }
}
