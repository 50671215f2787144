import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { placeOf } from './under';
import type { RibbonMarks } from './marks';
import type { RibbonLayout } from './model';

/** How far the frame of a chosen stroke stands from its head and from the line, in px. */
const HEAD = 9;
const LINE = 3;

/**
 * Cursor, selection and changes, drawn over the strokes. A view of its own, so that moving the cursor draws nothing
 * else again.
 */
@Component({
  selector: 'g[lsMarks]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (r of ranges(); track $index) {
      <svg:rect class="range" [attr.x]="r.x" [attr.y]="r.y" [attr.width]="r.width" [attr.height]="r.height" />
    }
    @for (t of tight(); track $index) {
      <svg:path class="tight" [attr.d]="t" />
    }
    @for (c of changed(); track $index) {
      <svg:path class="changed" [attr.d]="'M' + (c.x - 5) + ' ' + c.y + 'h10l-5 6z'" />
    }
    @for (d of dots(); track $index) {
      <svg:circle [class]="d.old ? 'hit old' : 'hit'" [attr.cx]="d.x" [attr.cy]="d.y" r="4.5" />
    }
    @for (c of chosen(); track $index) {
      <svg:rect class="chosen" [attr.x]="c.x" [attr.y]="c.y" [attr.width]="c.width" [attr.height]="c.height" rx="4" />
    }
    @if (cursor(); as c) {
      <svg:rect class="cursor" [attr.x]="c.x" [attr.y]="c.y" [attr.width]="c.width" [attr.height]="c.height" rx="3" />
    }
  `,
  styles: `
    .range {
      fill: var(--accent);
      opacity: 0.13;
    }
    .cursor {
      fill: none;
      stroke: var(--accent);
      stroke-width: 2;
    }
    .chosen {
      fill: none;
      stroke: var(--accent);
      stroke-width: 1.5;
      stroke-dasharray: 3 2;
    }
    .tight {
      fill: none;
      stroke: var(--mark);
      stroke-width: 2;
      stroke-dasharray: 2 3;
      stroke-linecap: round;
    }
    .hit {
      fill: var(--mark);
      stroke: var(--ground);
    }
    .old {
      opacity: 0.35;
    }
    .changed {
      fill: var(--mark);
    }
  `,
})
export class MarksComponent {
  readonly layout = input.required<RibbonLayout>();
  readonly marks = input.required<RibbonMarks>();

  readonly ranges = computed(() => {
    const { range } = this.marks();
    if (!range) return [];
    const { rows, start } = this.layout();
    return rows.flatMap((row) => {
      const [a, b] = [Math.max(range.from + start, row.from), Math.min(range.until + start, row.until)];
      if (b <= a) return [];
      return [
        {
          x: row.inset + (a - row.from) * row.scale,
          y: row.bodyTop,
          width: (b - a) * row.scale,
          height: row.floor - row.bodyTop,
        },
      ];
    });
  });
  readonly changed = computed(() =>
    this.marks().changed.flatMap((at) => {
      const place = placeOf(this.layout(), at);
      return place ? [{ x: place.x + (this.layout().grid * place.row.scale) / 2, y: place.row.bodyTop - 5 }] : [];
    }),
  );
  /** Above the line for the right hand, below for the left, on the floor for feet; on the line where nobody knows. */
  readonly dots = computed(() => {
    const { rows, grid } = this.layout();
    return this.marks().dots.flatMap(({ tick, limb, old }) => {
      const at = tick + grid / 2;
      const inside = rows.find((r) => at >= r.from && at < r.until);
      // A hit just before the 1 stands before the first row; one in a bar that is not shown now stands nowhere.
      const row = inside ?? (at < 0 ? rows.find((r) => r.from === 0) : undefined);
      if (!row) return [];
      const tall = row.line - row.bodyTop;
      const y =
        limb === 'R' ? row.bodyTop + 6 : limb === 'L' ? row.line + tall - 6 : limb === null ? row.line : row.floor - 4;
      return [{ x: row.inset + (tick - row.from + grid / 2) * row.scale, y, old }];
    });
  });
  /** An arc from head to head; in two pieces where the strokes stand in different rows. */
  readonly tight = computed(() => {
    const { rows, lead } = this.layout();
    const ends = (lead ? [lead, ...rows] : rows).flatMap((row) => [
      ...row.stems.map((s) => ({ index: s.index, row, x: s.x, y: s.end, up: s.limb === 'R' ? -1 : 1 })),
      ...row.blocks.map((b) => ({ index: b.index, row, x: b.x + b.width / 2, y: b.y, up: -1 })),
    ]);
    return this.marks().tight.flatMap(({ from, to }) => {
      const [a, b] = [ends.find((e) => e.index === from), ends.find((e) => e.index === to)];
      if (!a || !b) return [];
      const arc = (x1: number, y1: number, x2: number, y2: number, up: number) =>
        `M${x1} ${y1 + up * 9}Q${(x1 + x2) / 2} ${Math.min(y1, y2) + up * 30} ${x2} ${y2 + up * 9}`;
      if (a.row === b.row && b.x > a.x) return [arc(a.x, a.y, b.x, b.y, a.up)];
      return [
        arc(a.x, a.y, Math.max(a.x + 16, a.row.right - 4), a.y, a.up),
        arc(Math.min(b.x - 16, b.row.left + 4), b.y, b.x, b.y, b.up),
      ];
    });
  });
  readonly chosen = computed(() => {
    const wanted = new Set(this.marks().chosen);
    if (wanted.size === 0) return [];
    const { rows } = this.layout();
    return rows.flatMap((row) => {
      const by = this.marks().shadow * row.scale;
      const stems = row.stems.filter((s) => wanted.has(s.index));
      const blocks = row.blocks.filter((b) => wanted.has(b.index));
      return [
        // Wide of the head, close at the line: the letter of the hand stands just beyond it.
        ...stems.map((s) => ({
          x: s.x - 9 + by,
          y: s.end < s.base ? s.end - HEAD : s.base - LINE,
          width: 18,
          height: Math.abs(s.end - s.base) + HEAD + LINE,
        })),
        ...blocks.map((b) => ({ x: b.x - 3 + by, y: b.y - 3, width: b.width + 6, height: b.height + 6 })),
      ];
    });
  });
  readonly cursor = computed(() => {
    const { cursor } = this.marks();
    const place = cursor === null ? null : placeOf(this.layout(), cursor);
    if (!place) return null;
    const width = Math.max(6, this.layout().grid * place.row.scale);
    // Behind the last slot the cursor is a thin line: what is typed there grows the phrase.
    const over = place.x + width > place.row.right + 2;
    return {
      x: over ? place.x - 2 : place.x,
      y: place.row.bodyTop,
      width: over ? 4 : width,
      height: place.row.floor - place.row.bodyTop,
    };
  });
}
