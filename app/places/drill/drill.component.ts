import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  type OnDestroy,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Tooltip } from 'primeng/tooltip';
import { now } from '../../environment/clock';
import { askedPart, newDrill, simpleStage } from '@core/drill';
import { TEMPO } from '@core/time';
import { TodayRepo } from '../../storage/today.repo';
import { BlockClockComponent } from '../../playing/block-clock.component';
import { KeysService } from '../../common/keys.service';
import { SaveDrawingComponent } from '../../widgets/save-drawing.component';
import { StairsComponent } from './stairs/stairs.component';
import { drillKeys } from './drill-keys';
import { LessonNoteComponent } from './lesson-note.component';
import { ElsewhereNoteComponent } from './elsewhere-note.component';
import { DrillSetupComponent } from './drill-setup.component';
import { DrillStore } from './drill.store';
import { PlanStore } from './plan.store';
import { PracticeGuard } from './practice.guard';
import { RoomChoices } from './room-choices.store';
import { RoomSoundComponent } from './room-sound.component';
import { RungDrawingComponent } from './rung-drawing.component';
import { RungKeysComponent } from './rung-keys.component';
import { RungTempoComponent } from './rung-tempo.component';
import { saidOf } from './said';
import { SourceWatch } from './source-watch.store';
import { SubjectStore } from './subject.store';
import { TakeRecorder } from '../../playing/take.recorder';
import { TryJudge } from './try.judge';
import { UnderWayComponent } from './under-way.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { TermedComponent } from '../../guide/termed.component';
import { EscDirective } from '../../common/esc.directive';

/** The practice room: readable from a music stand, run with Space, Enter and the arrows. */
@Component({
  selector: 'ls-drill',
  imports: [
    EscDirective,
    TermedComponent,
    GuideLinkComponent,
    BlockClockComponent,
    DrillSetupComponent,
    ElsewhereNoteComponent,
    LessonNoteComponent,
    RoomSoundComponent,
    RouterLink,
    RungDrawingComponent,
    RungKeysComponent,
    RungTempoComponent,
    SaveDrawingComponent,
    StairsComponent,
    Tooltip,
    UnderWayComponent,
  ],
  providers: [DrillStore, PlanStore, RoomChoices, SourceWatch, SubjectStore, TakeRecorder, TryJudge],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './drill.component.html',
  styleUrl: './drill.component.css',
})
export class DrillComponent implements OnDestroy {
  readonly phrase = input<string>();
  /** Route: the phrases that are drilled after this one, their ids with commas between. */
  readonly then = input<string>();
  /** Route: a part that was asked for, in ticks, with what it was called, and a tempo to begin at. */
  readonly from = input<string>();
  readonly until = input<string>();
  readonly part = input<string>();
  readonly at = input<string>();
  readonly to = input<string>();
  /** Route: the block of the day that is played. */
  readonly block = input<string>();
  private readonly todays = inject(TodayRepo);
  /** The block of the day that this room is open for. */
  readonly running = computed(() => {
    const { running } = this.todays.now();
    return running && running.id === this.block() ? running : null;
  });
  readonly next = computed(() => {
    const ids = (this.then() ?? '').split(',').filter(Boolean);
    const [id] = ids;
    return id === undefined ? null : { id, then: ids.slice(1).join(','), left: ids.length };
  });
  readonly store = inject(DrillStore);
  readonly subject = inject(SubjectStore);
  readonly choices = inject(RoomChoices);
  readonly guard = inject(PracticeGuard);
  private readonly router = inject(Router);
  readonly plans = inject(PlanStore);
  readonly missing = signal(false);
  readonly loaded = signal(false);
  /** Whether the room's sound is being set. */
  readonly sounds = signal(false);
  readonly drawnAs = signal<'ribbon' | 'staff'>('ribbon');
  readonly drill = this.store.drill;
  /** The stairs: of the drill, or of the one that would start. */
  readonly stairs = computed(
    () =>
      this.drill() ?? newDrill('preview', this.subject.phrase()?.id ?? '', { ...this.plans.plan(), stages: undefined }),
  );
  readonly said = computed(() => saidOf(this.drill(), { slow: this.store.slow(), slept: this.store.slept() }));

  constructor() {
    effect(() => {
      const id = this.phrase();
      // What the store looks at while opening is no reason to open again.
      untracked(() => void this.open(id));
    });
    effect(() => this.guard.playing(this.store.running()));
    // Start stands at the end of a long set-up on a small screen: what it begins is seen from its top.
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const begun = computed(() => this.drill() !== null);
    afterRenderEffect(() => {
      if (begun()) host.scrollTo({ top: 0 });
    });
    inject(KeysService).use(drillKeys(this));
  }

  ngOnDestroy(): void {
    this.guard.playing(false);
    this.store.destroy();
  }

  toggleSounds(): void {
    if (this.drill()) this.sounds.update((on) => !on);
  }

  toggleStaff(): void {
    this.drawnAs.update((as) => (as === 'ribbon' ? 'staff' : 'ribbon'));
  }

  private async open(id: string | undefined): Promise<void> {
    this.loaded.set(false);
    this.missing.set(id !== undefined && !(await this.store.open(id)));
    this.asked();
    this.loaded.set(true);
    // A key that came before it was known whether a drill is under way is not lost.
    if (this.early && this.subject.phrase()) this.pressGood();
    this.early = false;
  }
  private early = false;

  /** What was asked for in words: the part by itself, or taken out of the drill that is under way. */
  private asked(): void {
    const whole = this.subject.whole();
    if (!whole) return;
    this.asBlock();
    const stage =
      this.from() === undefined ? null : askedPart(whole, Number(this.from()), Number(this.until()), this.part() ?? '');
    if (stage && this.drill()) this.store.takeOut(stage);
    else if (stage) this.plans.onlyPart(stage);
    const at = Number(this.at());
    // Once it was heard it is over: a page that is loaded again does not take the part out again.
    const over = { from: null, until: null, part: null, at: null, to: null };
    if (this.from() !== undefined || this.at() !== undefined)
      void this.router.navigate([], { queryParams: over, queryParamsHandling: 'merge', replaceUrl: true });
    const isTempo = (n: number): boolean => n >= TEMPO.least && n <= TEMPO.most;
    const to = Number(this.to());
    if (!this.drill() && isTempo(at))
      this.plans.set({ start: at, goal: isTempo(to) ? Math.max(at, to) : Math.max(at, this.plans.ladder().goal) });
  }

  /** A block of the day: what it asks for stands ready. A drill under way goes on; free play is put into it. */
  private asBlock(): void {
    const block = this.running();
    if (!block) return;
    if (!this.drill()) this.plans.ofBlock(block);
    else if (block.kind === 'play' && !this.store.free()) this.store.takeOut(simpleStage('free'));
  }

  /** The block of the day is over: back for the next. */
  async endBlock(): Promise<void> {
    if (!this.running()) return;
    this.store.leave();
    await this.todays.finish();
    await this.router.navigate(['/today']);
  }

  pressGood(): void {
    const drill = this.drill();
    if (!this.loaded()) this.early = true;
    else if (!drill) this.store.begin(this.plans.plan());
    else if (drill.phase === 'done') void this.store.startOver();
    else if (this.store.running()) this.store.judge('clean');
    else this.store.dispatch({ kind: 'start', at: now() });
  }

  pressBad(): void {
    if (this.store.free() && this.store.running()) this.store.dispatch({ kind: 'pause' });
    else if (this.store.running()) this.store.judge('messy');
    else this.store.dispatch({ kind: 'stop' });
  }
}
