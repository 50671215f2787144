import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input } from '@angular/core';
import { scaleLinear } from 'd3-scale';
import type { DrillState } from '@core/drill';
import { followHeight, followWidth } from '../../../common/follow-size';

/** The least the stairs are high, in px. */
const LOW = 190;
const TOP = 34;
const BOTTOM = 28;

/**
 * The ladder as a flight of stairs: height is tempo, width the time spent there; passed stairs filled, the present one
 * lit.
 */
@Component({
  selector: 'ls-stairs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawing();
    <svg [attr.width]="d.width" [attr.height]="height()" role="img" [attr.aria-label]="d.words">
      @for (s of d.stairs; track s.bpm) {
        <rect [class]="s.kind" [attr.x]="s.x" [attr.y]="s.y" [attr.width]="s.width" [attr.height]="s.height" />
        @if (s.messy > 0) {
          <text class="messy" [attr.x]="s.x + s.width / 2" [attr.y]="height() - 8">{{ s.messy }} messy</text>
        }
        @if (s.chance !== null) {
          <text class="chance" [attr.x]="s.x + s.width / 2" [attr.y]="height() - 8">{{ s.chance }}</text>
        }
        @if (s.shown) {
          <text [class.lit]="s.kind === 'lit'" [attr.x]="s.labelX" [attr.text-anchor]="s.side" [attr.y]="s.y - 9">
            {{ s.bpm }}
          </text>
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      height: clamp(190px, 27vh, 340px);
      min-width: 0;
      line-height: 0;
    }
    rect {
      fill: var(--sunken);
      stroke: var(--line);
    }
    rect.passed {
      fill: var(--good);
      stroke: none;
      opacity: 0.8;
    }
    rect.lit {
      fill: var(--mark);
      stroke: none;
    }
    text {
      font: 600 14px var(--mono);
      fill: var(--quiet);
    }
    text.lit {
      font-size: 17px;
      fill: var(--ink);
    }
    text.chance,
    text.messy {
      text-anchor: middle;
      font-size: 11px;
      font-weight: 500;
    }
  `,
})
export class StairsComponent {
  readonly drill = input.required<DrillState>();
  /** The chance that each rung is clean, in words; none where it is not known. */
  readonly chances = input<readonly string[]>([]);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly room = followWidth(this.element);
  readonly height = followHeight(this.element, LOW);

  readonly drawing = computed(() => {
    const { rungs, rung, phase, attempts } = this.drill();
    const width = this.room();
    const high = this.height();
    const spent = rungs.map((bpm) => attempts.filter((a) => a.bpm === bpm).reduce((s, a) => s + a.seconds, 0));
    const total = spent.reduce((a, b) => a + b, 0);
    // Every stair has a share of its own; half of the width is shared by the time spent.
    const shares = spent.map((s) => (total > 0 ? 0.5 / rungs.length + (0.5 * s) / total : 1 / rungs.length));
    const [low, most] = [rungs[0] ?? 0, rungs.at(-1) ?? 0];
    const tall = scaleLinear([low, Math.max(most, low + 1)], [40, high - TOP - BOTTOM]);
    const widths = shares.map((share) => share * width);
    const stairs = rungs.map((bpm, i) => {
      const wide = widths[i] ?? 0;
      const height = tall(bpm);
      const done = phase === 'done' || i < rung;
      const tries = attempts.filter((a) => a.bpm === bpm);
      const x = widths.slice(0, i).reduce((a, b) => a + b, 0) + 2;
      // A narrow last stair keeps its number inside the drawing.
      const atEdge = x + wide / 2 + 20 > width;
      return {
        bpm,
        x,
        labelX: atEdge ? width : x + Math.max(2, wide - 4) / 2,
        side: atEdge ? 'end' : 'middle',
        y: high - BOTTOM - height,
        width: Math.max(2, wide - 4),
        height,
        kind: done ? 'passed' : i === rung ? 'lit' : 'ahead',
        shown: wide >= 44 || i === rung || i === rungs.length - 1,
        messy: tries.filter((a) => a.verdict === 'messy').length,
        chance: wide < 40 ? null : (this.chances()[i] ?? null),
      };
    });
    return { width, stairs, words: `Rung ${rung + 1} of ${rungs.length}, from ${low} to ${most} bpm` };
  });
}
