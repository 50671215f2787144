import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { gridName, gridsOf } from '@core/time';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf, type Choice } from '../../../../widgets/choice';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { SelectComponent } from '../../../../widgets/select.component';
import { SelectionEditorComponent } from './selection-editor.component';

type Params = MoveParams['grid'];

/** What goes on the other grid, and whether its time stays. */
const WHATS = ['all', 'fill', 'part', 'within'] as const;
type What = (typeof WHATS)[number];
const WHAT_WORDS: Readonly<Record<What, string>> = {
  all: 'all of it, slower or faster',
  fill: 'all of it, in the same time',
  part: 'some slots, the rest moves up',
  within: 'a part, in the same time',
};
const BY_WORDS = { order: 'the strokes in order', place: 'each in its place' } as const;

@Component({
  selector: 'ls-grid-editor',
  imports: [ChipsComponent, NumberFieldComponent, SelectComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Subdivision"
      [dense]="true"
      [chips]="grids()"
      [chosen]="params().grid"
      (chose)="changed.emit({ ...params(), grid: $event })"
    />
    <div class="field">
      What
      <ls-select label="What" [options]="whats" [chosen]="what()" (chose)="setWhat($event)" />
    </div>
    @if (params().part; as part) {
      <div class="row">
        <div class="field">
          from
          <ls-number-field
            label="from"
            [least]="1"
            [most]="2048"
            [value]="part.from"
            (changed)="setPart({ from: $event, to: part.to, on: part.on })"
          />
        </div>
        <div class="field">
          to
          <ls-number-field
            label="to"
            [least]="1"
            [most]="2048"
            [value]="part.to"
            (changed)="setPart({ from: part.from, to: $event, on: part.on })"
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
            (change)="setPart({ from: part.from, to: part.to, on: onField.value.trim() })"
          />
        </label>
      </div>
    }
    @if (params().within; as within) {
      <ls-selection-editor
        [value]="within.select"
        [before]="before()"
        (changed)="setWithin({ select: $event, by: within.by })"
      />
      <ls-chips
        label="What it is filled with"
        [dense]="true"
        [chips]="bys"
        [chosen]="within.by"
        (chose)="setWithin({ select: within.select, by: $event })"
      />
    }
  `,
  styleUrl: './editor.css',
  styles: `
    .count {
      width: 90px;
    }
  `,
})
export class GridEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly whats = choicesOf(WHATS, (what) => WHAT_WORDS[what]);
  readonly bys = choicesOf(['order', 'place'] as const, (by) => BY_WORDS[by]);
  readonly grids = computed(() =>
    gridsOf(this.before().meter).map((grid): Choice<number> => ({ value: grid, words: gridName(grid) })),
  );
  readonly what = computed((): What => {
    const { part, within, fill } = this.params();
    return part ? 'part' : within ? 'within' : fill ? 'fill' : 'all';
  });

  setWhat(what: What): void {
    const { grid } = this.params();
    switch (what) {
      case 'all':
        return this.changed.emit({ grid });
      case 'fill':
        return this.changed.emit({ grid, fill: true });
      case 'part':
        return this.setPart({ from: 1, to: 1 });
      case 'within':
        return this.setWithin({ select: { is: 'beat', beats: ['last'] }, by: 'order' });
    }
  }

  /** Without a count the slots stay where they are, and the rest moves up behind them. */
  setPart({ from, to, on }: { from: number; to: number; on?: string | undefined }): void {
    this.changed.emit({ grid: this.params().grid, part: on ? { from, to, on } : { from, to } });
  }

  setWithin(within: NonNullable<Params['within']>): void {
    this.changed.emit({ grid: this.params().grid, within });
  }
}
