import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { KIT_LIMITS, strikingPoint, type Kit, type Piece } from '@core/kit';
import { VOICE, type Voice } from '@core/stroke';

/** One limb's way over the kit: points in cm, in the order they are struck. */
export interface PathLine {
  readonly limb: 'R' | 'L';
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** A piece as it is drawn: y grows downwards on paper and ahead on the kit. */
interface Disc {
  readonly piece: Piece;
  readonly x: number;
  readonly y: number;
  readonly r: number;
  readonly short: string;
  readonly family: string;
  readonly chosen: boolean;
  readonly spot: { readonly x: number; readonly y: number };
}

/** A kit from above, the drummer below. Presentational: pieces can be pressed, paths drawn over it. */
@Component({
  selector: 'ls-kit-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './kit-plan.component.html',
  styleUrl: './kit-plan.component.css',
})
export class KitPlanComponent {
  readonly kit = input.required<Kit>();
  /** Voices that are chosen; their pieces are marked. */
  readonly voices = input<readonly Voice[]>([]);
  readonly chosenPiece = input<string | null>(null);
  readonly paths = input<readonly PathLine[]>([]);
  /** Where each hand is now, in cm. */
  readonly now = input<readonly { readonly limb: 'R' | 'L'; readonly x: number; readonly y: number }[]>([]);
  readonly pressable = input(false);
  readonly label = input('The kit from above');
  readonly pressed = output<Piece>();

  /** The part of the floor that is drawn, in cm: all pieces with a margin, the stool always in it. */
  readonly box = computed(() => {
    const { pieces } = this.kit();
    const left = Math.min(-40, ...pieces.map((p) => p.x - p.diameter / 2)) - 4;
    const right = Math.max(40, ...pieces.map((p) => p.x + p.diameter / 2)) + 4;
    const far = Math.max(60, ...pieces.map((p) => p.y + p.diameter / 2)) + 4;
    const near = Math.min(-16, ...pieces.map((p) => p.y - p.diameter / 2)) - 4;
    const limit = KIT_LIMITS.reach + 50;
    return {
      x: Math.max(-limit, left),
      y: -Math.min(limit, far),
      width: Math.min(2 * limit, right - left),
      height: Math.min(2 * limit, far - near),
    };
  });
  readonly viewBox = computed(() => {
    const b = this.box();
    return `${b.x} ${b.y} ${b.width} ${b.height}`;
  });
  readonly discs = computed((): Disc[] =>
    [...this.kit().pieces]
      .sort((a, b) => a.z - b.z)
      .map((piece) => {
        const [voice] = piece.voices;
        const spot = voice ? strikingPoint(piece, voice) : piece;
        return {
          piece,
          x: piece.x,
          y: -piece.y,
          r: piece.diameter / 2,
          short: voice ? VOICE[voice].short : '',
          family: voice ? VOICE[voice].family : 'skin',
          chosen: piece.id === this.chosenPiece() || piece.voices.some((v) => this.voices().includes(v)),
          spot: { x: spot.x, y: -spot.y },
        };
      }),
  );
  readonly lines = computed(() =>
    this.paths().map((p) => ({
      limb: p.limb,
      d: p.points.map((at, i) => `${i === 0 ? 'M' : 'L'}${at.x.toFixed(1)} ${(-at.y).toFixed(1)}`).join(''),
    })),
  );

  press(piece: Piece): void {
    if (this.pressable()) this.pressed.emit(piece);
  }
}
