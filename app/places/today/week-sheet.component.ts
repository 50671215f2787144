import { ChangeDetectionStrategy, Component, computed, inject, output, resource } from '@angular/core';
import { format } from 'date-fns';
import type { Block } from '@core/plan';
import { isoDay } from '../../environment/clock';
import { ShelfIndex } from '../../knowledge/shelf-index.service';
import { TodayRepo } from '../../storage/today.repo';
import { SheetFrameComponent } from '../../widgets/sheet-frame.component';
import { KIND_WORDS } from './kinds';
import { weekOf } from './week';

/** The week as it is laid out now, for the wall or the case. */
@Component({
  selector: 'ls-week-sheet',
  imports: [SheetFrameComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-sheet-frame header="The week on paper" [ready]="days() !== null" (closed)="closed.emit()">
      <h1>Seven days from {{ from() }}</h1>
      <p>
        Planned from what is known today. What you play changes it. Warm up first, rest between, and stop when something
        hurts.
      </p>
      @for (d of days(); track d.day) {
        <section>
          <h2>
            {{ dateOf(d.day) }} <span class="quiet">{{ d.minutes }} minutes</span>
          </h2>
          @for (b of d.blocks; track $index) {
            <p class="block">
              <span class="box" aria-hidden="true"></span>
              <span class="mono">{{ b.minutes }} min</span>
              <span>
                <strong>{{ b.name }}</strong> {{ kindOf(b) }}<br /><span class="quiet">{{ b.words }}</span>
              </span>
            </p>
          } @empty {
            <p class="quiet">Nothing planned.</p>
          }
        </section>
      } @empty {
        <p role="status">Planning your week …</p>
      }
    </ls-sheet-frame>
  `,
  styles: `
    section {
      break-inside: avoid;
      margin-top: 18px;
    }
    h2 {
      font-size: 16px;
      margin: 0 0 6px;
      border-bottom: 1px solid var(--line-strong);
    }
    h2 .quiet {
      font-weight: 400;
    }
    .block {
      display: grid;
      grid-template-columns: 14px 56px minmax(0, 1fr);
      gap: 8px;
      margin: 0 0 6px;
      line-height: 1.35;
    }
    .box {
      width: 12px;
      height: 12px;
      margin-top: 3px;
      border: 1px solid var(--ink);
    }
  `,
})
export class WeekSheetComponent {
  readonly closed = output();
  private readonly index = inject(ShelfIndex);
  private readonly today = inject(TodayRepo);
  private readonly laid = resource({
    params: () => this.today.now(),
    loader: ({ params }) => weekOf(this.index, params),
  });
  readonly days = computed(() => (this.laid.hasValue() ? this.laid.value() : null));
  readonly from = computed(() => this.dateOf(this.today.now().day));

  dateOf(day: number): string {
    return format(new Date(`${isoDay(day)}T12:00`), 'EEEE d MMMM');
  }

  kindOf({ kind, from, to }: Block): string {
    const way = from === null || to === null ? '' : from === to ? `, at ${from}` : `, ${from} to ${to}`;
    return `${KIND_WORDS[kind]}${way}`;
  }
}
