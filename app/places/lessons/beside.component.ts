import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { count } from '@core/base';
import { LESSON_LIMITS, type GivenLesson, type KeptReport } from '@core/lesson';
import {
  besideEachOther,
  breaksWords,
  reportsByName,
  isBehind,
  standingWords,
  type Beside,
  type Standing,
} from '@core/teaching';
import { dateWords } from '@core/plan';
import { practiceDay } from '../../environment/clock';
import { inTurns } from '../../common/in-turns';
import { PhrasesRepo } from '../../storage/phrases.repo';
import { LessonsStore } from './lessons.store';

/** So many pupils are worked out and drawn in one task. */
const A_TURN = 6;

/** What was worked out of some pupils after the other, as one. */
function joined({ items }: GivenLesson, parts: readonly Beside[]): Beside {
  return {
    pupils: parts.flatMap((p) => p.pupils),
    lines: items.map(({ id }, i) => ({ item: id, standings: parts.flatMap((p) => p.lines[i]?.standings ?? []) })),
    questions: parts.flatMap((p) => p.questions),
  };
}

/** Reports of several pupils beside each other: who is where, what breaks, which limb, how long. Only to be read. */
@Component({
  selector: 'ls-beside',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="beside">
      <h2 id="beside">What came back</h2>
      <p class="quiet">{{ lead() }} None of it is counted in your own log.</p>
      <div class="frame" tabindex="0" role="region" aria-label="Reports beside each other">
        <table>
          <thead>
            <tr>
              <th scope="col">Phrase</th>
              @for (p of beside().pupils; track p.id) {
                <th scope="col">
                  <span class="who cut">{{ p.name || 'no name' }}</span>
                  <span class="quiet">{{ headOf(p) }}</span>
                  <button
                    type="button"
                    class="btn small plain"
                    [attr.aria-label]="'Delete the report of ' + (p.name || 'no name')"
                    (click)="drop(p.id)"
                  >
                    Delete
                  </button>
                </th>
              }
            </tr>
          </thead>
          <tbody>
            @for (line of beside().lines; track line.item) {
              <tr>
                <th scope="row">
                  <span class="cut">{{ nameOf(line.item) }}</span>
                </th>
                @for (s of line.standings; track $index) {
                  <td>
                    <strong>{{ where(s) }}</strong>
                    @if (s.stands !== null) {
                      <span class="climb" role="img" [attr.aria-label]="'Best ' + (s.best ?? 0) + ' of ' + s.goal"
                        ><span [style.width.%]="share(s)" [class.there]="share(s) >= 100"></span
                      ></span>
                      @for (stage of s.stages; track stage.title) {
                        <span class="stage" [class.at]="stage.title === s.at?.title"
                          >{{ stage.title }} <span class="mono">{{ stage.clean ?? '–' }}</span></span
                        >
                      }
                      @if (breaks(s); as words) {
                        <span>{{ words }}</span>
                      }
                      @if (s.tries > 0) {
                        <span class="quiet">{{ load(s) }}</span>
                      }
                      @if (s.stands === 'changed') {
                        <span class="quiet">made another of it</span>
                      }
                    }
                  </td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
      @if (beside().questions.length > 0) {
        <h3>Questions</h3>
        <ul>
          @for (q of beside().questions; track q.id) {
            <li>
              <p>
                <strong>{{ q.from || 'no name' }}</strong>{{ q.item ? ', on ' + nameOf(q.item) : '' }}: {{ q.words }}
              </p>
              <label class="field"
                >Your answer, in the next lesson
                <textarea
                  #own
                  class="input"
                  rows="1"
                  [attr.aria-label]="'Answer to: ' + q.words.slice(0, 80)"
                  [value]="q.answer"
                  maxlength="2000"
                  (change)="answer(q.id, own.value)"
                ></textarea>
              </label>
            </li>
          }
        </ul>
      }
    </section>
  `,
  styleUrls: ['./lesson.css', './beside.component.css'],
})
export class BesideComponent {
  readonly given = input.required<GivenLesson>();
  readonly reports = input.required<readonly KeptReport[]>();
  private readonly store = inject(LessonsStore);
  private readonly phrases = inject(PhrasesRepo);
  private readonly turn = inTurns(Math.ceil(LESSON_LIMITS.kept / A_TURN));
  private readonly ordered = computed(() => reportsByName(this.given(), this.reports()));
  private readonly turns = computed(() => Math.ceil(this.ordered().length / A_TURN));
  /** Some pupils at a time: what was worked out for those before stays. */
  private readonly parts = Array.from({ length: Math.ceil(LESSON_LIMITS.kept / A_TURN) }, (_, n) => {
    const isReached = computed(() => n < this.turns() && this.turn() >= n);
    return computed(() =>
      isReached()
        ? besideEachOther(this.given(), this.ordered().slice(n * A_TURN, (n + 1) * A_TURN), practiceDay)
        : null,
    );
  });
  readonly beside = computed(() =>
    joined(
      this.given(),
      this.parts.flatMap((part) => part() ?? []),
    ),
  );
  private readonly names = resource({
    params: () =>
      this.given()
        .items.map((i) => i.phrase)
        .join(' '),
    loader: async ({ params }) => new Map((await this.phrases.some(params.split(' '))).map((p) => [p.id, p.name])),
  });
  readonly lead = computed(() => `${count(this.ordered().length, 'pupil')}.`);

  nameOf(item: string): string {
    const phrase = this.given().items.find((i) => i.id === item)?.phrase ?? '';
    if (!this.names.hasValue()) return '…';
    return this.names.value().get(phrase) ?? 'a phrase that is off the shelf';
  }

  headOf({ report, minutes }: ReturnType<typeof besideEachOther>['pupils'][number]): string {
    const behind = isBehind(report, this.given()) ? ` · edition ${report.edition}` : '';
    return `${dateWords(practiceDay(report.made))} · ${Math.round(minutes)} min${behind}`;
  }

  where(standing: Standing): string {
    return standingWords(standing);
  }

  breaks(standing: Standing): string {
    return breaksWords(standing);
  }

  load({ tries, minutes }: Standing): string {
    return `${count(tries, 'try', 'tries')}, ${Math.round(minutes)} min`;
  }

  share({ best, goal }: Standing): number {
    return Math.min(100, (100 * (best ?? 0)) / goal);
  }

  answer(question: string, words: string): void {
    void this.store.answer(this.given().lesson, question, words.trim());
  }

  drop(pupil: string): void {
    const row = this.reports().find((r) => r.report.pupil === pupil);
    if (row) void this.store.drop(row.id, 'The report is deleted.');
  }
}
