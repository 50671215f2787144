import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { KitsRepo } from '../../../../storage/kits.repo';
import type { Choice } from '../../../../widgets/choice';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['land'];

@Component({
  selector: 'ls-land-editor',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <div class="field">
        On the next 1
        <ls-select
          label="On the next 1"
          [options]="voices()"
          [chosen]="params().voice ?? ''"
          (chose)="setVoice($event)"
        />
      </div>
      <div class="field">
        Hand
        <ls-select label="Hand" [options]="hands" [chosen]="params().hand" (chose)="set({ hand: $event })" />
      </div>
    </div>
    <label class="check"
      ><input type="checkbox" [checked]="params().kick" (change)="set({ kick: !params().kick })" />Kick with it</label
    >
  `,
  styleUrl: './editor.css',
})
export class LandEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly hands = [
    { value: 'R', words: 'right' },
    { value: 'L', words: 'left' },
  ] as const;
  private readonly kits = inject(KitsRepo);
  readonly voices = computed((): readonly Choice<Voice | ''>[] => {
    const { voice } = this.params();
    return [{ value: '', words: 'no hand' }, ...this.kits.voicesFor(voice ? [voice] : [])];
  });

  setVoice(voice: Voice | ''): void {
    const { hand, kick } = this.params();
    this.changed.emit(voice !== '' ? { voice, hand, kick } : { hand, kick });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
