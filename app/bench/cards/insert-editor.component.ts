import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { StrokeTextComponent } from './stroke-text.component';
import { textOf } from './values';

type Params = MoveParams['insert'];

@Component({
  selector: 'ls-insert-editor',
  imports: [NumberFieldComponent, StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <ls-stroke-text label="Strokes" [text]="p.text" (changed)="set({ text: $event })" />
    <div class="row">
      <label class="field"
        >Where
        <select class="input" (change)="setKind($event)">
          <option value="end" [selected]="p.where.kind === 'end'">at the end</option>
          <option value="after" [selected]="p.where.kind === 'after'">after slot</option>
          <option value="every" [selected]="p.where.kind === 'every'">after every</option>
        </select>
      </label>
      @if (p.where.kind === 'after') {
        <div class="field">
          Slot
          <ls-number-field
            label="Slot"
            [least]="1"
            [most]="2048"
            [value]="p.where.slot"
            (changed)="set({ where: { kind: 'after', slot: $event } })"
          />
        </div>
      }
      @if (p.where.kind === 'every') {
        <div class="field">
          Slots
          <ls-number-field
            label="Slots"
            [least]="1"
            [most]="2048"
            [value]="p.where.slots"
            (changed)="set({ where: { kind: 'every', slots: $event } })"
          />
        </div>
      }
      <label class="field"
        >on
        <select class="input" aria-label="Grid of the added strokes" (change)="setGrid($event)">
          <option value="0" [selected]="!p.grid">the same grid</option>
          @for (g of grids(); track g.grid) {
            <option [value]="g.grid" [selected]="g.grid === p.grid">{{ g.name }}</option>
          }
        </select>
      </label>
    </div>
  `,
  styleUrl: './editor.css',
})
export class InsertEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly grids = computed(() => gridsOf(this.before().meter).map((grid) => ({ grid, name: gridName(grid) })));

  setKind(event: Event): void {
    switch (textOf(event)) {
      case 'after':
        return this.set({ where: { kind: 'after', slot: 1 } });
      case 'every':
        return this.set({ where: { kind: 'every', slots: 4 } });
      default:
        return this.set({ where: { kind: 'end' } });
    }
  }

  setGrid(event: Event): void {
    const grid = Number(textOf(event));
    const { text, where } = this.params();
    this.changed.emit(grid > 0 ? { text, where, grid } : { text, where });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
