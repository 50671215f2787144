import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-drop-editor',
  imports: [SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ls-selection-editor
    [value]="params().select"
    [before]="before()"
    (changed)="changed.emit({ select: $event })"
  />`,
  styleUrl: './editor.css',
})
export class DropEditorComponent {
  readonly params = input.required<MoveParams['drop']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['drop']>();
}
