import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import type { Choice } from '../../../../widgets/choice';

type Params = MoveParams['rate'];

@Component({
  selector: 'ls-rate-editor',
  imports: [ChipsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips label="New length" [dense]="true" [chips]="rates" [chosen]="rate()" (chose)="changed.emit($event)" />
  `,
  styleUrl: './editor.css',
})
export class RateEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly rates: readonly Choice<Params>[] = [
    { words: 'a third', value: { times: 1, by: 3 } },
    { words: 'half', value: { times: 1, by: 2 } },
    { words: 'two thirds', value: { times: 2, by: 3 } },
    { words: 'one and a half', value: { times: 3, by: 2 } },
    { words: 'twice', value: { times: 2, by: 1 } },
    { words: 'three times', value: { times: 3, by: 1 } },
  ];
  readonly rate = computed(() => {
    const { times, by } = this.params();
    return this.rates.find(({ value }) => value.times === times && value.by === by)?.value ?? this.params();
  });
}
