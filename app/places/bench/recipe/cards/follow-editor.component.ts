import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { isHand, LEVELS, LIMB_WORDS, LIMBS, usualVoice, type Limb } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { KitsRepo } from '../../../../storage/kits.repo';
import { choicesOf } from '../../../../widgets/choice';
import { SelectComponent } from '../../../../widgets/select.component';
import { SelectionEditorComponent } from './selection-editor.component';

type Params = MoveParams['follow'];

@Component({
  selector: 'ls-follow-editor',
  imports: [SelectComponent, SelectionEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <div class="field">
        Plays along
        <ls-select label="Plays along" [options]="limbs" [chosen]="params().limb" (chose)="setLimb($event)" />
      </div>
      @if (isHand(params().limb)) {
        <div class="field">
          on the
          <ls-select label="on the" [options]="voices()" [chosen]="params().voice" (chose)="set({ voice: $event })" />
        </div>
      }
    </div>
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <div class="row">
      <div class="field">
        Stick height
        <ls-select label="Stick height" [options]="levels" [chosen]="params().level" (chose)="set({ level: $event })" />
      </div>
      <div class="field">
        Where it already plays
        <ls-select
          label="Where it already plays"
          [options]="busy"
          [chosen]="params().busy"
          (chose)="set({ busy: $event })"
        />
      </div>
    </div>
  `,
  styleUrl: './editor.css',
})
export class FollowEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  private readonly kits = inject(KitsRepo);
  readonly isHand = isHand;
  readonly limbs = choicesOf(LIMBS, (l) => LIMB_WORDS[l]);
  readonly voices = computed(() => this.kits.voicesFor([this.params().voice]));
  readonly levels = choicesOf(['same' as const, ...LEVELS], (l) => (l === 'same' ? 'as what it follows' : l));
  readonly busy = choicesOf(['goes', 'stays'] as const, (b) => (b === 'goes' ? 'it goes there' : 'it stays'));

  setLimb(limb: Limb): void {
    const voice = isHand(limb) ? (isHand(this.params().limb) ? this.params().voice : 'hat-closed') : usualVoice(limb);
    this.set({ limb, voice });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
