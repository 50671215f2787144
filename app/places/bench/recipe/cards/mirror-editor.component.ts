import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';

@Component({
  selector: 'ls-mirror-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<label class="check"
    ><input type="checkbox" [checked]="params().feet" (change)="changed.emit({ feet: !params().feet })" />The kick feet
    too</label
  >`,
  styleUrl: './editor.css',
})
export class MirrorEditorComponent {
  readonly params = input.required<MoveParams['mirror']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['mirror']>();
}
