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
import { freshUuid } from '../../environment/ids';
import { now } from '../../environment/clock';
import { DayService } from '../../environment/day.service';
import { LESSON_LIMITS, type Question, type Report, type TakenLesson } from '@core/lesson';
import { lessonText, reportHolds, reportOf } from '@core/teaching';
import { dateWords, dayWords } from '@core/plan';
import { LessonsRepo } from '../../storage/lessons.repo';
import { fileName, saveText } from '../../widgets/save-svg';
import { LessonItemComponent } from './lesson-item.component';
import { LessonsStore } from './lessons.store';

/** A lesson that was taken: its notes, its phrases to drill, questions, and the report that goes back. */
@Component({
  selector: 'ls-taken',
  imports: [LessonItemComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './taken.component.html',
  styleUrl: './lesson.css',
})
export class TakenComponent {
  readonly taken = input.required<TakenLesson>();
  readonly dropped = output();
  private readonly store = inject(LessonsStore);
  private readonly repo = inject(LessonsRepo);
  private readonly day = inject(DayService);
  readonly letters = LESSON_LIMITS.letters;
  readonly noteLetters = LESSON_LIMITS.note;
  readonly lesson = computed(() => this.taken().came);
  /** What is typed of a question that is not asked yet, by its phrase. */
  readonly asking = signal<string | null>(null);
  readonly writing = signal(false);
  private readonly shelf = resource({
    params: () =>
      this.taken()
        .phrases.map((p) => p.phrase)
        .join(' '),
    loader: () => this.repo.shelfOf(this.taken()),
  });
  private readonly ids = computed(() => new Map(this.taken().phrases.map((p) => [p.item, p.phrase])));
  readonly facts = computed(() => {
    const { from, due, edition } = this.lesson();
    return [
      ...(from ? [`from ${from}`] : []),
      ...(due === null ? [] : [`wanted ${dayWords(due, this.day.today())}`]),
      ...(edition > 1 ? [`edition ${edition}`] : []),
    ].join(' · ');
  });
  private readonly answers = computed(() => new Map(this.lesson().answers.map((a) => [a.question, a.words])));
  readonly drill = computed(() => {
    const [first, ...rest] = this.lesson().items.flatMap((i) => this.idOf(i.id) ?? []);
    return first === undefined ? null : { first, then: rest.slice(0, 100).join(',') || null };
  });
  private readonly told = resource({
    params: () => (this.writing() ? this.taken() : undefined),
    loader: async ({ params }) => {
      const [shelf, tries] = [await this.repo.shelfOf(params), await this.repo.triesOf(params)];
      return reportOf(params, shelf, tries, now());
    },
  });
  /** The report as it would be written, the one before until the next is there; null while the first is worked out. */
  readonly report = linkedSignal<Report | null, Report | null>({
    source: () => (this.told.hasValue() ? this.told.value() : null),
    computation: (found, before) => found ?? (this.writing() ? (before?.value ?? null) : null),
  });
  readonly failed = computed(() => this.told.status() === 'error');
  readonly holds = computed(() => {
    const report = this.report();
    if (!report) return '';
    const tries = report.items.reduce((n, i) => n + i.tries.length, 0);
    return reportHolds(report.items.length, tries, report.questions.length);
  });
  readonly lines = computed(() => {
    const names = new Map(this.lesson().items.map((i) => [i.id, i.phrase.name]));
    return (this.report()?.items ?? []).map((i) => ({
      item: i.item,
      name: names.get(i.item) ?? '',
      words: `${i.many} ${i.many === 1 ? 'try' : 'tries'}, ${Math.round(i.seconds / 60)} min${
        i.stands === 'as it came' ? '' : i.stands === 'changed' ? ', you changed it' : ', it is off your shelf'
      }`,
    }));
  });
  readonly reportedWords = computed(() => {
    const at = this.taken().reported;
    return at === null ? 'No report sent yet.' : `Last report: ${dateWords(Math.floor(at / 86_400_000), true)}.`;
  });

  /** The phrase of the shelf that an item became; null where it is not on the shelf. */
  idOf(item: string): string | null {
    const id = this.ids().get(item);
    return id !== undefined && this.shelf.hasValue() && this.shelf.value().has(id) ? id : null;
  }

  isOff(item: string): boolean {
    return this.shelf.hasValue() && this.idOf(item) === null;
  }

  questionsOf(item: string | null): readonly (Question & { readonly answer: string })[] {
    return this.taken()
      .questions.filter((q) => q.item === item)
      .map((q) => ({ ...q, answer: this.answers().get(q.id) ?? '' }));
  }

  async ask(item: string | null, words: string): Promise<void> {
    this.asking.set(null);
    const own = words.trim().slice(0, LESSON_LIMITS.note);
    if (own === '') return;
    await this.store.setTaken(this.lesson().id, (row) => ({
      ...row,
      questions: [...row.questions, { id: freshUuid(), item, words: own }].slice(-LESSON_LIMITS.questions),
    }));
  }

  async takeBack(question: string): Promise<void> {
    await this.store.setTaken(this.lesson().id, (row) => ({
      ...row,
      questions: row.questions.filter((q) => q.id !== question),
    }));
  }

  async sign(from: string): Promise<void> {
    await this.store.setTaken(this.lesson().id, (row) => ({ ...row, from: from.trim().slice(0, this.letters) }));
  }

  async save(): Promise<void> {
    const report = this.report();
    if (!report) return;
    saveText(lessonText(report), fileName(`${this.lesson().title} report ${report.from}`, 'json'), 'application/json');
    this.writing.set(false);
    await this.store.setTaken(this.lesson().id, (row) => ({ ...row, reported: report.made }));
  }

  again(): void {
    this.told.reload();
  }

  async drop(): Promise<void> {
    if (await this.store.drop(this.taken().id, 'The lesson is gone. Its phrases and its board stay.'))
      this.dropped.emit();
  }
}
