import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { LEVELS, LIMBS, LIMB_WORDS, type Level, type Limb } from '@core/stroke';
import { count } from '@core/base';
import { nth } from '@core/base';
import type { Pattern } from '@core/pattern';
import { chooses, type Facets, facetsOf, select, selectionWords, type Selection } from '@core/selection';
import { readChoice } from '@core/language';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { type Choice, choicesOf } from '../../../../widgets/choice';
import { countsOf, toggled } from './values';
import { SelectComponent } from '../../../../widgets/select.component';

const MOST_PLACES = 16;

/**
 * Which strokes a move acts on: limbs, levels, places of the cell, every n-th, counts, and in words, with how many
 * strokes that is. What chips cannot say is said in words alone.
 */
@Component({
  selector: 'ls-selection-editor',
  imports: [ChipsComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (facets(); as s) {
      <div class="chips">
        <ls-chips label="Limbs" [dense]="true" [chips]="limbs()" [chosen]="s.limbs ?? []" (chose)="setLimb($event)" />
        <ls-chips
          label="Stick heights"
          [dense]="true"
          [chips]="levels"
          [chosen]="s.levels ?? []"
          (chose)="setLevel($event)"
        />
      </div>
      <ls-chips
        label="Places of the group"
        [dense]="true"
        [mono]="true"
        [chips]="places()"
        [chosen]="s.places ?? []"
        (chose)="setPlace($event)"
      />
      <div class="row">
        <div class="field">
          every
          <ls-select label="every" [options]="everies" [chosen]="s.every?.n ?? 0" (chose)="setEvery($event)" />
        </div>
        <label class="field"
          >on counts
          <input
            #countsField
            class="input mono"
            type="text"
            placeholder="2, 4&"
            [value]="counts()"
            (change)="setCounts(countsField.value)"
          />
        </label>
      </div>
    }
    <label class="field"
      >in words: {{ chosen() }}
      <input
        #wordsField
        class="input"
        type="text"
        [value]="words()"
        [attr.aria-invalid]="problem() !== null"
        (change)="setWords(wordsField.value)"
      />
    </label>
    @if (problem(); as p) {
      <p class="wrong" role="status">{{ p }}</p>
    }
  `,
  styleUrl: './editor.css',
  styles: `
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
    }
  `,
})
export class SelectionEditorComponent {
  private readonly settings = inject(SettingsRepo);
  readonly value = input.required<Selection>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Selection>();
  /** What chips and fields can set; null where the words say more than they can. */
  readonly facets = computed(() => facetsOf(this.value()));
  readonly everies = choicesOf([0, 2, 3, 4, 5, 6, 7, 8], (n) => (n === 0 ? 'slot' : `${nth(n)} slot`));
  readonly levels = choicesOf(LEVELS, (l) => `${l}s`);
  readonly limbs = computed(() =>
    LIMBS.filter((l) => this.before().strokes.some((s) => s.limb === l) || this.facets()?.limbs?.includes(l)).map(
      (l): Choice<Limb> => ({
        value: l,
        words: l,
        name: LIMB_WORDS[l],
      }),
    ),
  );
  readonly places = computed(() => {
    const longest = this.before().strokes.reduce((most, s) => Math.max(most, s.from.index + 1), 1);
    return Array.from({ length: Math.min(MOST_PLACES, longest) }, (_, i): Choice<number> => {
      const n = i + 1;
      return { value: n, words: String(n), name: `place ${n} of every group` };
    });
  });
  readonly counts = computed(() => this.facets()?.counts?.join(', ') ?? '');
  readonly words = computed(() => selectionWords(this.value(), this.before()));
  readonly chosen = computed(() => count(select(this.before(), this.value()).length, 'stroke'));
  readonly problem = linkedSignal<string, string | null>({ source: this.words, computation: () => null });

  setLimb(limb: Limb): void {
    this.set('limbs', toggled(this.facets()?.limbs, limb));
  }

  setLevel(level: Level): void {
    this.set('levels', toggled(this.facets()?.levels, level));
  }

  setPlace(n: number): void {
    this.set(
      'places',
      toggled(this.facets()?.places, n)?.sort((a, b) => a - b),
    );
  }

  setEvery(n: number): void {
    this.set('every', n === 0 ? undefined : { n, offset: 0, of: 'slot' });
  }

  setCounts(text: string): void {
    const counts = countsOf(text);
    this.set('counts', counts.length > 0 ? counts : undefined);
  }

  setWords(text: string): void {
    const read = readChoice(text, this.before(), this.settings.schools());
    this.problem.set(read.ok ? null : read.words);
    if (read.ok) this.changed.emit(read.select);
  }

  /** A field that restricts nothing is absent, so that equal selections are equal JSON. */
  private set<K extends keyof Facets>(key: K, value: Facets[K] | undefined): void {
    const rest = Object.fromEntries(Object.entries(this.facets() ?? {}).filter(([k]) => k !== key)) as Facets;
    this.changed.emit(chooses(value === undefined ? rest : { ...rest, [key]: value }));
  }
}
