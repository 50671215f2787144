import { ChangeDetectionStrategy, Component, computed, inject, input, output, resource, signal } from '@angular/core';
import { count } from '@core/base';
import type { Report } from '@core/lesson';
import { isBehind } from '@core/teaching';
import { dateWords } from '@core/plan';
import { practiceDay } from '../../environment/clock';
import { NoticesService } from '../../common/notices.service';
import { LessonsRepo } from '../../storage/lessons.repo';

/** A report that came in: whose it is and of which lesson, before it is put beside the others. */
@Component({
  selector: 'ls-came-report',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="facts">
      <h2 class="cut">A report{{ report().from ? ' from ' + report().from : '' }}</h2>
      <span class="spacer"></span>
      <button type="button" class="btn" (click)="left.emit()">Not now</button>
      <button type="button" class="btn primary" [disabled]="given() === null" (click)="keep()">
        Put it with the others
      </button>
    </section>
    @if (!asked.hasValue()) {
      <p role="status" class="quiet">Looking for its lesson …</p>
    } @else if (given(); as lesson) {
      <p>{{ words() }}</p>
      <p class="quiet">It is only read. Nothing of it is counted in your own log.</p>
      @if (isBehind()) {
        <p>It is of edition {{ report().edition }}; you have sent edition {{ lesson.edition }} since.</p>
      }
    } @else {
      <p class="wrong" role="alert">
        This report is of a lesson that you did not give, or have deleted. Nothing was kept.
      </p>
    }
    @if (wrong(); as words) {
      <p class="wrong" role="alert">{{ words }}</p>
    }
  `,
  styleUrl: './lesson.css',
})
export class CameReportComponent {
  readonly report = input.required<Report>();
  /** It was put beside the others: the id of its lesson. */
  readonly kept = output<string>();
  readonly left = output();
  private readonly repo = inject(LessonsRepo);
  private readonly notices = inject(NoticesService);
  readonly wrong = signal<string | null>(null);
  readonly asked = resource({
    params: () => ({ lesson: this.report().lesson, rows: this.repo.all() }),
    loader: async ({ params }) => ({ given: await this.repo.givenOf(params.lesson) }),
  });
  readonly given = computed(() => (this.asked.hasValue() ? this.asked.value().given : null));
  readonly isBehind = computed(() => {
    const given = this.given();
    return given !== null && isBehind(this.report(), given);
  });
  readonly words = computed(() => {
    const { items, questions, made } = this.report();
    const tries = items.reduce((n, i) => n + i.many, 0);
    const asks = questions.length > 0 ? `, ${count(questions.length, 'question')}` : '';
    const title = this.given()?.title.slice(0, 80) ?? '';
    return `Of “${title}”, made on ${dateWords(practiceDay(made), true)}: ${count(tries, 'try', 'tries')}${asks}.`;
  });

  async keep(): Promise<void> {
    this.wrong.set(null);
    const undo = await this.repo.keepReport(this.report());
    if (undo === 'older') return this.wrong.set('You have a later report of this pupil. Nothing was kept.');
    if (undo === null) return this.wrong.set('There are too many lessons and reports. Delete one first.');
    this.notices.tell('The report lies beside the others.', { label: 'Undo', run: () => void undo() });
    this.kept.emit(this.report().lesson);
  }
}
