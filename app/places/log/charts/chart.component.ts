import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { followWidth } from '../../../common/follow-size';
import { saveSvg } from '../../../widgets/save-svg';
import { MARGIN, type ChartModel, type Mark, type Tone } from './model';
import { TermedComponent } from '../../../guide/termed.component';

/** Up to so many each mark is an element of its own; beyond, they are drawn as one path for each colour. */
const MOST_APART = 300;

/** Draws a chart, and reads its values: pointed at, or with the arrow keys. */
@Component({
  selector: 'ls-chart',
  imports: [TermedComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let m = model();
    <svg
      #svg
      [attr.width]="m.width"
      [attr.height]="m.height"
      role="img"
      tabindex="0"
      [attr.aria-label]="label() + ' ' + m.marks.length + ' values: the arrow keys read them.'"
      (keydown)="key($event)"
      (pointermove)="point($event)"
      (pointerleave)="at.set(null)"
      (blur)="at.set(null)"
    >
      @for (t of m.yTicks; track $index) {
        <line class="rule" [attr.x1]="margin.left" [attr.x2]="m.width - margin.right" [attr.y1]="t.y" [attr.y2]="t.y" />
        <text class="y" [attr.x]="margin.left - 8" [attr.y]="t.y + 4">{{ t.text }}</text>
      }
      @for (t of m.xTicks; track $index) {
        <text [attr.x]="t.x" [attr.y]="m.height - 22">{{ t.text }}</text>
      }
      <text class="name" [attr.x]="margin.left" [attr.y]="m.height - 4">{{ m.xName }}</text>
      <text class="name" [attr.x]="4" [attr.y]="11">{{ m.yName }}</text>
      @for (a of m.areas; track $index) {
        <path [class]="'area ' + a.tone" [attr.d]="a.path" />
      }
      @for (r of m.rules; track $index) {
        <line [class]="'ruled ' + r.tone" [attr.x1]="r.x1" [attr.x2]="r.x2" [attr.y1]="r.y1" [attr.y2]="r.y2" />
        <text [class]="'named ' + r.tone" [attr.x]="r.x2 + (r.x1 === r.x2 ? 5 : 8)" [attr.y]="r.y2 + 4">
          {{ r.text }}
        </text>
      }
      @for (l of m.lines; track $index) {
        <path [class]="'line ' + l.tone" [class.dashed]="l.dashed" [attr.d]="l.path" />
      }
      @if (apart()) {
        @for (mark of m.marks; track $index) {
          @if (mark.as === 'bar') {
            <rect
              [class]="'bar ' + mark.tone"
              [attr.x]="mark.x - (mark.width ?? 0) / 2"
              [attr.y]="mark.y"
              [attr.width]="mark.width"
              [attr.height]="mark.height"
            />
          } @else {
            <circle [class]="mark.as + ' ' + mark.tone" [attr.cx]="mark.x" [attr.cy]="mark.y" r="4" />
          }
        }
      } @else {
        @for (p of paths(); track p.as + p.tone) {
          <path [class]="p.as + ' ' + p.tone" [attr.d]="p.path" />
        }
      }
      @if (read(); as r) {
        <line
          class="reads"
          [attr.x1]="r.x"
          [attr.x2]="r.x"
          [attr.y1]="margin.top"
          [attr.y2]="m.height - margin.bottom"
        />
        <circle class="reads" [attr.cx]="r.x" [attr.cy]="r.y" r="7" />
      }
    </svg>
    <p class="below">
      <span class="reading" aria-live="polite">{{ read()?.words ?? '' }}</span>
      @if (!read()) {
        @for (k of m.keys; track k.text) {
          <span class="key"
            ><span [class]="'swatch ' + k.as + ' ' + k.tone" aria-hidden="true"></span
            ><ls-termed [text]="k.text" [terms]="['band']"
          /></span>
        }
      }
    </p>
  `,
  styleUrl: './chart.component.css',
})
export class ChartComponent {
  /** Worked out for a width in px. */
  readonly drawn = input.required<(width: number) => ChartModel>();
  /** The chart's title: its answer. */
  readonly label = input.required<string>();
  readonly margin = MARGIN;
  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');
  private readonly room = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  readonly model = computed(() => this.drawn()(Math.max(280, this.room())));
  readonly apart = computed(() => this.model().marks.length <= MOST_APART);
  /** Which value is read; null for none. */
  readonly at = signal<number | null>(null);
  readonly read = computed((): Mark | null => {
    const at = this.at();
    return at === null ? null : (this.model().marks[at] ?? null);
  });
  readonly paths = computed(() => {
    const by = new Map<string, { readonly as: Mark['as']; readonly tone: Tone; path: string }>();
    for (const mark of this.model().marks) {
      const key = mark.as + mark.tone;
      const own = by.get(key) ?? { as: mark.as, tone: mark.tone, path: '' };
      own.path += markPath(mark);
      by.set(key, own);
    }
    return [...by.values()];
  });

  /** The drawing as a file. */
  save(name: string): Promise<void> {
    this.at.set(null);
    return saveSvg(this.svg().nativeElement, name);
  }

  key(event: KeyboardEvent): void {
    const last = this.model().marks.length - 1;
    const at = this.at();
    const to: Readonly<Record<string, number>> = {
      ArrowRight: at === null ? 0 : Math.min(last, at + 1),
      ArrowLeft: at === null ? last : Math.max(0, at - 1),
      Home: 0,
      End: last,
    };
    const next = to[event.key];
    if (next === undefined || last < 0) return;
    event.preventDefault();
    event.stopPropagation();
    this.at.set(next);
  }

  point(event: PointerEvent): void {
    const box = this.svg().nativeElement.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const { marks } = this.model();
    let best: number | null = null;
    let near = Infinity;
    for (const [i, m] of marks.entries()) {
      // Along the time first, then up and down.
      const far = Math.abs(m.x - x) * 4 + Math.abs(m.y - y);
      if (far < near) [near, best] = [far, i];
    }
    this.at.set(best);
  }
}

function markPath({ x, y, as, width = 0, height = 0 }: Mark): string {
  // Tenths of a px; with `toFixed` this took a quarter of the drawing of a chart of thousands.
  const n = (v: number): number => Math.round(v * 10) / 10;
  if (as === 'bar') return `M${n(x - width / 2)} ${n(y)}h${n(width)}v${n(height)}h${n(-width)}z`;
  const r = 2.2;
  return `M${n(x - r)} ${n(y)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
}
