import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { wholeOf } from './values';

@Component({
  selector: 'ls-grid-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="Grid">
      @for (g of grids(); track g.grid) {
        <button type="button" [attr.aria-pressed]="g.grid === params().grid" (click)="set(g.grid, params().part)">{{ g.name }}</button>
      }
    </div>
    <div class="row">
      <label class="check"
        ><input
          type="checkbox"
          [checked]="!params().part"
          (change)="set(params().grid, params().part ? undefined : { from: 1, to: 1 })"
        />all slots</label
      >
      @if (params().part; as part) {
        <label class="field"
          >from
          <input
            class="input"
            type="number"
            min="1"
            max="2048"
            [value]="part.from"
            (change)="set(params().grid, { from: whole($event, 1, 2048), to: part.to })"
        /></label>
        <label class="field"
          >to
          <input
            class="input"
            type="number"
            min="1"
            max="2048"
            [value]="part.to"
            (change)="set(params().grid, { from: part.from, to: whole($event, 1, 2048) })"
        /></label>
      }
    </div>
  `,
  styleUrl: './editor.css',
})
export class GridEditorComponent {
  readonly params = input.required<MoveParams['grid']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['grid']>();
  readonly whole = wholeOf;
  readonly grids = computed(() => gridsOf(this.before().meter).map((grid) => ({ grid, name: gridName(grid) })));

  set(grid: number, part: MoveParams['grid']['part']): void {
    this.changed.emit(part ? { grid, part } : { grid });
  }
}
