import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { KIND_VOICES, type Kit, type Piece } from '@core/kit';
import { VOICE } from '@core/stroke';

/** What a hand did to a piece: values it should have now. `done` is false while the drag goes on. */
export interface PieceChange {
  readonly id: string;
  readonly part: Partial<Pick<Piece, 'x' | 'y' | 'diameter' | 'turn'>>;
  readonly done: boolean;
}

type Handle = 'move' | 'size' | 'turn';

/** The plan of a kit under a hand: pieces are dragged, sized and turned by pointer, finger or keys. */
@Component({
  selector: 'ls-plan-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="board" (pointermove)="move($event)" (pointerup)="up($event)" (pointercancel)="up($event)">
      <svg
        [attr.viewBox]="viewBox()"
        preserveAspectRatio="xMidYMid meet"
        role="group"
        aria-label="The kit from above, in centimetres"
      >
        @for (x of grid; track x) {
          <line class="grid" [attr.x1]="x" [attr.x2]="x" y1="-220" y2="220" />
        }
        @for (y of gridY; track y) {
          <line class="grid" x1="-220" x2="220" [attr.y1]="y" [attr.y2]="y" />
        }
        <text class="scale mid" x="0" y="34">lines every 20 cm</text>
        <path class="stool" d="M-15 10a15 13 0 1 1 30 0z" />
        <text class="scale mid" x="0" y="24">you</text>
        @for (p of sorted(); track p.id) {
          <g
            [class]="'piece ' + kindClass(p)"
            [class.chosen]="p.id === chosen()"
            tabindex="0"
            role="button"
            [attr.aria-pressed]="p.id === chosen()"
            [attr.aria-label]="p.name + ', ' + p.x + ' cm right, ' + p.y + ' cm ahead'"
            (pointerdown)="down($event, p, 'move')"
            (focus)="picked.emit(p.id)"
            (keydown)="key($event, p)"
          >
            <circle [attr.cx]="p.x" [attr.cy]="-p.y" [attr.r]="p.diameter / 2" />
            <path class="edge" [attr.d]="edge(p)" />
            <text [attr.x]="p.x" [attr.y]="-p.y + 2">{{ p.name.slice(0, 12) }}</text>
          </g>
        }
        @if (held(); as p) {
          <circle
            class="handle"
            [attr.cx]="p.x + p.diameter / 2"
            [attr.cy]="-p.y"
            r="4"
            (pointerdown)="down($event, p, 'size')"
          >
            <title>Size: {{ p.diameter }} cm across</title>
          </circle>
          <circle
            class="handle turn"
            [attr.cx]="turnPoint(p).x"
            [attr.cy]="turnPoint(p).y"
            r="4"
            (pointerdown)="down($event, p, 'turn')"
          >
            <title>Turn: {{ p.turn }}°</title>
          </circle>
        }
      </svg>
    </div>
  `,
  styleUrl: './plan-editor.component.css',
})
export class PlanEditorComponent {
  readonly kit = input.required<Kit>();
  readonly chosen = input<string | null>(null);
  readonly picked = output<string>();
  readonly changed = output<PieceChange>();
  readonly removed = output<string>();

  /**
   * The floor that is drawn, in cm: a usual room, wider when a piece stands outside it. It holds still while something
   * is dragged.
   */
  readonly viewBox = linkedSignal<string | null, string>({
    source: () => (this.drag() ? null : this.room()),
    computation: (room, before) => room ?? before?.value ?? this.room(),
  });
  readonly grid = Array.from({ length: 23 }, (_, i) => (i - 11) * 20);
  readonly gridY = Array.from({ length: 23 }, (_, i) => (i - 11) * 20);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly drag = signal<{
    readonly piece: Piece;
    readonly handle: Handle;
    readonly x: number;
    readonly y: number;
  } | null>(null);
  private room(): string {
    const { pieces } = this.kit();
    const step = (n: number): number => Math.ceil(n / 20) * 20;
    const side = step(Math.max(110, ...pieces.map((p) => Math.abs(p.x) + p.diameter / 2 + 6)));
    const far = step(Math.max(130, ...pieces.map((p) => p.y + p.diameter / 2 + 6)));
    const near = step(Math.max(40, ...pieces.map((p) => p.diameter / 2 - p.y + 6)));
    return `${-side} ${-far} ${2 * side} ${far + near}`;
  }

  /** Low pieces first, so that cymbals lie over drums. */
  readonly sorted = computed(() => [...this.kit().pieces].sort((a, b) => a.z - b.z));
  readonly held = computed(() => this.kit().pieces.find((p) => p.id === this.chosen()) ?? null);

  /** The colour of a piece is that of the first voice its kind has. */
  kindClass(piece: Piece): string {
    return VOICE[KIND_VOICES[piece.kind][0] ?? 'snare'].family;
  }

  /** The edge that faces the drummer, turned: where the stick lands. */
  edge(p: Piece): string {
    const angle = this.angleOf(p);
    const r = p.diameter / 2;
    const at = (by: number) =>
      `${(p.x + Math.cos(angle + by) * r).toFixed(1)} ${(-(p.y + Math.sin(angle + by) * r)).toFixed(1)}`;
    return `M${at(0.45)}A${r} ${r} 0 0 1 ${at(-0.45)}`;
  }

  turnPoint(p: Piece): { readonly x: number; readonly y: number } {
    const angle = this.angleOf(p);
    return { x: p.x + Math.cos(angle) * (p.diameter / 2), y: -(p.y + Math.sin(angle) * (p.diameter / 2)) };
  }

  private angleOf(p: Piece): number {
    return Math.atan2(-p.y, -p.x) - (p.turn * Math.PI) / 180;
  }

  down(event: PointerEvent, piece: Piece, handle: Handle): void {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    this.picked.emit(piece.id);
    const { x, y } = this.at(event);
    this.drag.set({ piece, handle, x, y });
    this.host.querySelector('.board')?.setPointerCapture(event.pointerId);
  }

  move(event: PointerEvent): void {
    const drag = this.drag();
    if (drag) this.tell(drag, event, false);
  }

  up(event: PointerEvent): void {
    const drag = this.drag();
    this.drag.set(null);
    if (drag) this.tell(drag, event, true);
  }

  private tell(
    { piece, handle, x, y }: { piece: Piece; handle: Handle; x: number; y: number },
    event: PointerEvent,
    done: boolean,
  ): void {
    const now = this.at(event);
    const { id } = piece;
    if (handle === 'move') this.changed.emit({ id, part: { x: piece.x + now.x - x, y: piece.y + now.y - y }, done });
    else if (handle === 'size')
      this.changed.emit({ id, part: { diameter: 2 * Math.hypot(now.x - piece.x, now.y - piece.y) }, done });
    else {
      const bare = Math.atan2(-piece.y, -piece.x);
      const wanted = Math.atan2(now.y - piece.y, now.x - piece.x);
      this.changed.emit({ id, part: { turn: ((bare - wanted) * 180) / Math.PI }, done });
    }
  }

  key(event: KeyboardEvent, piece: Piece): void {
    const step = event.shiftKey ? 5 : 1;
    const part = {
      ArrowLeft: { x: piece.x - step },
      ArrowRight: { x: piece.x + step },
      ArrowUp: { y: piece.y + step },
      ArrowDown: { y: piece.y - step },
      '+': { diameter: piece.diameter + 1 },
      '-': { diameter: piece.diameter - 1 },
      '[': { turn: piece.turn - 5 },
      ']': { turn: piece.turn + 5 },
    }[event.key];
    if (part) this.changed.emit({ id: piece.id, part, done: true });
    else if (event.key === 'Delete') this.removed.emit(piece.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** A pointer's place in cm of the plan, y ahead. */
  private at(event: PointerEvent): { readonly x: number; readonly y: number } {
    const svg = this.host.querySelector('svg');
    const matrix = svg?.getScreenCTM()?.inverse();
    if (!matrix) return { x: 0, y: 0 };
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: p.x, y: -p.y };
  }
}
