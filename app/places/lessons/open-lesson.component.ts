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
import { OneAct } from '../../common/one-act';
import { isNewer, takenBefore, type Lesson } from '@core/lesson';
import { changeWords, lessonChanges } from '@core/teaching';
import { dateWords } from '@core/plan';
import { NoticesService } from '../../common/notices.service';
import { FULL } from '../../storage/phrases.words';
import { LessonsRepo } from '../../storage/lessons.repo';
import { LessonItemComponent } from './lesson-item.component';

/** A lesson that came in: seen and heard, its differences told, and kept only where that is asked for. */
@Component({
  selector: 'ls-open-lesson',
  imports: [LessonItemComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="facts">
      <h2 class="cut">{{ lesson().title }}</h2>
      <span class="quiet cut">{{ facts() }}</span>
      <span class="spacer"></span>
      <button type="button" class="btn" (click)="left.emit()">Not now</button>
      <button type="button" class="btn primary" [disabled]="!can()" (click)="take()">
        {{ isKnown() ? 'Take the changes' : 'Take the lesson' }}
      </button>
    </section>
    @if (told(); as t) {
      @switch (t.kind) {
        @case ('new') {
          <p class="quiet">
            Nothing is kept until you press Take the lesson. It becomes a board of yours, with its phrases and notes.
          </p>
        }
        @case ('older') {
          <p class="wrong" role="alert">
            You have a newer edition of this lesson ({{ t.have }}); this is edition {{ lesson().edition }}. Nothing to
            take.
          </p>
        }
        @case ('same') {
          <p role="status">You have this edition already. Nothing is different.</p>
        }
        @case ('changes') {
          <section class="changes" aria-label="What is different">
            <h3>What is different</h3>
            <p class="quiet">Your tempos, your tries and your own changes stay.</p>
            <ul>
              @for (c of t.lines; track $index) {
                <li>
                  {{ c.words }}
                  @if (c.own; as item) {
                    <label class="check"
                      ><input type="checkbox" [checked]="theirs().has(item)" (change)="toggle(item)" /> take the
                      teacher’s; yours stays under Earlier versions</label
                    >
                  }
                </li>
              }
            </ul>
          </section>
        }
      }
    } @else {
      <p class="quiet" role="status">Comparing …</p>
    }
    @if (wrong(); as words) {
      <p class="wrong" role="alert">{{ words }}</p>
    }
    @if (lesson().note) {
      <p class="note">{{ lesson().note }}</p>
    }
    <ol>
      @for (item of lesson().items; track item.id) {
        <li><ls-lesson-item [item]="item" [number]="$index + 1" /></li>
      }
    </ol>
  `,
  styleUrl: './lesson.css',
})
export class OpenLessonComponent {
  readonly lesson = input.required<Lesson>();
  /** It was taken: the id of the lesson. */
  readonly taken = output<string>();
  readonly left = output();
  private readonly repo = inject(LessonsRepo);
  private readonly notices = inject(NoticesService);
  private readonly acts = new OneAct();
  readonly wrong = signal<string | null>(null);
  readonly theirs = linkedSignal<Lesson, ReadonlySet<string>>({ source: this.lesson, computation: () => new Set() });
  private readonly had = resource({
    // Asked anew when rows of lessons change, here or in another tab.
    params: () => ({ id: this.lesson().id, rows: this.repo.all() }),
    loader: async ({ params }) => {
      const row = await this.repo.takenOf(params.id);
      const shelf = await this.repo.shelfOf(row);
      return { row: takenBefore(row, shelf), dropped: row?.dropped === true, shelf };
    },
  });
  readonly facts = computed(() => {
    const { from, due, edition } = this.lesson();
    return [
      ...(from ? [`from ${from}`] : []),
      ...(due === null ? [] : [`for ${dateWords(due)}`]),
      ...(edition > 1 ? [`edition ${edition}`] : []),
    ].join(' · ');
  });
  readonly isKnown = computed(() => this.told()?.kind === 'changes');
  readonly told = computed(() => {
    if (!this.had.hasValue()) return null;
    const { row, dropped, shelf } = this.had.value();
    const lesson = this.lesson();
    if (!row || dropped) return { kind: 'new' as const };
    if (isNewer(row.came, lesson)) return { kind: 'older' as const, have: row.came.edition };
    const changes = lessonChanges(row, lesson, shelf);
    // What the pupil took off stays off, in every edition: alone it is no difference.
    if (!isNewer(lesson, row.came) || changes.every((c) => c.kind === 'off')) return { kind: 'same' as const };
    const lines = changes.map((c) => ({ words: changeWords(c), own: c.kind === 'own' ? c.item : null }));
    return { kind: 'changes' as const, lines };
  });
  readonly can = computed(() => this.told()?.kind === 'new' || this.told()?.kind === 'changes');

  toggle(item: string): void {
    const next = new Set(this.theirs());
    if (!next.delete(item)) next.add(item);
    this.theirs.set(next);
  }

  /** By two presses it is taken once. */
  async take(): Promise<void> {
    const lesson = this.lesson();
    const key = `${lesson.id} ${lesson.edition} ${lesson.made}`;
    const id = await this.acts.run(
      key,
      async (had) => {
        const row = await this.repo.takenOf(had);
        return row !== null && !row.dropped && row.came.made === lesson.made;
      },
      () => this.put(lesson),
    );
    if (id !== null) this.taken.emit(id);
  }

  private async put(lesson: Lesson): Promise<string | null> {
    this.wrong.set(null);
    const took = await this.repo.take(lesson, this.theirs());
    switch (took.kind) {
      case 'full':
        this.wrong.set(FULL);
        return null;
      case 'older':
        this.wrong.set('Meanwhile a newer edition was taken in another tab. Nothing was changed.');
        return null;
      case 'failed':
        return null;
      case 'taken':
        this.notices.tell(`“${lesson.title.slice(0, 60)}” is taken. Its phrases are on a board of your shelf.`, {
          label: 'Undo',
          run: () => void this.takeBack(took.undo),
        });
        return lesson.id;
    }
  }

  private async takeBack(undo: () => Promise<{ readonly stays: number } | null>): Promise<void> {
    const done = await undo();
    if (!done) return;
    const own = done.stays > 0 ? ` What you changed or played since stays: ${done.stays}.` : '';
    this.notices.tell(`The lesson is as it was before.${own}`);
  }
}
