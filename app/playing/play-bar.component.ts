import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import type { Limb } from '@core/stroke';
import type { Mute } from '@core/pattern';
import type { ClickKind, CountKind } from '@core/playback';
import { Transport } from '../sound/transport.service';
import { LoudnessRepo } from '../storage/loudness.repo';
import { SelectComponent } from '../widgets/select.component';
import { TempoFieldComponent } from '../widgets/tempo-field.component';
import { CLICK_CHOICES } from './click-words';
import { HearingComponent } from './hearing.component';
import { EscDirective } from '../common/esc.directive';

/** Play, tempo, what is heard and the click. What a place has of its own stands between them. */
@Component({
  selector: 'ls-play-bar',
  imports: [EscDirective, FormsModule, HearingComponent, SelectComponent, Slider, TempoFieldComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  // What was handed to the audio clock since play was pressed, for those who check the engine.
  host: {
    '[attr.data-sounds]': 'transport.handover().sounds',
    '[attr.data-late]': 'transport.handover().late',
    '[attr.data-nearest]': 'transport.handover().nearest',
  },
  templateUrl: './play-bar.component.html',
  styleUrl: './play-bar.component.css',
})
export class PlayBarComponent {
  readonly transport = inject(Transport);
  private readonly loudness = inject(LoudnessRepo);
  readonly tempo = input.required<number>();
  readonly click = input.required<ClickKind>();
  readonly half = input(false);
  readonly counts = input<CountKind | null>(null);
  readonly mute = input.required<Mute>();
  /** Limbs that play in what sounds. */
  readonly limbs = input.required<readonly Limb[]>();
  /** Pieces that are struck, by their names. */
  readonly pieces = input<readonly string[]>([]);
  readonly toggled = output();
  readonly tempoChange = output<number>();
  readonly clickChange = output<ClickKind>();
  readonly halfChange = output<boolean>();
  readonly countsChange = output<CountKind | null>();
  readonly muteChange = output<Mute>();
  readonly hearing = signal(false);
  readonly clicks = CLICK_CHOICES.map((c) => ({ ...c, words: `Click: ${c.words}` }));
  readonly hearWords = computed(() => {
    const { limbs, roles, pieces = [] } = this.mute();
    const levels = Object.values(this.loudness.now());
    return limbs.length + roles.length + pieces.length === 0 && levels.every((l) => l === 1)
      ? 'Mix: all'
      : 'Mix: changed';
  });
}
