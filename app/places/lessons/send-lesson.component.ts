import { DOCUMENT } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  OnDestroy,
  output,
  resource,
  signal,
} from '@angular/core';
import { Dialog } from 'primeng/dialog';
import type { SharedPhrase } from '@core/formats/shared';
import { stageTitle } from '@core/drill';
import { sentence } from '@core/base';
import type { GivenLesson, Lesson } from '@core/lesson';
import { lessonText } from '@core/teaching';
import { dateWords } from '@core/plan';
import { NoticesService } from '../../common/notices.service';
import { UNFETCHED } from '../../environment/workers';
import { ExchangeService } from '../../exchange/exchange.service';
import { pictureCode } from '../../exchange/picture-code';
import { PictureCodeComponent } from '../../exchange/picture-code.component';
import { PagesComponent } from '../../exchange/pages/pages.component';
import { LessonsRepo } from '../../storage/lessons.repo';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';
import { fileName, saveText } from '../../widgets/save-svg';

/** An edition of a lesson leaves: as a file, as a link with its picture, on paper. */
@Component({
  selector: 'ls-send-lesson',
  imports: [Dialog, DialogFocusDirective, PagesComponent, PictureCodeComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="'Send “' + given().title.slice(0, 60) + '”'"
      [visible]="!printing()"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '34rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      @if (lesson(); as l) {
        <p>
          Edition {{ l.edition }}: {{ l.items.length }} {{ l.items.length === 1 ? 'phrase' : 'phrases' }} with your
          notes, and nothing else of your shelf. Whoever has an earlier edition is told what is different.
        </p>
        <div class="row">
          <button type="button" class="btn primary" (click)="save()">Save the file</button>
          <button type="button" class="btn" (click)="printing.set(true)">On paper …</button>
        </div>
        @if (hasNoLink()) {
          <p role="alert">{{ unfetched }}</p>
          <button type="button" class="btn" (click)="again()">Try again</button>
        } @else if (tooLong()) {
          <p class="quiet">It is too long for a link. Send the file.</p>
        } @else {
          @if (picture(); as p) {
            <ls-picture-code [code]="p" />
          } @else if (link()) {
            <p class="quiet">Too long for a code to scan. The link works.</p>
          }
          <div class="row">
            <input
              class="input mono"
              readonly
              aria-label="The link"
              [value]="link() ?? '…'"
              (focus)="$any($event.target).select()"
            />
            <button type="button" class="btn" [disabled]="!link()" (click)="copy()">Copy the link</button>
          </div>
        }
        @if (problem(); as words) {
          <p class="wrong" role="alert">{{ words }}</p>
        }
      } @else if (failed()) {
        <p class="wrong" role="alert">The lesson could not be made. Nothing was changed. Close this and try again.</p>
      } @else {
        <p role="status">Making the lesson …</p>
      }
    </p-dialog>
    @if (printing() && lesson(); as l) {
      <ls-pages [given]="pages()" [heading]="l.title" [lead]="lead()" (closed)="printing.set(false)" />
    }
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin: 12px 0;
    }
    .row .input {
      flex: 1;
      min-width: 0;
    }
  `,
})
export class SendLessonComponent implements OnDestroy {
  readonly given = input.required<GivenLesson>();
  readonly closed = output();
  private readonly repo = inject(LessonsRepo);
  private readonly exchange = inject(ExchangeService);
  private readonly notices = inject(NoticesService);
  private readonly page = inject(DOCUMENT);
  readonly unfetched = UNFETCHED;
  readonly printing = signal(false);
  readonly problem = signal<string | null>(null);
  /** Made once, as the dialog opens: what leaves by file, link and paper is the same edition. */
  private readonly made = resource({ loader: async () => ({ lesson: await this.repo.send(this.given().lesson) }) });
  readonly lesson = computed((): Lesson | null => (this.made.hasValue() ? this.made.value().lesson : null));
  readonly failed = computed(() => this.made.status() === 'error' || (this.made.hasValue() && this.lesson() === null));
  private readonly code = resource({
    params: () => this.lesson() ?? undefined,
    loader: ({ params }) => this.exchange.lessonCode(params),
  });
  readonly hasNoLink = computed(() => this.code.status() === 'error');
  readonly tooLong = computed(() => this.code.hasValue() && this.code.value().length > MOST_LINK);
  readonly link = computed(() => {
    if (!this.code.hasValue() || this.tooLong()) return null;
    return new URL(`lessons#l=${this.code.value()}`, this.page.baseURI).href;
  });
  readonly picture = computed(() => {
    const link = this.link();
    return link === null ? null : pictureCode(link);
  });
  readonly lead = computed(() => {
    const l = this.lesson();
    if (!l) return '';
    const head = [l.from && `From ${l.from}`, l.due === null ? '' : `for ${dateWords(l.due, true)}`];
    const words = sentence(head.filter((w) => w !== '').join(', '));
    return [words, l.note].filter((w) => w !== '').join('. ');
  });
  /** The phrases of the edition as pages, each with its notes. */
  readonly pages = computed((): readonly SharedPhrase[] =>
    (this.lesson()?.items ?? []).map(({ phrase, note, plan, stageNotes }) => {
      const titles = new Map((plan?.stages ?? []).map((s) => [s.id, stageTitle(s)]));
      const stages = stageNotes.flatMap((n) =>
        titles.has(n.stage) ? [`${titles.get(n.stage) ?? ''}: ${n.words}`] : [],
      );
      return { ...phrase, note: [note, ...stages].filter((w) => w !== '').join('\n') };
    }),
  );

  ngOnDestroy(): void {
    this.exchange.close();
  }

  again(): void {
    this.code.reload();
  }

  save(): void {
    const lesson = this.lesson();
    if (lesson)
      saveText(lessonText(lesson), fileName(`${lesson.title} lesson ${lesson.edition}`, 'json'), 'application/json');
  }

  async copy(): Promise<void> {
    const link = this.link();
    if (link === null) return;
    try {
      await navigator.clipboard.writeText(link);
      this.notices.tell('The link is copied. It holds this lesson only.');
    } catch {
      this.problem.set('The link was not copied: the browser refused. Select the text in the field and copy it.');
    }
  }
}

/** The longest link that is offered, in letters: messages and browsers cut longer ones. */
const MOST_LINK = 16_000;
