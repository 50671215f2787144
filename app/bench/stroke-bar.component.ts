import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  HAND_VOICES,
  LEVELS,
  LIMB_WORDS,
  ORNAMENTS,
  VOICE,
  VOICES,
  type Level,
  type Limb,
  type Ornament,
} from '@core/stroke';
import { BenchStore } from './bench.store';
import { CursorStore } from './cursor.store';
import { TypingStore } from './typing.store';
import { textOf } from './cards/values';

const LIMBS: readonly Limb[] = ['R', 'L', 'K', 'H'];

/** What stands under the cursor, in words, and buttons that do what the keys do: for the mouse and the finger. */
@Component({
  selector: 'ls-stroke-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stroke-bar.component.html',
  styleUrl: './stroke-bar.component.css',
})
export class StrokeBarComponent {
  readonly cursor = inject(CursorStore);
  readonly typing = inject(TypingStore);
  private readonly bench = inject(BenchStore);
  readonly limbs = LIMBS;
  readonly levels = LEVELS;
  readonly limbWords = LIMB_WORDS;
  readonly voices = HAND_VOICES.map((v) => ({ voice: v, name: VOICE[v].name }));
  readonly ornaments = ORNAMENTS;
  readonly problem = signal<string | null>(null);

  /** The strokes that the buttons act on. */
  private readonly strokes = computed(() => {
    const pattern = this.bench.build()?.pattern;
    return this.cursor.chosen().flatMap((i) => pattern?.strokes[i] ?? []);
  });
  readonly active = computed(() => this.cursor.at() !== null || this.cursor.hasSelection());
  readonly none = computed(() => this.strokes().length === 0);
  readonly handVoice = computed(() => this.strokes().find((s) => s.limb === 'R' || s.limb === 'L')?.voice ?? null);
  readonly ornament = computed(() => this.strokes()[0]?.ornament ?? '');

  has(limb: Limb): boolean {
    return this.strokes().some((s) => s.limb === limb);
  }

  is(level: Level): boolean {
    const own = this.strokes();
    return own.length > 0 && own.every((s) => s.level === level);
  }

  setVoice(event: Event): void {
    const voice = VOICES.find((v) => v === textOf(event));
    if (voice) this.cursor.voice(voice);
  }

  setOrnament(event: Event): void {
    const found = ORNAMENTS.find((o: Ornament) => o === textOf(event));
    this.cursor.ornate(found ?? null);
  }

  choose(event: Event): void {
    this.problem.set(this.cursor.chooseWords(textOf(event)));
  }
}
