import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal } from '@angular/core';
import { layMoment, layTick, waveBetween, type HeardOnset, type HeardStroke, type Lay, type Peaks } from '@core/listen';
import { barTicks, beatTicks } from '@core/time';
import { followWidth } from '../../common/follow-size';

/** What of a recording is in sight, in seconds. */
export interface Sight {
  readonly from: number;
  readonly to: number;
}

/** The least that is in sight, in seconds: single samples are seen then. */
const CLOSEST = 0.02;
/** Bar lines nearer to each other than this have no numbers, in px; nearer still they are not drawn. */
const ROOMY = 26;
const CROWDED = 5;
/** Where strokes lie nearer to each other than this on the whole, in px, none is marked. */
const CLOSE = 3;
/** A hand that moved less than this only pressed, in px. */
const STILL = 4;

/** A wave with its strokes, the grid on it and the lick: dragged over to mark, at its bar lines to bend the grid. */
@Component({
  selector: 'ls-wave',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #drawing
      [attr.viewBox]="'0 0 ' + width() + ' ' + height()"
      [attr.height]="height()"
      role="img"
      [attr.aria-label]="label()"
      (pointerdown)="press($event)"
      (pointermove)="move($event)"
      (pointerup)="release($event)"
      (pointercancel)="held.set(null)"
      (dblclick)="put.emit(at($event))"
      (wheel)="wheel($event)"
    >
      @if (lickBox(); as b) {
        <rect class="lick" [attr.x]="b.x" y="0" [attr.width]="b.width" [attr.height]="height()" />
      }
      @if (beatBox(); as b) {
        <rect class="beat" [attr.x]="b.x" y="0" [attr.width]="b.width" [attr.height]="height()" />
      }
      <path class="wave" [attr.d]="path()" />
      @for (l of lines(); track l.tick) {
        <line
          class="line"
          [class.bar]="l.bar !== null"
          [attr.x1]="l.x"
          [attr.x2]="l.x"
          [attr.y1]="l.bar === null ? 18 : 0"
          [attr.y2]="height()"
        />
        @if (l.bar !== null && l.named) {
          <text [attr.x]="l.x + 4" y="11">{{ l.bar + 1 }}</text>
        }
        @if (l.bar !== null && bends()) {
          <rect class="handle" [attr.x]="l.x - 6" y="0" width="12" height="16" rx="3">
            <title>Bend the bar line</title>
          </rect>
        }
      }
      @for (o of marks(); track o.at) {
        <line
          class="onset"
          [class.unsure]="o.unsure"
          [class.on]="o.on"
          [attr.x1]="o.x"
          [attr.x2]="o.x"
          [attr.y1]="height() - 14"
          [attr.y2]="height()"
        />
      }
      @if (head(); as x) {
        <line class="head" [attr.x1]="x" [attr.x2]="x" y1="0" [attr.y2]="height()" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    svg {
      display: block;
      width: 100%;
      background: var(--surface);
      outline: 1px solid var(--line);
      border-radius: var(--radius);
      touch-action: none;
      cursor: crosshair;
    }
    .wave {
      fill: var(--line-strong);
    }
    .lick {
      fill: var(--accent-soft);
    }
    .beat {
      fill: var(--sunken);
      stroke: var(--accent);
    }
    .line {
      stroke: var(--line);
    }
    .line.bar {
      stroke: var(--ink);
      stroke-opacity: 0.7;
    }
    .handle {
      fill: transparent;
      cursor: ew-resize;
    }
    .handle:hover {
      fill: var(--accent);
      fill-opacity: 0.35;
    }
    text {
      user-select: none;
      font: 500 10px var(--mono);
      fill: var(--quiet);
    }
    .onset {
      stroke: var(--accent);
      stroke-width: 2;
    }
    .onset.unsure {
      stroke: var(--mark);
      stroke-dasharray: 2 2;
    }
    .onset.on {
      stroke-width: 5;
    }
    .head {
      stroke: var(--mark);
      stroke-width: 2;
    }
  `,
})
export class WaveComponent {
  readonly peaks = input.required<Peaks>();
  /** The samples themselves, for when they are seen singly. */
  readonly samples = input<Float32Array | null>(null);
  readonly sight = input.required<Sight>();
  readonly height = input(150);
  readonly lay = input<Lay | null>(null);
  readonly lick = input<Sight | null>(null);
  /** The beat that is looked at, in seconds. */
  readonly beat = input<Sight | null>(null);
  readonly onsets = input<readonly HeardOnset[]>([]);
  readonly strokes = input<readonly HeardStroke[]>([]);
  readonly chosen = input<HeardStroke | null>(null);
  readonly position = input<number | null>(null);
  readonly bends = input(false);
  readonly label = input('The wave of the recording');
  readonly marked = output<Sight>();
  readonly pressed = output<number>();
  readonly put = output<number>();
  readonly bent = output<{ readonly bar: number; readonly at: number }>();
  readonly seen = output<Sight>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly width = followWidth(this.host);
  readonly held = signal<{ readonly from: number; readonly x: number; readonly bar: number | null } | null>(null);
  private readonly dragged = signal<Sight | null>(null);

  readonly x = computed(() => {
    const [{ from, to }, width] = [this.sight(), this.width()];
    return (at: number): number => ((at - from) / (to - from)) * width;
  });
  readonly path = computed(() => {
    const [{ from, to }, width, height, peaks] = [this.sight(), this.width(), this.height(), this.peaks()];
    const columns = Math.max(1, Math.round(width));
    const half = (height - 18) / 2;
    const y = (v: number): string => (18 + half - v * half * 0.95).toFixed(1);
    const samples = this.samples();
    if (samples && ((to - from) * peaks.rate) / columns < 8) return this.fine(samples, y);
    const wave = waveBetween(peaks, from, to, columns);
    const top = wave.map(([, high], i) => `${i},${y(high)}`);
    const bottom = wave.map(([low], i) => `${i},${y(low - 0.004)}`).reverse();
    return `M${top.join('L')}L${bottom.join('L')}Z`;
  });
  readonly lines = computed(() => {
    const [lay, { from, to }, x] = [this.lay(), this.sight(), this.x()];
    if (!lay) return [];
    const [bar, beat] = [barTicks(lay.meter), beatTicks(lay.meter)];
    const gap = x(layMoment(lay, beat)) - x(layMoment(lay, 0));
    const barGap = (gap * bar) / beat;
    if (barGap < CROWDED) return [];
    const step = gap < CROWDED * 1.6 ? bar : beat;
    const first = Math.ceil(layTick(lay, from) / step);
    const last = Math.floor(layTick(lay, to) / step);
    return Array.from({ length: Math.max(0, Math.min(400, last - first + 1)) }, (_, i) => {
      const tick = (first + i) * step;
      return { tick, x: x(layMoment(lay, tick)), bar: tick % bar === 0 ? tick / bar : null, named: barGap > ROOMY };
    });
  });
  readonly marks = computed(() => {
    const [{ from, to }, x, strokes, chosen] = [this.sight(), this.x(), this.strokes(), this.chosen()];
    const known = new Set(strokes.map((s) => s.seconds));
    const bare = this.onsets().filter((o) => o.at >= from && o.at <= to && !known.has(o.at));
    // Marks on each other mark nothing: from afar there are none, and none are left out of some.
    const room = bare.length * CLOSE <= this.width();
    return [
      ...(room ? bare : []).map((o) => ({ at: o.at, x: x(o.at), unsure: o.sure < 0.75, on: false })),
      ...strokes.map((s) => ({ at: s.seconds, x: x(s.seconds), unsure: s.why !== '', on: s === chosen })),
    ];
  });
  readonly lickBox = computed(() => this.box(this.dragged() ?? this.lick()));
  readonly beatBox = computed(() => this.box(this.beat()));
  readonly head = computed(() => {
    const [at, { from, to }] = [this.position(), this.sight()];
    return at === null || at < from || at > to ? null : this.x()(at);
  });

  private fine(samples: Float32Array, y: (v: number) => string): string {
    const [{ from, to }, { rate }, x] = [this.sight(), this.peaks(), this.x()];
    const points: string[] = [];
    for (let i = Math.max(0, Math.floor(from * rate)); i <= Math.min(samples.length - 1, Math.ceil(to * rate)); i++)
      points.push(`${x(i / rate).toFixed(1)},${y(samples[i] ?? 0)}`);
    const back = [...points]
      .reverse()
      .map((p) => p.replace(/,(.*)/, (_, v: string) => `,${(Number(v) + 1).toFixed(1)}`));
    return points.length > 0 ? `M${points.join('L')}L${back.join('L')}Z` : '';
  }

  private box(part: Sight | null): { x: number; width: number } | null {
    if (!part) return null;
    const x = this.x();
    return { x: x(part.from), width: Math.max(1, x(part.to) - x(part.from)) };
  }

  at(event: MouseEvent): number {
    const box = this.host.getBoundingClientRect();
    const { from, to } = this.sight();
    return from + ((event.clientX - box.left) / box.width) * (to - from);
  }

  press(event: PointerEvent): void {
    if (event.button !== 0) return;
    const at = this.at(event);
    const top = event.clientY - this.host.getBoundingClientRect().top < 18;
    const x = this.x()(at);
    const line = this.bends() && top ? this.lines().find((l) => l.bar !== null && Math.abs(l.x - x) < 8) : undefined;
    this.held.set({ from: at, x: event.clientX, bar: line?.bar ?? null });
    if (event.currentTarget instanceof Element) event.currentTarget.setPointerCapture(event.pointerId);
  }

  move(event: PointerEvent): void {
    const held = this.held();
    if (!held || Math.abs(event.clientX - held.x) < STILL) return;
    const at = this.at(event);
    if (held.bar !== null) this.bent.emit({ bar: held.bar, at });
    else this.dragged.set({ from: Math.min(held.from, at), to: Math.max(held.from, at) });
  }

  release(event: PointerEvent): void {
    const [held, dragged] = [this.held(), this.dragged()];
    this.held.set(null);
    this.dragged.set(null);
    if (!held) return;
    if (dragged) this.marked.emit(dragged);
    else if (held.bar === null && Math.abs(event.clientX - held.x) < STILL) this.pressed.emit(this.at(event));
  }

  wheel(event: WheelEvent): void {
    event.preventDefault();
    const [{ from, to }, at] = [this.sight(), this.at(event)];
    const by = event.deltaY > 0 ? 1.25 : 0.8;
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      const over = ((to - from) * (event.deltaX || event.deltaY)) / 1500;
      this.seen.emit({ from: from + over, to: to + over });
    } else if ((to - from) * by > CLOSEST) this.seen.emit({ from: at - (at - from) * by, to: at + (to - at) * by });
  }
}
