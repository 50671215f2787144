import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';

@Component({
  selector: 'ls-drop-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ls-selector-editor
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
