import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LEVELS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';
import { wholeOf } from './values';

@Component({
  selector: 'ls-level-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="chips" role="group" aria-label="How high">
      @for (l of levels; track l) {
        <button type="button" [attr.aria-pressed]="params().level === l" (click)="set({ level: l })">
          {{ l }}
        </button>
      }
    </div>
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <label class="field"
      >Displaced by slots
      <input class="input" type="number" min="-64" max="64" [value]="params().shift ?? 0" (change)="setShift($event)" />
    </label>
  `,
  styleUrl: './editor.css',
})
export class LevelEditorComponent {
  readonly params = input.required<MoveParams['level']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['level']>();
  readonly levels = [...LEVELS].reverse();

  setShift(event: Event): void {
    const shift = wholeOf(event, -64, 64);
    const { select, level } = this.params();
    this.changed.emit(shift === 0 ? { select, level } : { select, level, shift });
  }

  set(part: Partial<MoveParams['level']>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
