import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import type { Piece } from '@core/kit';
import { HAND_VOICES, VOICE, type Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { KitsRepo } from '../../data/kits.repo';
import { ChipsComponent, chipsOf } from '../../ui/chips.component';
import { KitPlanComponent } from '../../ui/kit-plan/kit-plan.component';
import { SelectorEditorComponent } from './selector-editor.component';
import { textOf, toggled } from './values';

type Params = MoveParams['voice'];

@Component({
  selector: 'ls-voice-editor',
  imports: [ChipsComponent, SelectorEditorComponent, KitPlanComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <ls-kit-plan
      class="plan"
      [kit]="kits.current()"
      [voices]="params().voices"
      [pressable]="true"
      label="Where it goes"
      (pressed)="pickPiece($event)"
    />
    <ls-chips
      label="Voices, taken in turn"
      [dense]="true"
      [chips]="voices"
      [chosen]="params().voices"
      (chose)="pick($event)"
    />
    <label class="field"
      >Under them
      <select class="input" (change)="under($event)">
        <option value="" [selected]="!params().under">nothing</option>
        <option value="K" [selected]="params().under === 'K'">kick</option>
        <option value="H" [selected]="params().under === 'H'">hi-hat foot</option>
      </select>
    </label>
  `,
  styleUrl: './editor.css',
  styles: `
    .plan {
      height: 150px;
    }
  `,
})
export class VoiceEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly kits = inject(KitsRepo);
  readonly voices = chipsOf(HAND_VOICES, (v) => VOICE[v].name);

  /** Voices are taken in the order they were pressed; the last one cannot be let go. */
  pick(voice: Voice): void {
    const voices = toggled(this.params().voices, voice);
    if (voices) this.set({ voices: voices.slice(0, 16) });
  }

  /**
   * A piece pressed on the drawing: its first voice for a hand. The only one chosen is changed for it, more are added
   * one by one.
   */
  pickPiece(piece: Piece): void {
    const voice = piece.voices.find((v) => VOICE[v].family !== 'foot');
    if (!voice) return;
    const { voices } = this.params();
    if (voices.length === 1 && !voices.includes(voice)) this.set({ voices: [voice] });
    else this.pick(voice);
  }

  under(event: Event): void {
    const { select, voices } = this.params();
    const foot = textOf(event);
    this.changed.emit(foot === 'K' || foot === 'H' ? { select, voices, under: foot } : { select, voices });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
