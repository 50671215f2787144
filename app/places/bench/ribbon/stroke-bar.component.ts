import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Tooltip } from 'primeng/tooltip';
import { countRef } from '@core/pattern';
import { offerOf } from '@core/recipe';
import { LEVELS, LIMB_WORDS, ORNAMENTS, type Level, type Limb, type Ornament } from '@core/stroke';
import { KitsRepo } from '../../../storage/kits.repo';
import { BenchStore } from '../document/bench.store';
import { RepeatsStore } from '../document/repeats.store';
import { CursorStore } from './cursor.store';
import { TypingStore } from './typing.store';
import { choicesOf, type Choice } from '../../../widgets/choice';
import { SelectComponent } from '../../../widgets/select.component';
import { TermComponent } from '../../../guide/term.component';

const LIMBS: readonly Limb[] = ['R', 'L', 'K', 'H'];

/** What stands under the cursor, in words, and buttons that do what the keys do: for the mouse and the finger. */
@Component({
  selector: 'ls-stroke-bar',
  imports: [TermComponent, Tooltip, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stroke-bar.component.html',
  styleUrl: './stroke-bar.component.css',
})
export class StrokeBarComponent {
  readonly cursor = inject(CursorStore);
  readonly typing = inject(TypingStore);
  readonly repeats = inject(RepeatsStore);
  private readonly bench = inject(BenchStore);
  readonly limbs = LIMBS;
  readonly levels = LEVELS;
  readonly limbWords = LIMB_WORDS;
  private readonly kits = inject(KitsRepo);
  readonly voices = computed(() => this.kits.voicesFor(this.strokes().map((s) => s.voice)));
  readonly ornaments: readonly Choice<Ornament | 'plain'>[] = choicesOf(['plain', ...ORNAMENTS] as const);
  readonly problem = signal<string | null>(null);

  /** The strokes that the buttons act on. */
  private readonly strokes = computed(() => {
    const pattern = this.bench.build()?.pattern;
    return this.cursor.chosen().flatMap((i) => pattern?.strokes[i] ?? []);
  });
  readonly active = computed(() => this.cursor.at() !== null || this.cursor.hasSelection());
  readonly none = computed(() => this.strokes().length === 0);
  readonly handVoice = computed(() => this.strokes().find((s) => s.limb === 'R' || s.limb === 'L')?.voice ?? null);
  readonly ornament = computed(() => this.strokes()[0]?.ornament ?? 'plain');

  /** Whether a limb plays in all chosen places. */
  has(limb: Limb): boolean {
    const strokes = this.bench.build()?.pattern.strokes ?? [];
    const places = this.cursor.places();
    return places.length > 0 && places.every((at) => strokes.some((s) => s.at === at && s.limb === limb));
  }

  is(level: Level): boolean {
    const own = this.strokes();
    return own.length > 0 && own.every((s) => s.level === level);
  }

  /** Where the beat could start again: the cursor's count, but not where it begins anyway. */
  readonly restarts = computed(() => {
    const pattern = this.bench.build()?.pattern;
    const at = this.cursor.at();
    return pattern && at !== null && at > 0 && at < pattern.length ? countRef(pattern, at) : null;
  });

  /** The beat starts again at the cursor, as a move of the recipe. */
  startAgain(): void {
    const at = this.restarts();
    if (at === null) return;
    const taken = this.bench.take(offerOf('restart', { at, until: 'bar' }).entry);
    this.problem.set(taken === null ? 'The recipe is full. Remove a move first.' : null);
  }

  choose(text: string): void {
    this.problem.set(this.cursor.chooseWords(text));
  }
}
