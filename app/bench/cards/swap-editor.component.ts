import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LIMB_WORDS, LIMBS } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';

@Component({
  selector: 'ls-swap-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="changed.emit({ select: $event, limb: params().limb })" />
    <div class="chips" role="group" aria-label="Who plays them">
      @for (l of limbs; track l) {
        <button type="button" [attr.aria-pressed]="params().limb === l" (click)="changed.emit({ select: params().select, limb: l })">
          {{ l === 'other' ? 'other hand' : words[l] }}
        </button>
      }
    </div>
  `,
  styleUrl: './editor.css',
})
export class SwapEditorComponent {
  readonly params = input.required<MoveParams['swap']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['swap']>();
  readonly limbs = ['other' as const, ...LIMBS];
  readonly words = LIMB_WORDS;
}
