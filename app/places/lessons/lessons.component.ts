import { DOCUMENT } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { map } from 'rxjs';
import { count } from '@core/base';
import type { GivenLesson, TakenLesson } from '@core/lesson';
import { dateWords, dayWords } from '@core/plan';
import { UNFETCHED } from '../../environment/workers';
import { DayService } from '../../environment/day.service';
import { BringInComponent } from '../../exchange/bring-in.component';
import { DropFileDirective } from '../../exchange/drop-file.directive';
import { ExchangeService } from '../../exchange/exchange.service';
import { LessonInbox } from '../../exchange/lesson-inbox';
import { GuideLinkComponent } from '../../guide/guide-link.component';
import { CameReportComponent } from './came-report.component';
import { GiveComponent } from './give.component';
import { LessonsStore } from './lessons.store';
import { OpenLessonComponent } from './open-lesson.component';
import { TakenComponent } from './taken.component';

/** Lessons: those that are given, those that were taken, and what comes in of either. */
@Component({
  selector: 'ls-lessons',
  imports: [
    BringInComponent,
    CameReportComponent,
    DropFileDirective,
    GiveComponent,
    GuideLinkComponent,
    OpenLessonComponent,
    RouterLink,
    TakenComponent,
  ],
  providers: [LessonsStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './lessons.component.html',
  styleUrl: './lessons.component.css',
})
export class LessonsComponent {
  readonly store = inject(LessonsStore);
  readonly inbox = inject(LessonInbox);
  private readonly exchange = inject(ExchangeService);
  private readonly router = inject(Router);
  private readonly day = inject(DayService);
  private readonly route = inject(ActivatedRoute);
  private readonly page = inject(DOCUMENT);
  private readonly asked = toSignal(
    this.route.queryParamMap.pipe(map((q) => ({ give: q.get('give'), take: q.get('take') }))),
    { initialValue: { give: null, take: null } },
  );
  private readonly fragment = toSignal(this.route.fragment, { initialValue: null });
  readonly given = computed((): GivenLesson | null => this.store.givenOf(this.asked().give ?? ''));
  readonly taken = computed((): TakenLesson | null => this.store.takenOf(this.asked().take ?? ''));
  /** An address that names a lesson which is not there. */
  readonly missing = computed(() => {
    const { give, take } = this.asked();
    return this.store.isRead() && ((give !== null && !this.given()) || (take !== null && !this.taken()));
  });
  readonly bringing = signal<{ readonly file: File | null } | null>(null);
  readonly reading = signal(false);
  readonly wrong = signal<string | null>(null);
  /** The link that could not be read, as what reads it was not fetched. */
  readonly unfetched = signal<string | null>(null);
  readonly unfetchedWords = UNFETCHED;

  constructor() {
    effect(() => {
      const code = this.fragment() || this.page.location.hash.slice(1);
      if (code.startsWith('l=')) untracked(() => void this.readLink(code));
    });
  }

  async readLink(fragment: string): Promise<void> {
    this.reading.set(true);
    this.wrong.set(null);
    this.unfetched.set(null);
    const found = await this.exchange.text(`#${fragment}`);
    this.reading.set(false);
    if (found.kind === 'lesson') this.inbox.hand(found);
    else if (found.kind === 'unfetched') this.unfetched.set(fragment);
    else this.wrong.set(found.kind === 'refused' ? found.words : 'This link holds no lesson.');
  }

  /** What came in is put away, kept or not; with a lesson, that one is opened. */
  over(take: string | null, give: string | null = null): void {
    this.inbox.letGo();
    this.wrong.set(null);
    void this.router.navigate(['/lessons'], { queryParams: take ? { take } : give ? { give } : {} });
  }

  givenWords({ lesson, items, edition, due }: GivenLesson): string {
    const reports = this.store.reportsOf(lesson).length;
    return [
      count(items.length, 'phrase'),
      edition === 0 ? 'not sent yet' : `sent ${edition === 1 ? 'once' : `${edition} times`}`,
      ...(reports > 0 ? [count(reports, 'report')] : []),
      ...(due === null ? [] : [`for ${dateWords(due)}`]),
    ].join(' · ');
  }

  takenWords({ came: { from, items, due } }: TakenLesson): string {
    return [
      ...(from ? [`from ${from.slice(0, 60)}`] : []),
      count(items.length, 'phrase'),
      ...(due === null ? [] : [`wanted ${dayWords(due, this.day.today())}`]),
    ].join(' · ');
  }
}
