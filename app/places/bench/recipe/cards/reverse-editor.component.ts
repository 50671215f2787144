import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';

@Component({
  selector: 'ls-reverse-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<label class="check"
    ><input
      type="checkbox"
      [checked]="params().by === 'group'"
      (change)="changed.emit(params().by ? {} : { by: 'group' })"
    />Every group by itself</label
  >`,
  styleUrl: './editor.css',
})
export class ReverseEditorComponent {
  readonly params = input.required<MoveParams['reverse']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['reverse']>();
}
