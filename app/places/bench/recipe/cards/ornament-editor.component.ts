import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { ORNAMENTS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-ornament-editor',
  imports: [ChipsComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Ornament"
      [dense]="true"
      [chips]="ornaments"
      [chosen]="params().ornament"
      (chose)="changed.emit({ select: params().select, ornament: $event })"
    />
    <ls-selection-editor
      [value]="params().select"
      [before]="before()"
      (changed)="changed.emit({ select: $event, ornament: params().ornament })"
    />
  `,
  styleUrl: './editor.css',
})
export class OrnamentEditorComponent {
  readonly params = input.required<MoveParams['ornament']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['ornament']>();
  readonly ornaments = choicesOf([...ORNAMENTS, 'none' as const]);
}
