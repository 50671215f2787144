import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Piece } from '@core/kit';
import { VOICE, type Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { KitsRepo } from '../../../../storage/kits.repo';
import { ChipsComponent } from '../../../../widgets/chips.component';
import type { Choice } from '../../../../widgets/choice';
import { KitPlanComponent } from '../../../../drawings/kit-plan/kit-plan.component';
import { SelectionEditorComponent } from './selection-editor.component';
import { toggled } from './values';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['voice'];

@Component({
  selector: 'ls-voice-editor',
  imports: [ChipsComponent, SelectionEditorComponent, KitPlanComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <ls-kit-plan
      class="plan"
      [kit]="kits.current()"
      [voices]="params().voices"
      [pressable]="true"
      label="Plays on"
      (pressed)="pickPiece($event)"
    />
    <ls-chips
      label="Pieces, in turn"
      [dense]="true"
      [chips]="voices()"
      [chosen]="params().voices"
      (chose)="pick($event)"
    />
    <div class="field">
      Foot underneath
      <ls-select label="Foot underneath" [options]="feet" [chosen]="params().under ?? 'none'" (chose)="under($event)" />
    </div>
    <div class="field">
      Grace strokes
      <ls-select
        label="Grace strokes"
        [options]="graces"
        [chosen]="params().graces ?? 'hand'"
        (chose)="keepGraces($event)"
      />
    </div>
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
  readonly voices = computed(() => this.kits.voicesFor(this.params().voices));

  readonly feet: readonly Choice<'K' | 'J' | 'H' | 'none'>[] = [
    { value: 'none', words: 'nothing' },
    { value: 'K', words: 'kick' },
    { value: 'J', words: 'second kick' },
    { value: 'H', words: 'hi-hat foot' },
  ];

  readonly graces: readonly Choice<'stay' | 'go' | 'hand'>[] = [
    { value: 'hand', words: 'where their hand is' },
    { value: 'stay', words: 'stay on the drum' },
    { value: 'go', words: 'go with the stroke' },
  ];

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

  under(foot: 'K' | 'J' | 'H' | 'none'): void {
    const { under: _, ...rest } = this.params();
    this.changed.emit(foot !== 'none' ? { ...rest, under: foot } : rest);
  }

  keepGraces(how: 'stay' | 'go' | 'hand'): void {
    const { graces: _, ...rest } = this.params();
    this.changed.emit(how === 'hand' ? rest : { ...rest, graces: how });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
