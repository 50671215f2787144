import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import { LINEAR_WAYS, type LinearWay, type MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';

const WORDS: Readonly<Record<LinearWay, string>> = {
  hands: 'the hands rest',
  feet: 'the feet rest',
  later: 'the foot comes later',
};

@Component({
  selector: 'ls-linear-editor',
  imports: [ChipsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Where a foot and a hand fall together"
      [dense]="true"
      [chips]="ways"
      [chosen]="params().give"
      (chose)="changed.emit({ give: $event })"
    />
  `,
  styleUrl: './editor.css',
})
export class LinearEditorComponent {
  readonly params = input.required<MoveParams['linear']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['linear']>();
  readonly ways = choicesOf([...LINEAR_WAYS], (way) => WORDS[way]);
}
