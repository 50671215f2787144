import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { ORNAMENTS, SAME_HAND } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf } from '../../../../widgets/choice';
import { SelectionEditorComponent } from './selection-editor.component';

@Component({
  selector: 'ls-ornament-editor',
  imports: [ChipsComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-chips
      label="Ornament"
      [dense]="true"
      [chips]="ornaments"
      [chosen]="params().ornament"
      (chose)="change({ ornament: $event })"
    />
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="change({ select: $event })" />
    @if (hasGraces()) {
      <label class="check"
        ><input type="checkbox" [checked]="params().by === 'same-hand'" (change)="turnHand()" />By the same hand</label
      >
    }
  `,
  styleUrl: './editor.css',
})
export class OrnamentEditorComponent {
  readonly params = input.required<MoveParams['ornament']>();
  readonly before = input.required<Pattern>();
  readonly changed = output<MoveParams['ornament']>();
  readonly ornaments = choicesOf([...ORNAMENTS, 'none' as const]);
  /** A flam takes both hands, and a buzz only one. */
  readonly hasGraces = computed(() => ['drag', 'ruff'].includes(this.params().ornament));

  turnHand(): void {
    const { by, ...rest } = this.params();
    this.changed.emit(by ? rest : { ...rest, by: SAME_HAND });
  }

  change(part: Partial<MoveParams['ornament']>): void {
    const next = { ...this.params(), ...part };
    const { by: _, ...rest } = next;
    this.changed.emit(['drag', 'ruff'].includes(next.ornament) ? next : rest);
  }
}
