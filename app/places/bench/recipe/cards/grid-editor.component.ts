import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import type { Choice } from '../../../../widgets/choice';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';

@Component({
  selector: 'ls-grid-editor',
  imports: [ChipsComponent, NumberFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Subdivision"
      [dense]="true"
      [chips]="grids()"
      [chosen]="params().grid"
      (chose)="set($event, params().part)"
    />
    <div class="row">
      <label class="check"
        ><input
          type="checkbox"
          [checked]="!params().part"
          (change)="set(params().grid, params().part ? undefined : { from: 1, to: 1 })"
        />all slots</label
      >
      @if (params().part; as part) {
        <div class="field">
          from
          <ls-number-field
            label="from"
            [least]="1"
            [most]="2048"
            [value]="part.from"
            (changed)="set(params().grid, { from: $event, to: part.to, on: part.on })"
          />
        </div>
        <div class="field">
          to
          <ls-number-field
            label="to"
            [least]="1"
            [most]="2048"
            [value]="part.to"
            (changed)="set(params().grid, { from: part.from, to: $event, on: part.on })"
          />
        </div>
        <label class="field"
          >played from
          <input
            #onField
            class="input mono count"
            type="text"
            placeholder="in place"
            maxlength="16"
            [value]="part.on ?? ''"
            (change)="set(params().grid, { from: part.from, to: part.to, on: onField.value.trim() })"
          />
        </label>
      }
    </div>
  `,
  styleUrl: './editor.css',
  styles: `
    .count {
      width: 90px;
    }
  `,
})
export class GridEditorComponent {
  readonly params = input.required<MoveParams['grid']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['grid']>();
  readonly grids = computed(() =>
    gridsOf(this.before().meter).map((grid): Choice<number> => ({ value: grid, words: gridName(grid) })),
  );

  /** Without a count the slots stay where they are, and the rest moves up behind them. */
  set(grid: number, part?: { from: number; to: number; on?: string | undefined }): void {
    if (!part) return this.changed.emit({ grid });
    const { from, to, on } = part;
    this.changed.emit({ grid, part: on ? { from, to, on } : { from, to } });
  }
}
