import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-only-editor',
  imports: [SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selection-editor
      [value]="params().select"
      [before]="before()"
      (changed)="changed.emit({ ...params(), select: $event })"
    />
    <label class="check"
      ><input
        type="checkbox"
        [checked]="params().stays === true"
        (change)="changed.emit(params().stays ? { select: params().select } : { ...params(), stays: true })"
      />It stays on its count</label
    >
  `,
  styleUrl: './editor.css',
})
export class OnlyEditorComponent {
  readonly params = input.required<MoveParams['only']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['only']>();
}
