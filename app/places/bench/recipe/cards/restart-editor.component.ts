import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';

@Component({
  selector: 'ls-restart-editor',
  imports: [ChipsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="field"
      >start again on
      <input
        #atField
        class="input mono"
        type="text"
        placeholder="a count: 3, 3e, 2:1"
        maxlength="16"
        [value]="params().at"
        (change)="setAt(atField.value.trim())"
      />
    </label>
    <ls-chips
      label="How long"
      [dense]="true"
      [chips]="ends"
      [chosen]="params().until"
      (chose)="changed.emit({ at: params().at, until: $event })"
    />
  `,
  styleUrl: './editor.css',
})
export class RestartEditorComponent {
  readonly params = input.required<MoveParams['restart']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['restart']>();
  readonly ends = choicesOf(['bar', 'end'] as const, (e) =>
    e === 'bar' ? 'to the end of that bar' : 'to the end of the phrase',
  );

  setAt(at: string): void {
    if (at !== '') this.changed.emit({ at, until: this.params().until });
  }
}
