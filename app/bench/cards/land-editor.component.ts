import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { HAND_VOICES, VOICE } from '@core/stroke';
import type { MoveParams } from '@core/recipe';
import { textOf } from './values';

type Params = MoveParams['land'];

@Component({
  selector: 'ls-land-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <label class="field"
        >On the next 1
        <select class="input" (change)="setVoice($event)">
          <option value="" [selected]="!params().voice">no hand</option>
          @for (v of voices; track v) {
            <option [value]="v" [selected]="v === params().voice">{{ facts[v].name }}</option>
          }
        </select>
      </label>
      <label class="field"
        >Hand
        <select class="input" (change)="setHand($event)">
          <option value="R" [selected]="params().hand === 'R'">right</option>
          <option value="L" [selected]="params().hand === 'L'">left</option>
        </select>
      </label>
    </div>
    <label class="check"
      ><input type="checkbox" [checked]="params().kick" (change)="set({ kick: !params().kick })" />Kick with it</label
    >
  `,
  styleUrl: './editor.css',
})
export class LandEditorComponent {
  readonly params = input.required<Params>();
  readonly changed = output<Params>();
  readonly voices = HAND_VOICES;
  readonly facts = VOICE;

  setVoice(event: Event): void {
    const voice = HAND_VOICES.find((v) => v === textOf(event));
    const { hand, kick } = this.params();
    this.changed.emit(voice ? { voice, hand, kick } : { hand, kick });
  }

  setHand(event: Event): void {
    this.set({ hand: textOf(event) === 'L' ? 'L' : 'R' });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
