import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injectable,
  input,
  output,
  signal,
  viewChild,
  type ElementRef,
  type Signal,
} from '@angular/core';
import { differenceInCalendarDays, formatDistanceToNowStrict } from 'date-fns';
import { loopTicks, type Pattern } from '@core/pattern';
import { dayName } from '@core/plan';
import { chanceWords } from '@core/player';
import { Tooltip } from 'primeng/tooltip';
import { today } from '../../environment/clock';
import type { ShelfRow } from '../../knowledge/index/entry';
import { readyBpm, restsOfReady } from '../../knowledge/believed-words';
import { followSharedWidth } from '../../common/follow-size';
import { addressPart, GoDirective } from './go.directive';
import { RibbonComponent } from '../../drawings/ribbon/ribbon.component';

/** From so many days on the time since the last drill is said in months. */
const MONTHS_FROM = 60;

/** How wide the drawings of the strips are, in px; null until one was measured. */
@Injectable({ providedIn: 'root' })
export class StripRoom {
  readonly width = signal<number | null>(null);
}

/** A phrase as it lies on the shelf: its name, its ribbon at true relative length, and how far it has come. */
@Component({
  selector: 'ls-strip',
  imports: [GoDirective, RibbonComponent, Tooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      type="checkbox"
      class="choose"
      [checked]="chosen()"
      [attr.aria-label]="'Choose ' + row().name.slice(0, 80)"
      (click)="choose.emit($event.shiftKey)"
    />
    <a class="name" draggable="false" [lsGo]="bench()">
      <span class="cut title">{{ row().name }}</span>
      <span class="quiet cut">
        @if (unkept(); as when) {
          <span class="unkept">unkept changes of {{ when }}</span>
        }
        {{ row().facts ?? ' ' }}
        @for (t of row().tags; track t) {
          <span class="tag">#{{ t }}</span>
        }
      </span>
    </a>
    <a
      #drawing
      class="drawing"
      draggable="false"
      [class.goes-on]="goesOn()"
      [lsGo]="bench()"
      tabindex="-1"
      aria-hidden="true"
    >
      @if (pattern(); as p) {
        <ls-ribbon
          [pattern]="p"
          size="strip"
          [width]="room()"
          [stripTicks]="scale()"
          [position]="position()"
          [loop]="heard() ? loop() : 0"
          [silent]="!heard()"
        />
      }
    </a>
    <div class="come">
      <span class="track" aria-hidden="true"
        ><span class="clean" [class.there]="share() >= 1" [style.width.%]="100 * share()"></span>
        @if (band(); as b) {
          <span class="band" [style.left.%]="b.low" [style.width.%]="b.high - b.low"></span>
          <span class="ready" [style.left.%]="b.ready"></span>
        }
      </span>
      <span class="line cut" [pTooltip]="rests()" tooltipPosition="top"
        ><span class="wants">{{ wants() }}</span></span
      >
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
      <a class="btn small drill" [lsGo]="drill()" [attr.aria-label]="'Drill ' + row().name.slice(0, 80)">Drill</a>
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
  /** When changes of it were left on the Bench without being kept; null where there are none. */
  readonly unkept = input<string | null>(null);
  readonly hear = output();
  /** Chosen or let go; true for all up to it. */
  readonly choose = output<boolean>();
  /** What else can be done with it is asked for; the shelf has the one menu for all strips. */
  readonly more = output<Event>();
  readonly bench = computed(() => `/bench/${addressPart(this.row().id)}?kept=1`);
  readonly drill = computed(() => `/drill/${addressPart(this.row().id)}`);
  private readonly drawing = viewChild.required<ElementRef<HTMLElement>>('drawing');
  /**
   * The room for the drawing, in px, the same in all strips. It is known before there is something to draw: a ribbon
   * that measured its own would have the whole list laid out anew for each.
   */
  readonly room = followSharedWidth(this.drawing, inject(StripRoom).width);
  readonly loop = computed(() => {
    const pattern = this.pattern();
    return pattern ? loopTicks(pattern) : 0;
  });
  readonly goesOn = computed(() => (this.row().length ?? 0) > this.scale());
  /** Share of the goal that is clean, 0–1. */
  readonly share = computed(() => Math.min(1, (this.row().best.clean ?? 0) / this.row().goal));
  /** Where the ready tempo lies on the way to the goal, in hundredths; null before any try. */
  readonly band = computed(() => {
    const { believed, goal } = this.row();
    if (believed?.ready.kind !== 'ready') return null;
    const { low, high, bpm } = believed.ready;
    const at = (bpm: number): number => Math.min(100, (100 * bpm) / goal);
    return { low: at(low), high: at(high), ready: at(bpm) };
  });
  /** What is ready, and what is wanted: "goal 104 by Friday: 61% chance". */
  readonly wants = computed(() => {
    const { believed, goal, by } = this.row();
    const when = by && by.day >= today() ? ` by ${dayName(by.day, today())}` : '';
    return believed ? `goal ${goal}${when}: ${chanceWords(believed.atGoal)} chance` : `goal ${goal}${when}`;
  });
  /** What that rests on, and how far the limbs go. */
  readonly rests = computed(() => {
    const { believed, top } = this.row();
    const ceiling = top?.bpm ? `Ceiling ${top.rests.kind === 'default' ? 'about ' : ''}${top.bpm} bpm.` : '';
    return [believed ? `${restsOfReady(believed)}.` : '', ceiling].filter(Boolean).join(' ');
  });
  /** What else matters of it, in one quiet line. */
  readonly said = computed(() => {
    const { believed, best } = this.row();
    const bpm = readyBpm(believed);
    const ready = bpm === null ? (believed ? 'ready: too early to say' : '') : `ready ${bpm}`;
    const clean = best.clean === null ? '' : `best ${best.clean}`;
    return [[ready, clean].filter(Boolean).join(', '), sinceWords(best.lastAt)].filter(Boolean).join(' · ');
  });
}

function sinceWords(at: number | null): string {
  if (at === null) return 'not drilled yet';
  // An evening's practice was yesterday on the next morning, not eleven hours ago.
  const days = differenceInCalendarDays(Date.now(), at);
  if (days < MONTHS_FROM) return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
  return `${formatDistanceToNowStrict(at)} ago`;
}
