import { ChangeDetectionStrategy, Component, computed, input, type Signal } from '@angular/core';
import type { RibbonLayout } from './model';

/** The moving line. A view of its own, so that nothing else is drawn again while time passes. */
@Component({
  selector: 'g[lsPlayhead]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (at(); as a) {
      <svg:line class="playhead" [attr.x1]="a.x" [attr.x2]="a.x" [attr.y1]="a.top" [attr.y2]="a.bottom" />
    }
  `,
  styles: `
    .playhead {
      stroke: var(--mark);
      stroke-width: 2.5;
    }
  `,
})
export class PlayheadComponent {
  readonly layout = input.required<RibbonLayout>();
  readonly position = input.required<Signal<number | null>>();
  readonly loop = input.required<number>();
  readonly slot = input.required<number>();

  readonly at = computed(() => {
    const tick = this.position()();
    const { rows } = this.layout();
    if (tick === null || tick < 0) return null;
    const inLoop = this.loop() > 0 ? tick % this.loop() : tick;
    const row = rows.find((r) => inLoop >= r.from && inLoop < r.until);
    if (!row) return null;
    return { x: row.inset + (inLoop - row.from + this.slot() / 2) * row.scale, top: row.top + 4, bottom: row.floor };
  });
}
