import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
  type Signal,
} from '@angular/core';
import { USUAL_SCHOOLS, type Counting, type Schools } from '@core/time';
import { countingOf, type Pattern } from '@core/pattern';
import type { OwnSyllables } from '@core/stroke';
import { followWidth } from '../../common/follow-size';
import { PlayheadComponent } from './playhead.component';
import { ribbonLayout } from './layout';
import { MarksComponent } from './marks.component';
import type { RibbonLine, RibbonRow, RibbonSize } from './model';
import { NO_MARKS, type RibbonMarks } from './marks';
import { RowComponent } from './row.component';
import { looksAlike } from './same';
import { SmallRowComponent } from './small-row.component';

/** Room round a row that is drawn by itself, for what leans over its edge, in px. */
const OVER = 12;

/**
 * The ribbon: how a phrase is drawn everywhere. Right hand above the line, left below, feet on the floor; height is the
 * height of the stick.
 */
@Component({
  selector: 'ls-ribbon',
  imports: [NgTemplateOutlet, PlayheadComponent, MarksComponent, RowComponent, SmallRowComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './ribbon.component.html',
  styleUrl: './ribbon.component.css',
  host: { '[class]': '"size-" + size()' },
})
export class RibbonComponent {
  readonly pattern = input.required<Pattern>();
  readonly size = input<RibbonSize>('bench');
  readonly schools = input<Schools>(USUAL_SCHOOLS);
  readonly stripTicks = input<number>();
  /** Counts against a beat twice or half as long. */
  readonly pace = input<Counting['pace'] | null>(null);
  /** A line to sing under the counts, with the user's own syllables; null for none. */
  readonly sung = input<OwnSyllables | null>(null);
  /** Fixed width in px; else the ribbon follows the room it has. */
  readonly width = input<number>();
  /** The tick that sounds, from the pattern's bar line; null when silent. */
  readonly position = input<Signal<number | null>>(signal(null));
  readonly loop = input(0);
  /** Whether the playhead stays away although something sounds: another ribbon is the one heard. */
  readonly silent = input(false);
  /** Ticks of strokes to point at. */
  readonly pointed = input<readonly number[]>([]);
  readonly groovesOnly = input(false);
  readonly hide = input<readonly RibbonLine[]>([]);
  readonly types = input(false);
  /** Tick of the bar line that sounds at the program's zero, when only a part is played. */
  readonly origin = input(0);
  /**
   * Whether each row is a drawing of its own, so that an edit paints only the row it is in. Else all is one drawing,
   * which can be saved.
   */
  readonly apart = input(false);
  /** Only these bars, each in a row, the later ones faded: what sounds and what comes next. */
  readonly bars = input<readonly number[] | null>(null);
  /** Cursor, selection and other marks over the drawing. */
  readonly marks = input<RibbonMarks>(NO_MARKS);

  private readonly playhead = viewChild(PlayheadComponent);
  /** The row that sounds, in px from the top of the drawing; null where none does. */
  readonly sounding = computed(() => this.playhead()?.row() ?? null);

  private readonly room = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  readonly layout = computed(() => {
    const [stripTicks, pace, sung, bars] = [this.stripTicks(), this.pace(), this.sung(), this.bars()];
    return ribbonLayout(this.pattern(), {
      size: this.size(),
      width: this.width() ?? this.room(),
      schools: this.schools(),
      ...(stripTicks === undefined ? {} : { stripTicks }),
      ...(pace ? { pace } : {}),
      ...(sung ? { sung } : {}),
      ...(bars ? { bars } : {}),
      hide: this.hide(),
      types: this.types(),
    });
  });
  /** The rows as they are drawn: one that looks as before stays the same object, and is not drawn again. */
  readonly rows = linkedSignal<readonly RibbonRow[], readonly RibbonRow[]>({
    source: () => this.drawn(),
    computation: (rows, before) =>
      rows.map((row, i) => {
        const old = before?.value[i];
        return old && looksAlike(row, old) ? old : row;
      }),
  });
  /** The rows, and last what leads in to them. */
  private drawn(): readonly RibbonRow[] {
    const { rows, lead } = this.layout();
    return lead ? [...rows, lead] : rows;
  }
  readonly counting = computed(() => countingOf(this.pattern(), this.schools()), { equal: looksAlike });
  readonly pointedAt = computed(() => new Set(this.pointed()));
  readonly OVER = OVER;

  isBig(): boolean {
    return this.size() === 'bench' || this.size() === 'room';
  }
}
