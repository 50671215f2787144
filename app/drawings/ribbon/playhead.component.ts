import { ChangeDetectionStrategy, Component, computed, input, type Signal } from '@angular/core';
import type { RibbonLayout } from './model';

/** The moving line. A view of its own, so that nothing else is drawn again while time passes. */
@Component({
  selector: 'g[lsPlayhead]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (at(); as a) {
      <svg:line
        class="playhead"
        [attr.y1]="a.top"
        [attr.y2]="a.bottom"
        [style.transform]="'translateX(' + a.x + 'px)'"
      />
    }
  `,
  styles: `
    .playhead {
      stroke: var(--mark);
      stroke-width: 2.5;
      /* A layer of its own: the drawing under it is neither laid out nor painted again at each frame. */
      will-change: transform;
    }
  `,
})
export class PlayheadComponent {
  readonly layout = input.required<RibbonLayout>();
  readonly position = input.required<Signal<number | null>>();
  readonly loop = input.required<number>();
  readonly slot = input.required<number>();
  /** Tick of the first bar line that sounds at the program's zero. */
  readonly origin = input(0);

  /** The row it is in, while it is anywhere: new only when it goes on to another. */
  readonly row = computed(
    () => {
      const at = this.at();
      return at && { top: at.top, bottom: at.bottom };
    },
    { equal: (a, b) => a?.top === b?.top && a?.bottom === b?.bottom },
  );

  readonly at = computed(() => {
    const tick = this.position()();
    const { rows, lead } = this.layout();
    if (tick === null) return null;
    if (tick < 0) {
      // In the bar before the 1 the pick-up is followed.
      const led = lead && tick + lead.until + this.slot() / 2;
      return lead && led !== null && led >= lead.from
        ? { x: lead.inset + (led - lead.from) * lead.scale, top: lead.bodyTop - 2, bottom: lead.floor }
        : null;
    }
    const inLoop = (this.loop() > 0 ? tick % this.loop() : tick) + this.origin();
    const here = rows.findIndex((r) => inLoop >= r.from && inLoop < r.until);
    const own = rows[here];
    if (!own) return null;
    // A stroke stands in the middle of its slot. The last half slot lies before the first stroke of the next row, or of
    // the first one again.
    const middle = inLoop + this.slot() / 2;
    const row = middle < own.until ? own : (rows[(here + 1) % rows.length] ?? own);
    const shown = row === own && middle < own.until ? middle : row.from + middle - own.until;
    // Clear of the counts over it.
    return { x: row.inset + (shown - row.from) * row.scale, top: row.bodyTop - 2, bottom: row.floor };
  });
}
