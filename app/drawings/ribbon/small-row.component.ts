import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { RibbonRow } from './model';
import { smallBlocks, smallShapes } from './small';

/** A row of a ribbon on a card or on the shelf: few elements, and nothing that has to be read. */
@Component({
  selector: 'g[lsSmallRow]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (tint of row().tints; track $index) {
      <svg:rect
        class="tint"
        [attr.x]="tint.x"
        [attr.y]="row().bodyTop"
        [attr.width]="tint.width"
        [attr.height]="row().floor - row().bodyTop"
      />
    }
    <svg:line
      class="hands"
      [attr.x1]="row().left"
      [attr.x2]="row().right"
      [attr.y1]="row().line"
      [attr.y2]="row().line"
    />
    <svg:line
      class="floor"
      [attr.x1]="row().left"
      [attr.x2]="row().right"
      [attr.y1]="row().floor"
      [attr.y2]="row().floor"
    />
    @if (blocks(); as d) {
      <svg:path class="block" [attr.d]="d" />
    }
    @for (s of shapes(); track $index) {
      <svg:g [class]="s.look">
        <svg:path class="line" [attr.d]="s.stems" [attr.stroke-width]="s.width" />
        <svg:path [class]="s.ring ? 'head ring' : 'head'" [attr.d]="s.heads" />
        @if (s.buzz) {
          <svg:path class="buzz" [attr.d]="s.buzz" />
        }
      </svg:g>
    }
  `,
  styleUrl: './row.css',
})
export class SmallRowComponent {
  readonly row = input.required<RibbonRow>();
  readonly shapes = computed(() => smallShapes(this.row()));
  readonly blocks = computed(() => smallBlocks(this.row()));
}
