import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { CLICK_KINDS } from '@core/playback';
import { LIMB_WORDS, LIMBS } from '@core/stroke';
import type { Role } from '@core/pattern';
import { Transport } from '../audio/transport.service';
import { LoudnessRepo } from '../data/loudness.repo';
import { ChipsComponent, chipsOf, type Chip } from '../ui/chips.component';
import { CLICK_WORDS } from '../ui/click-words';
import { LoudnessComponent } from '../ui/loudness.component';
import { TempoFieldComponent } from '../ui/tempo-field.component';
import { BenchStore } from './bench.store';
import { textOf } from './cards/values';
import { CursorStore } from './cursor.store';
import { SoundStore } from './sound.store';

const ONE_KICK = LIMBS.filter((l) => l !== 'J');
const ROLES: readonly Chip<Role>[] = [
  { value: 'primary', words: 'groove' },
  { value: 'timekeeping', words: 'timekeeping' },
  { value: 'texture', words: 'texture' },
];

/** Play, tempo, loop, what is heard and the click, at the foot of the Bench. */
@Component({
  selector: 'ls-play-bar',
  imports: [ChipsComponent, FormsModule, Slider, LoudnessComponent, TempoFieldComponent],
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
  readonly store = inject(BenchStore);
  readonly sound = inject(SoundStore);
  readonly cursor = inject(CursorStore);
  readonly transport = inject(Transport);
  readonly toggled = output();
  readonly loudness = inject(LoudnessRepo);
  readonly hearing = signal(false);
  readonly clicks = CLICK_KINDS.map((kind) => ({ kind, words: `Click: ${CLICK_WORDS[kind]}` }));
  /** A second kick foot stands among them only where there is one. */
  readonly limbs = computed(() => {
    const second = this.sound.pattern()?.strokes.some((s) => s.limb === 'J') ?? false;
    return chipsOf(second ? LIMBS : ONE_KICK, (l) => LIMB_WORDS[l]);
  });
  readonly heardLimbs = computed(() => LIMBS.filter((l) => !this.sound.mute().limbs.includes(l)));
  readonly roles = ROLES;
  readonly heardRoles = computed(() => ROLES.map((r) => r.value).filter((r) => !this.sound.mute().roles.includes(r)));

  setClick(event: Event): void {
    const kind = CLICK_KINDS.find((k) => k === textOf(event));
    if (kind) this.sound.click.set(kind);
  }

  hearWords(): string {
    const { limbs, roles } = this.sound.mute();
    const levels = Object.values(this.loudness.now());
    return limbs.length + roles.length === 0 && levels.every((l) => l === 1) ? 'Hear: all' : 'Hear: some';
  }
}
