import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { HAND_VOICES, VOICE, type Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';
import { textOf, toggled } from './values';

type Params = MoveParams['voice'];

@Component({
  selector: 'ls-voice-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
    <div class="chips" role="group" aria-label="Voices, taken in turn">
      @for (v of voices; track v) {
        <button type="button" [attr.aria-pressed]="params().voices.includes(v)" (click)="pick(v)">{{ facts[v].name }}</button>
      }
    </div>
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
})
export class VoiceEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly voices = HAND_VOICES;
  readonly facts = VOICE;

  /** Voices are taken in the order they were pressed; the last one cannot be let go. */
  pick(voice: Voice): void {
    const voices = toggled(this.params().voices, voice);
    if (voices) this.set({ voices: voices.slice(0, 16) });
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
