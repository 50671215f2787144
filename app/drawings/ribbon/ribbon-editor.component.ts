import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  type Signal,
  signal,
  viewChild,
} from '@angular/core';
import type { Counting, Schools } from '@core/time';
import type { Level, Limb, OwnSyllables } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import { underPoint, levelAt, type Under } from './under';
import { NO_MARKS, type RibbonMarks } from './marks';
import type { RibbonLine } from './model';
import { RibbonComponent } from './ribbon.component';

/** What a hand did on the ribbon. Ticks from the pattern's start. */
export type Gesture =
  | {
      readonly kind: 'press';
      readonly at: number;
      readonly limb: Limb;
      readonly stroke: number | null;
      readonly adds: boolean;
    }
  | { readonly kind: 'range'; readonly from: number; readonly until: number }
  | { readonly kind: 'height'; readonly stroke: number; readonly level: Level }
  | { readonly kind: 'displace'; readonly stroke: number; readonly by: number; readonly done: boolean };

/** What a drag that is under way does; `moved` once it went far enough to be no click. */
interface Drag {
  readonly kind: 'height' | 'displace' | 'range';
  readonly hit: Under;
  readonly x: number;
  readonly y: number;
  readonly moved: boolean;
}

/** A pointer that goes less far than this, in px, has clicked. */
const CLICK = 4;

/** The ribbon under a hand: presses, drags and the keyboard's focus. What they mean is the place's to say. */
@Component({
  selector: 'ls-ribbon-editor',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      #pad
      class="pad"
      tabindex="0"
      role="application"
      aria-roledescription="ribbon"
      [attr.aria-label]="label()"
      [class.holds]="drag() !== null"
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="up($event)"
      (pointercancel)="cancel()"
      (keydown)="key($event)"
      (focus)="focused.emit()"
    >
      <ls-ribbon
        size="bench"
        [apart]="true"
        [pattern]="pattern()"
        [schools]="schools()"
        [pace]="pace()"
        [sung]="sung()"
        [hide]="hide()"
        [types]="types()"
        [groovesOnly]="groovesOnly()"
        [silent]="silent()"
        [position]="position()"
        [loop]="loop()"
        [origin]="origin()"
        [pointed]="pointed()"
        [marks]="marks()"
      />
    </div>
    <p class="visually-hidden" aria-live="polite">{{ said() }}</p>
  `,
  styles: `
    .pad {
      touch-action: pan-y;
      cursor: text;
      user-select: none;
      border-radius: 4px;
    }
    .pad.holds {
      cursor: grabbing;
      touch-action: none;
    }
    .pad:focus-visible {
      outline-offset: 4px;
    }
  `,
})
export class RibbonEditorComponent {
  readonly pattern = input.required<Pattern>();
  readonly schools = input.required<Schools>();
  readonly pace = input<Counting['pace'] | null>(null);
  readonly sung = input<OwnSyllables | null>(null);
  readonly hide = input<readonly RibbonLine[]>([]);
  readonly types = input(false);
  readonly groovesOnly = input(false);
  readonly silent = input(false);
  readonly position = input.required<Signal<number | null>>();
  readonly loop = input(0);
  readonly origin = input(0);
  readonly pointed = input<readonly number[]>([]);
  readonly marks = input<RibbonMarks>(NO_MARKS);
  readonly label = input.required<string>();
  /** What a screen reader hears of the place the cursor stands at. */
  readonly said = input('');

  readonly gesture = output<Gesture>();
  readonly keyed = output<KeyboardEvent>();
  readonly focused = output();

  private readonly ribbon = viewChild.required(RibbonComponent);
  private readonly pad = viewChild.required<ElementRef<HTMLElement>>('pad');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly drag = signal<Drag | null>(null);
  readonly sounding = computed(() => this.ribbon().sounding());

  /** Escape gives the keyboard back: the next letter is for the place, no stroke. */
  key(event: KeyboardEvent): void {
    this.keyed.emit(event);
    if (event.key === 'Escape') this.pad().nativeElement.blur();
  }

  focus(): void {
    this.pad().nativeElement.focus();
  }

  down(event: PointerEvent): void {
    if (event.button !== 0) return;
    const hit = this.hit(event);
    if (!hit) return;
    const chosen = hit.stroke !== null && this.marks().chosen.includes(hit.stroke);
    const kind = hit.end && !chosen ? 'height' : hit.stroke !== null ? 'displace' : 'range';
    this.drag.set({ kind, hit, x: event.clientX, y: event.clientY, moved: false });
  }

  move(event: PointerEvent): void {
    const drag = this.drag();
    if (!drag) return;
    const [dx, dy] = [event.clientX - drag.x, event.clientY - drag.y];
    if (!drag.moved && Math.hypot(dx, dy) < CLICK) return;
    // A stem's end that is pulled sideways is displaced, not raised.
    const kind = drag.kind === 'height' && !drag.moved && Math.abs(dx) > Math.abs(dy) * 1.5 ? 'displace' : drag.kind;
    if (!drag.moved) this.pad().nativeElement.setPointerCapture(event.pointerId);
    this.drag.set({ ...drag, kind, moved: true });
    this.tell(kind, drag, event, false);
  }

  up(event: PointerEvent): void {
    const drag = this.drag();
    this.drag.set(null);
    if (!drag) return;
    if (drag.moved) this.tell(drag.kind, drag, event, true);
    else
      this.gesture.emit({
        kind: 'press',
        at: drag.hit.at,
        limb: drag.hit.limb,
        stroke: drag.hit.stroke,
        adds: event.shiftKey,
      });
  }

  cancel(): void {
    this.drag.set(null);
  }

  private tell(kind: Drag['kind'], { hit, x }: Drag, event: PointerEvent, done: boolean): void {
    const layout = this.ribbon().layout();
    const here = this.hit(event);
    switch (kind) {
      case 'height': {
        const row = layout.rows.find(
          (r) => r.stems.some((s) => s.index === hit.stroke) || r.blocks.some((b) => b.index === hit.stroke),
        );
        if (!row || hit.stroke === null) return;
        const foot = row.blocks.some((b) => b.index === hit.stroke);
        const y = this.at(event).y;
        const height = foot ? (row.floor - y) * 1.6 : Math.max(0, hit.limb === 'R' ? row.line - y : y - row.line);
        this.gesture.emit({ kind: 'height', stroke: hit.stroke, level: levelAt(layout, height) });
        return;
      }
      case 'displace': {
        const scale = layout.rows[0]?.scale ?? 1;
        const by = Math.round((event.clientX - x) / scale / layout.grid) * layout.grid;
        if (hit.stroke !== null) this.gesture.emit({ kind: 'displace', stroke: hit.stroke, by, done });
        return;
      }
      case 'range': {
        if (!here) return;
        const [from, to] = [Math.min(hit.at, here.at), Math.max(hit.at, here.at)];
        this.gesture.emit({ kind: 'range', from, until: to + layout.grid });
      }
    }
  }

  private hit(event: PointerEvent): Under | null {
    const { x, y } = this.at(event);
    return underPoint(this.ribbon().layout(), x, y);
  }

  /** A pointer's place in px of the drawing. */
  private at(event: PointerEvent): { readonly x: number; readonly y: number } {
    const box = this.host.querySelector('.apart')?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  }
}
