import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LIMB_WORDS, LIMBS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-swap-editor',
  imports: [ChipsComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selection-editor
      [value]="params().select"
      [before]="before()"
      (changed)="changed.emit({ select: $event, limb: params().limb })"
    />
    <ls-chips
      label="New limb"
      [dense]="true"
      [chips]="limbs"
      [chosen]="params().limb"
      (chose)="changed.emit({ select: params().select, limb: $event })"
    />
  `,
  styleUrl: './editor.css',
})
export class SwapEditorComponent {
  readonly params = input.required<MoveParams['swap']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['swap']>();
  readonly limbs = choicesOf(['other' as const, ...LIMBS], (l) => (l === 'other' ? 'other hand' : LIMB_WORDS[l]));
}
