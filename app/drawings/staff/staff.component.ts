import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  type Signal,
} from '@angular/core';
import { strokesOf, withGraces, type Pattern } from '@core/pattern';
import { followWidth } from '../../common/follow-size';
import { stilled } from '../../common/stilled';
import { drawLines, loadMusicFonts, type StaffPlace } from './draw';
import { LineEngraver } from './engraver';
import { planStaff, type StaffOptions } from './plan';

/**
 * A phrase on a percussion staff: hands up, feet down, stickings under; the cursor and the playhead are the ribbon's.
 */
@Component({
  selector: 'ls-staff',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="paper" [attr.role]="'img'" [attr.aria-label]="'Staff: ' + label()" (pointerup)="press($event)">
      <div #host class="notes"></div>
      @if (playhead(); as p) {
        <span
          class="bar play"
          [style.height.px]="p.bottom - p.top"
          [style.transform]="'translate(' + (p.x + 5) + 'px, ' + p.top + 'px)'"
        ></span>
      }
      @if (cursorPlace(); as p) {
        <span
          class="bar cursor"
          [style.left.px]="p.x - 3"
          [style.top.px]="p.top"
          [style.height.px]="p.bottom - p.top"
        ></span>
      }
    </div>
    @if (failed(); as words) {
      <p class="wrong" role="status">{{ words }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .paper {
      position: relative;
      color: var(--ink);
    }
    .bar {
      position: absolute;
      pointer-events: none;
    }
    .play {
      top: 0;
      left: 0;
      width: 2.5px;
      will-change: transform;
      background: var(--mark);
    }
    .cursor {
      width: 16px;
      border: 2px solid var(--accent);
      border-radius: 3px;
    }
  `,
  host: { '[attr.data-drawn]': 'drawn()' },
})
export class StaffComponent {
  readonly pattern = input.required<Pattern>();
  readonly label = input('');
  readonly stickings = input(true);
  readonly scale = input(0.76);
  readonly width = input<number>();
  /**
   * Whether each line is a drawing of its own, engraved between frames and kept while it looks the same. Else all is
   * one drawing, which can be saved.
   */
  readonly apart = input(false);
  /** Cursor in ticks from the pattern's start. */
  readonly cursor = input<number | null>(null);
  readonly position = input<Signal<number | null>>(signal(null));
  readonly loop = input(0);
  readonly origin = input(0);
  /** A moment that was pressed, in ticks from the pattern's start. */
  readonly pressed = output<number>();

  /** The pattern once the hand is still. */
  private readonly still = stilled(() => this.pattern(), 2);
  private engraver: LineEngraver | null = null;
  private readonly host = viewChild.required<ElementRef<HTMLDivElement>>('host');
  private readonly room = followWidth(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  private readonly fonts = signal(false);
  private readonly placesState = signal<readonly StaffPlace[]>([]);
  readonly failed = signal<string | null>(null);
  /** How many strokes the drawn staff holds; null before it is drawn. */
  readonly drawn = signal<number | null>(null);
  readonly cursorPlace = computed(() =>
    this.placeAt(this.cursor() === null ? null : this.pattern().start + (this.cursor() ?? 0)),
  );
  readonly playhead = computed(() => {
    const tick = this.position()();
    // Before the 1 only what leads in is followed.
    if (tick === null || tick < 0) return tick === null ? null : this.placeAt(tick);
    return this.placeAt((this.loop() > 0 ? tick % this.loop() : tick) + this.origin());
  });

  constructor() {
    loadMusicFonts(document.baseURI).then(
      () => this.fonts.set(true),
      () => this.failed.set('The music font could not be loaded, so there is no staff. The ribbon shows everything.'),
    );
    effect(() => {
      const pattern = this.apart() ? this.still() : this.pattern();
      if (!this.fonts() || !pattern) return;
      this.draw(pattern, { width: this.width() ?? this.room(), stickings: this.stickings(), scale: this.scale() });
    });
    inject(DestroyRef).onDestroy(() => this.engraver?.stop());
  }

  private draw(phrase: Pattern, options: StaffOptions): void {
    const pattern = { ...phrase, strokes: strokesOf(withGraces(phrase)) };
    const host = this.host().nativeElement;
    const done = (places: readonly StaffPlace[]): void => {
      this.placesState.set(places);
      this.drawn.set(pattern.strokes.length);
      this.failed.set(null);
    };
    const failed = (error: unknown): void => {
      // What is drawn is lost to nobody: the ribbon shows the same phrase.
      this.failed.set('This phrase does not fit on a staff. The ribbon shows everything.');
      console.error(error);
    };
    try {
      const plan = planStaff(pattern, options);
      if (this.apart()) (this.engraver ??= new LineEngraver(host)).draw(plan, pattern, options, done, failed);
      else done(drawLines(host, plan, pattern, options));
    } catch (error) {
      failed(error);
    }
  }

  press(event: MouseEvent): void {
    const box = this.host().nativeElement.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const near = this.placesState().filter((p) => y >= p.top - 20 && y <= p.bottom + 20);
    const best = near.reduce<StaffPlace | null>(
      (a, b) => (a && Math.abs(a.x + 6 - x) <= Math.abs(b.x + 6 - x) ? a : b),
      null,
    );
    if (best && best.tick >= this.pattern().start) this.pressed.emit(best.tick - this.pattern().start);
  }

  /** The last drawn moment at or before a tick of the bar line. */
  private placeAt(tick: number | null): StaffPlace | null {
    if (tick === null) return null;
    return this.placesState().reduce<StaffPlace | null>(
      (best, p) => (p.tick <= tick && (!best || p.tick > best.tick) ? p : best),
      null,
    );
  }
}
