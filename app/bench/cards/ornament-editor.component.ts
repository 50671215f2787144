import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { ORNAMENTS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';

@Component({
  selector: 'ls-ornament-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="Ornament">
      @for (o of ornaments; track o) {
        <button
          type="button"
          [attr.aria-pressed]="params().ornament === o"
          (click)="changed.emit({ select: params().select, ornament: o })"
        >
          {{ o }}
        </button>
      }
    </div>
    <ls-selector-editor
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
  readonly ornaments = [...ORNAMENTS, 'none' as const];
}
