import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { map, of, switchMap } from 'rxjs';
import { RouterLink } from '@angular/router';
import { Menu } from 'primeng/menu';
import { format } from 'date-fns';
import { fastestClean, isEvidence, type Attempt } from '@core/drill';
import type { Phrase } from '@core/recipe';
import { rendition, renditionOf, type Rendition } from '@core/rendition';
import type { KeptTake } from '@core/take';
import { patternOf } from '../../knowledge/patterns';
import { DrillsRepo } from '../../storage/drills.repo';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { KitsRepo } from '../../storage/kits.repo';
import type { NamedPhrase } from '../../knowledge/index/entry';
import { WantedService } from '../../knowledge/wanted.service';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TakesRepo } from '../../storage/takes.repo';
import { LogEdits, type TakeBack } from '../../storage/log-edits.repo';
import { KeysService } from '../../common/keys.service';
import { NoticesService } from '../../common/notices.service';
import { ChartComponent } from './charts/chart.component';
import { ChipsComponent } from '../../widgets/chips.component';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';
import { AnswersStore, type Beside } from './answers.store';
import { NoteDialogComponent } from './note-dialog.component';
import { isOfPhrase, QUESTION_CHIPS, questionOf, type Question } from './questions';
import { inTurns } from '../../common/in-turns';
import { fileName, saveCsv, saveText } from '../../widgets/save-svg';
import { TakeViewComponent } from './take-view.component';
import { TriesTableComponent } from './tries-table.component';
import { SelectComponent } from '../../widgets/select.component';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { TermedComponent } from '../../guide/termed.component';

