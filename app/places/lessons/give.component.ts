import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  resource,
  signal,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { proposeStages, stageTitle, suggestLadder, type DrillPlan, type Stage } from '@core/drill';
import { LESSON_LIMITS, type GivenItem, type GivenLesson } from '@core/lesson';
import type { Phrase } from '@core/recipe';
import { patternOf } from '../../knowledge/patterns';
import { isoDay, practiceDayOf } from '../../environment/clock';
import { inTurns } from '../../common/in-turns';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { SettingsRepo } from '../../storage/settings.repo';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { TempoFieldComponent } from '../../widgets/tempo-field.component';
import { BesideComponent } from './beside.component';
import { LessonsStore } from './lessons.store';
import { SendLessonComponent } from './send-lesson.component';

/** So many phrases are drawn in one task. */
const A_TURN = 2;

/** Clean loops that a rung of a lesson asks for, until its teacher says otherwise. */
const LOOPS = 4;

/** A lesson that is given, as its teacher sets it; and below it what came back. */
@Component({
  selector: 'ls-give',
  imports: [
    BesideComponent,
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    NumberFieldComponent,
    RibbonComponent,
    RouterLink,
    SendLessonComponent,
    TempoFieldComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './give.component.html',
  styleUrls: ['./lesson.css', './give.component.css'],
})
export class GiveComponent {
  readonly given = input.required<GivenLesson>();
  readonly dropped = output();
  readonly store = inject(LessonsStore);
  readonly settings = inject(SettingsRepo);
  private readonly phrases = inject(PhrasesRepo);
  readonly limits = LESSON_LIMITS;
  readonly sending = signal(false);
  readonly date = computed(() => {
    const { due } = this.given();
    return due === null ? '' : isoDay(due);
  });
  private readonly asked = resource({
    // As one text: a note that is typed asks for no phrase anew.
    params: () =>
      this.given()
        .items.map((i) => i.phrase)
        .join(' '),
    loader: async ({ params }) => new Map((await this.phrases.some(params.split(' '))).map((p) => [p.id, p])),
  });
  /** The phrases of the lesson; those of before until others are read, so that nothing moves under the hand. */
  private readonly found = linkedSignal<ReadonlyMap<string, Phrase> | null, ReadonlyMap<string, Phrase> | null>({
    source: () => (this.asked.hasValue() ? this.asked.value() : null),
    computation: (found, before) => found ?? before?.value ?? null,
  });
  private readonly turn = inTurns(LESSON_LIMITS.items / A_TURN);
  private readonly many = computed(() => Math.min(this.given().items.length, (this.turn() + 1) * A_TURN));
  /** What came back is drawn behind the lesson itself. */
  readonly isDrawn = computed(() => this.many() === this.given().items.length && this.turn() > 0);
  /** The items that are drawn so far with their phrases; null where a phrase is not on the shelf any more. */
  readonly lines = computed(() => {
    const found = this.found();
    const drawn = this.given().items.slice(0, this.many());
    return drawn.map((item) => {
      const phrase = found?.get(item.phrase) ?? null;
      const pattern = phrase && patternOf(phrase);
      return {
        item,
        phrase,
        gone: found !== null && phrase === null && !this.asked.isLoading(),
        pattern,
        proposed: phrase && pattern ? proposeStages(pattern, phrase.family) : [],
      };
    });
  });
  readonly reports = computed(() => this.store.reportsOf(this.given().lesson));
  readonly canSend = computed(() => this.given().items.some((i) => this.found()?.has(i.phrase) === true));

  set(part: Partial<GivenLesson>): void {
    void this.store.setGiven(this.given().lesson, part);
  }

  setItem(id: string, part: Partial<GivenItem>): void {
    void this.store.setItem(this.given().lesson, id, part);
  }

  rename(field: HTMLInputElement): void {
    const title = field.value.trim().slice(0, LESSON_LIMITS.letters);
    if (title === '') field.value = this.given().title;
    else this.set({ title });
  }

  setDay(date: string): void {
    this.set({ due: practiceDayOf(date) });
  }

  move(from: number, by: number, event: Event): void {
    event.preventDefault();
    void this.store.moveItem(this.given().lesson, from, from + by);
  }

  drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    void this.store.moveItem(this.given().lesson, previousIndex, currentIndex);
  }

  take(id: string): void {
    void this.store.dropItem(this.given().lesson, id);
  }

  setGoal(item: GivenItem, goal: number): void {
    const plan = item.plan && { ...item.plan, goal, start: Math.min(item.plan.start, goal) };
    this.setItem(item.id, { goal, plan });
  }

  /** The stages and the ladder are set by the teacher; or left to what is proposed to the pupil. */
  togglePlan(item: GivenItem, proposed: readonly Stage[]): void {
    if (item.plan) return this.setItem(item.id, { plan: null, stageNotes: [] });
    const { start, step } = suggestLadder(item.goal, null);
    const stages = proposed.length > 0 ? { stages: [...proposed] } : {};
    this.setItem(item.id, { plan: { start, step, goal: item.goal, loops: LOOPS, ...stages } });
  }

  setPlan(item: GivenItem, part: Partial<DrillPlan>): void {
    if (item.plan) this.setItem(item.id, { plan: { ...item.plan, ...part } });
  }

  /** No ladder begins above its goal. */
  least(start: number, goal: number): number {
    return Math.min(start, goal);
  }

  titleOf(stage: Stage): string {
    return stageTitle(stage);
  }

  has(item: GivenItem, stage: Stage): boolean {
    return item.plan?.stages?.some((s) => s.id === stage.id) ?? false;
  }

  /** A stage is in the lesson or not; one always is. */
  toggleStage(item: GivenItem, proposed: readonly Stage[], stage: Stage): void {
    const own = item.plan?.stages ?? [];
    const stages = this.has(item, stage)
      ? own.filter((s) => s.id !== stage.id)
      : proposed.filter((s) => s.id === stage.id || own.some((o) => o.id === s.id));
    if (stages.length > 0) this.setPlan(item, { stages: [...stages] });
  }

  noteOf(item: GivenItem, stage: Stage): string {
    return item.stageNotes.find((n) => n.stage === stage.id)?.words ?? '';
  }

  setNote(item: GivenItem, stage: Stage, words: string): void {
    const others = item.stageNotes.filter((n) => n.stage !== stage.id);
    const own = words.trim().slice(0, LESSON_LIMITS.note);
    this.setItem(item.id, { stageNotes: own === '' ? others : [...others, { stage: stage.id, words: own }] });
  }

  async dropLesson(): Promise<void> {
    if (await this.store.drop(this.given().id, 'The lesson is deleted. Its phrases stay on your shelf.'))
      this.dropped.emit();
  }
}
