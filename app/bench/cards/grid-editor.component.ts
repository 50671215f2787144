import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';

@Component({
  selector: 'ls-grid-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="Grid">
      @for (g of grids(); track g.grid) {
        <button type="button" [attr.aria-pressed]="g.grid === params().grid" (click)="changed.emit({ grid: g.grid })">{{ g.name }}</button>
      }
    </div>
  `,
  styleUrl: './editor.css',
})
export class GridEditorComponent {
  readonly params = input.required<MoveParams['grid']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['grid']>();
  readonly grids = computed(() => gridsOf(this.before().meter).map((grid) => ({ grid, name: gridName(grid) })));
}
