import { ChangeDetectionStrategy, Component, computed, input, output, signal, type Signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { differenceInCalendarDays, formatDistanceToNowStrict } from 'date-fns';
import { loopTicks, type Pattern } from '@core/pattern';
import type { ShelfRow } from '../data/index/entry';
import { RibbonComponent } from '../ui/ribbon/ribbon.component';

/** From so many days on the time since the last drill is said in months. */
const MONTHS_FROM = 60;

/** A phrase as it lies on the shelf: its name, its ribbon at true relative length, and how far it has come. */
@Component({
  selector: 'ls-strip',
  imports: [RibbonComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      type="checkbox"
      class="choose"
      [checked]="chosen()"
      [attr.aria-label]="'Choose ' + row().name.slice(0, 80)"
      (click)="choose.emit($event.shiftKey)"
    />
    <a class="name" draggable="false" [routerLink]="['/bench', row().id]" [queryParams]="{ kept: 1 }">
      <span class="cut title">{{ row().name }}</span>
      <span class="quiet cut"
        >{{ row().facts ?? ' ' }}
        @for (t of row().tags; track t) {
          <span class="tag">#{{ t }}</span>
        }
      </span>
    </a>
    <a
      class="drawing"
      draggable="false"
      [class.goes-on]="goesOn()"
      [routerLink]="['/bench', row().id]"
      [queryParams]="{ kept: 1 }"
      tabindex="-1"
      aria-hidden="true"
    >
      @if (pattern(); as p) {
        <ls-ribbon
          [pattern]="p"
          size="strip"
          [stripTicks]="scale()"
          [position]="position()"
          [loop]="heard() ? loop() : 0"
          [silent]="!heard()"
        />
      }
    </a>
    <div class="come">
      <span class="track" aria-hidden="true"
        ><span class="clean" [class.there]="share() >= 1" [style.width.%]="100 * share()"></span
      ></span>
      <span class="line cut">{{ said() }}</span>
    </div>
    <div class="acts">
      <button
        type="button"
        class="btn small"
        (click)="hear.emit()"
        [attr.aria-label]="(heard() ? 'Stop ' : 'Hear ') + row().name.slice(0, 80)"
      >
        <i [class]="heard() ? 'pi pi-stop' : 'pi pi-play'" aria-hidden="true"></i>
      </button>
      <a
        class="btn small drill"
        [routerLink]="['/drill', row().id]"
        [attr.aria-label]="'Drill ' + row().name.slice(0, 80)"
        >Drill</a
      >
      <button
        type="button"
        class="btn small plain"
        aria-haspopup="menu"
        [attr.aria-label]="'More for ' + row().name.slice(0, 80)"
        (click)="more.emit($event)"
      >
        <i class="pi pi-ellipsis-h" aria-hidden="true"></i>
      </button>
    </div>
  `,
  styleUrl: './strip.component.css',
  host: { role: 'article', '[attr.aria-label]': 'row().name', '[class.chosen]': 'chosen()' },
})
export class StripComponent {
  readonly row = input.required<ShelfRow>();
  readonly pattern = input.required<Pattern | null>();
  readonly scale = input.required<number>();
  readonly position = input<Signal<number | null>>(signal(null));
  readonly heard = input(false);
  readonly chosen = input(false);
  readonly hear = output();
  /** Chosen or let go; true for all up to it. */
  readonly choose = output<boolean>();
  /** What else can be done with it is asked for; the shelf has the one menu for all strips. */
  readonly more = output<Event>();
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern ? loopTicks(pattern) : 0;
  });
  readonly goesOn = computed(() => (this.row().length ?? 0) > this.scale());
  /** Share of the goal that is clean, 0–1. */
  readonly share = computed(() => Math.min(1, (this.row().best.clean ?? 0) / this.row().goal));
  /** What matters of it, in one line. */
  readonly said = computed(() => {
    const { best, goal, top } = this.row();
    const clean = best.clean === null ? `goal ${goal}` : `${best.clean} clean of ${goal}`;
    const most = top?.bpm ? `ceiling ${top.rests.kind === 'default' ? '≈ ' : ''}${top.bpm}` : '';
    return [clean, most, sinceWords(best.lastAt)].filter(Boolean).join(' · ');
  });
}

function sinceWords(at: number | null): string {
  if (at === null) return 'not drilled yet';
  // An evening's practice was yesterday on the next morning, not eleven hours ago.
  const days = differenceInCalendarDays(Date.now(), at);
  if (days < MONTHS_FROM) return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
  return `${formatDistanceToNowStrict(at)} ago`;
}
