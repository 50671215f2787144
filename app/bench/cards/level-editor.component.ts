import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LEVELS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';

@Component({
  selector: 'ls-level-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="How high">
      @for (l of levels; track l) {
        <button type="button" [attr.aria-pressed]="params().level === l" (click)="changed.emit({ select: params().select, level: l })">
          {{ l }}
        </button>
      }
    </div>
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="changed.emit({ select: $event, level: params().level })" />
  `,
  styleUrl: './editor.css',
})
export class LevelEditorComponent {
  readonly params = input.required<MoveParams['level']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['level']>();
  readonly levels = [...LEVELS].reverse();
}