/** The Log: questions with pictures, and every try. */
@Component({
  selector: 'ls-log',
  imports: [
    TermedComponent,
    GuideLinkComponent,
    ChartComponent,
    ChipsComponent,
    Menu,
    NoteDialogComponent,
    RibbonComponent,
    RouterLink,
    SelectComponent,
    TakeViewComponent,
    TriesTableComponent,
  ],
  providers: [AnswersStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './log.component.html',
  styleUrl: './log.component.css',
})
export class LogComponent {
  /** Route: the phrase to show first. */
  readonly phrase = input<string>();
  /** Route: the question to begin with. */
  readonly ask = input<string>();
  readonly answers = inject(AnswersStore);
  private readonly edits = inject(LogEdits);
  private readonly notices = inject(NoticesService);
  private readonly wanted = inject(WantedService);
  readonly questions = QUESTION_CHIPS;
  readonly question = linkedSignal((): Question => questionOf(this.ask()));
  readonly ofPhrase = computed(() => isOfPhrase(this.question()));
  private readonly undos: { readonly run: TakeBack; readonly said: string }[] = [];
  private readonly menuFor = signal<Attempt | null>(null);
  /** The try whose note is written. */
  readonly noting = signal<Attempt | null>(null);
  readonly menuItems = computed(() => {
    const row = this.menuFor();
    if (!row) return [];
    const other = row.verdict === 'clean' ? 'messy' : 'clean';
    return [
      { label: row.note ? 'Change the note …' : 'Write a note …', command: () => this.noting.set(row) },
      { label: `Mark it ${other}`, command: () => void this.correct(row) },
      { label: 'Remove from the Log', command: () => void this.remove(row) },
    ];
  });
  private readonly drills = inject(DrillsRepo);
  private readonly phrases = inject(PhrasesRepo);
  private readonly names = toSignal<readonly NamedPhrase[] | null>(inject(ShelfIndex).names$('drilled'), {
    initialValue: null,
  });
  readonly ready = computed(() => this.names() !== null);
  /** Phrases that were drilled, the newest drilled first. */
  readonly named = computed(() => (this.names() ?? []).map((p) => ({ value: p.id, words: p.name.slice(0, 80) })));
  readonly chosen = linkedSignal<readonly { readonly value: string }[], string | null>({
    source: this.named,
    computation: (list, before) => {
      const wanted = before?.value ?? this.phrase();
      return list.find((d) => d.value === wanted)?.value ?? list[0]?.value ?? null;
    },
  });
  /** Its tries, the newest first: nothing else of the log is read. */
  readonly rows = toSignal(
    toObservable(this.chosen).pipe(
      switchMap((id) => (id === null ? of(null) : this.drills.triesOf$(id))),
      map((tries) => (tries ? [...tries].reverse() : null)),
    ),
    { initialValue: null },
  );
  private readonly shown = toSignal(
    toObservable(this.chosen).pipe(switchMap((id) => (id === null ? of(null) : this.phrases.of$(id)))),
    { initialValue: null },
  );
  readonly current = computed(() => {
    const [phrase, tries] = [this.shown(), this.rows()];
    return phrase && tries && tries[0]?.phrase === phrase.id ? { phrase, best: fastestClean(tries) } : null;
  });
  /** The chart stands there first, then the table of tries. */
  readonly turn = inTurns(1, () => this.current() !== null);
  private readonly takesRepo = inject(TakesRepo);
  private readonly kits = inject(KitsRepo);
  readonly takes = toSignal(
    toObservable(this.chosen).pipe(switchMap((id) => (id === null ? of([]) : this.takesRepo.of$(id)))),
    {
      initialValue: [] as readonly KeptTake[],
    },
  );
  private readonly openedId = signal<string | null>(null);
  /** The take that is looked at and heard, with what was meant. */
  readonly opened = computed(() => {
    const take = this.takes().find((t) => t.id === this.openedId());
    const phrase = this.current()?.phrase;
    if (!take || !phrase) return null;
    return {
      take,
      meant: this.meantBy(take, phrase),
      attempt: this.rows()?.find((a) => a.id === take.id) ?? null,
      changed: phrase.changed > take.at,
    };
  });
  readonly title = computed(() => this.answers.answer()?.title ?? '');
  /** The answer stands there in words first, then drawn. */
  readonly drawing = inTurns(1, () => this.answers.answer() !== null);
  private readonly chart = viewChild(ChartComponent);

  constructor() {
    effect(() => {
      const [question, found, rows, takes] = [this.question(), this.current(), this.rows() ?? [], this.takes()];
      const apart = new Set(rows.flatMap((t) => (isEvidence(t) ? [] : [t.id])));
      this.answers.asked.set({
        question,
        phrase: found?.phrase ?? null,
        best: found?.best ?? null,
        tries: rows.filter((t) => isEvidence(t)),
        apart: rows.filter((t) => !isEvidence(t)).length,
        takes: found
          ? takes
              .filter((take) => !apart.has(take.id))
              .map((take) => ({ take, meant: this.meantBy(take, found.phrase) }))
          : [],
      });
    });
    inject(KeysService).use([
      { combo: '$mod+KeyZ', shown: 'Ctrl Z', does: 'Undo the last correction', run: () => void this.undo() },
    ]);
  }

  /** A figure that is on no shelf yet is laid on the Bench. */
  async toBench({ pattern, bpm }: Beside): Promise<void> {
    if (!(await this.wanted.layPattern(pattern, bpm))) this.notices.wrong('This is too long for the Bench.');
  }

  menuOf(row: Attempt, event: Event, menu: Menu): void {
    this.menuFor.set(row);
    menu.toggle(event);
  }

  async correct(row: Attempt): Promise<void> {
    const verdict = row.verdict === 'clean' ? 'messy' : 'clean';
    const back = await this.edits.change(row.phrase, row.id, { verdict });
    this.did(back, `The try of ${this.when(row)} counts as ${verdict}.`, 'It counts as before.');
  }

  async remove(row: Attempt): Promise<void> {
    const back = await this.edits.remove(row.phrase, row.id);
    this.did(back, `The try of ${this.when(row)} is removed from the Log.`, 'It is in the Log again.');
  }

  async noted(row: Attempt, note: string): Promise<void> {
    this.noting.set(null);
    const back = await this.edits.change(row.phrase, row.id, { note });
    this.did(back, note ? 'The note is kept.' : 'The note is removed.', 'The note is as before.');
  }

  /** Takes back what was corrected last, and only that. */
  async undo(): Promise<void> {
    const last = this.undos.pop();
    if (last) this.notices.tell((await last.run()) ? last.said : 'It could not be undone.');
  }

  private did(back: TakeBack | null, words: string, said: string): void {
    if (!back) return this.notices.wrong('That try is no longer in the Log.');
    this.undos.push({ run: back, said });
    this.notices.tell(words, { label: 'Undo', run: () => void this.undo() });
  }

  /** What the files of an answer are called. */
  private fileOf(ending: string): string {
    const of = this.ofPhrase() ? (this.current()?.phrase.name ?? 'phrase') : 'all';
    return fileName(`${of} ${this.question()}`, ending);
  }

  saveCsv(): void {
    const answer = this.answers.answer();
    if (answer) saveCsv(answer.csv(), this.fileOf('csv'));
  }

  saveSvg(): void {
    const chart = this.chart();
    if (chart) void chart.save(this.fileOf('svg'));
  }

  /** What was meant: as it was that day; for takes from before that was kept, as the phrase stands now. */
  private meantBy(take: KeptTake, phrase: Phrase): Rendition {
    if (take.meant) return renditionOf(take.meant);
    return rendition({ phrase: patternOf(phrase), stage: take.stage, kit: this.kits.current() });
  }

  when({ at }: Attempt): string {
    return format(at, 'd MMM yyyy, HH:mm');
  }

  /** A take to look at and hear; again to close it. */
  open(take: KeptTake): void {
    this.openedId.update((id) => (id === take.id ? null : take.id));
  }

  close(): void {
    this.openedId.set(null);
  }

  /** The take with its measurements as a file. */
  save(take: KeptTake): void {
    const attempt = this.rows()?.find((a) => a.id === take.id);
    const name = this.current()?.phrase.name ?? 'take';
    saveText(
      JSON.stringify({ format: 'loop-shelf-take', version: 1, phrase: name, attempt, take }, null, 1),
      fileName(`${name} take`, 'json'),
      'application/json',
    );
  }
}
