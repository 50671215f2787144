import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { StrokeTextComponent } from './stroke-text.component';

type Params = MoveParams['pickup'];

@Component({
  selector: 'ls-pickup-editor',
  imports: [StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-stroke-text
      label="Strokes before the 1"
      [text]="params().text"
      (changed)="changed.emit({ ...params(), text: $event })"
    />
  `,
  styleUrl: './editor.css',
})
export class PickupEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
}
