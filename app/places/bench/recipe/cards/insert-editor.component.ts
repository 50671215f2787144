import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { SelectionEditorComponent } from './selection-editor.component';
import { StrokeTextComponent } from './stroke-text.component';
import { choicesOf } from '../../../../widgets/choice';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['insert'];

@Component({
  selector: 'ls-insert-editor',
  imports: [NumberFieldComponent, SelectionEditorComponent, StrokeTextComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <ls-stroke-text label="Strokes" [text]="p.text" (changed)="set({ text: $event })" />
    <div class="row">
      <div class="field">
        Where
        <ls-select label="Where" [options]="wheres" [chosen]="p.where.kind" (chose)="setKind($event)" />
      </div>
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
      <div class="field">
        on
        <ls-select
          label="Subdivision of the added strokes"
          [options]="grids()"
          [chosen]="p.grid ?? 0"
          (chose)="setGrid($event)"
        />
      </div>
    </div>
    @if (p.where.kind === 'behind') {
      <ls-selection-editor
        [value]="p.where.select"
        [before]="before()"
        (changed)="set({ where: { kind: 'behind', select: $event } })"
      />
    }
  `,
  styleUrl: './editor.css',
})
export class InsertEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly wheres = [
    { value: 'end', words: 'at the end' },
    { value: 'start', words: 'in front' },
    { value: 'after', words: 'after slot' },
    { value: 'every', words: 'after every' },
    { value: 'behind', words: 'behind strokes' },
  ] as const;
  readonly grids = computed(() => [
    { value: 0, words: 'the same subdivision' },
    ...choicesOf(gridsOf(this.before().meter).map(Number), gridName),
  ]);

  setKind(kind: Params['where']['kind']): void {
    switch (kind) {
      case 'after':
        return this.set({ where: { kind: 'after', slot: 1 } });
      case 'every':
        return this.set({ where: { kind: 'every', slots: 4 } });
      case 'behind':
        return this.set({ where: { kind: 'behind', select: { is: 'part', part: 'second-of-double' } } });
      case 'end':
      case 'start':
        return this.set({ where: { kind } });
    }
  }

  setGrid(grid: number): void {
    const { text, where } = this.params();
    this.changed.emit(grid > 0 ? { text, where, grid } : { text, where });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
