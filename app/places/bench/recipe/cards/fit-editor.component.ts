import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { barTicks, beatTicks, countAt, parseCount } from '@core/time';
import { countingOf, partitions, slotsLong, type Pattern } from '@core/pattern';
import { applyMove, fitSlots, type MoveParams } from '@core/recipe';
import { SettingsRepo } from '../../../../storage/settings.repo';
import { ChipsComponent } from '../../../../widgets/chips.component';
import { choicesOf, type Choice } from '../../../../widgets/choice';
import { NumberFieldComponent } from '../../../../widgets/number-field.component';
import { StrokeTextComponent } from './stroke-text.component';
import { wholesOf } from './values';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['fit'];

/** As many singles as there is room for. */
function singles(slots: number): string {
  const many = slots > 0 && slots <= 64 ? slots : 3;
  return Array.from({ length: many }, (_, i) => (i % 2 === 0 ? 'R' : 'L')).join(' ');
}

@Component({
  selector: 'ls-fit-editor',
  imports: [ChipsComponent, NumberFieldComponent, StrokeTextComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row">
      <div class="field">
        Fill
        <ls-number-field
          label="How many bars or beats"
          [least]="1"
          [most]="mostOf(p)"
          [value]="amount()"
          (changed)="setAmount($event)"
        />
      </div>
      <div class="field">
        of
        <ls-select label="Bars or beats" [options]="units" [chosen]="unit()" (chose)="setUnit($event)" />
      </div>
    </div>
    <div class="row">
      <div class="field">
        from
        <ls-select
          label="Start count"
          [mono]="true"
          [options]="counts()"
          [chosen]="start()"
          (chose)="set({ start: $event })"
        />
      </div>
      <div class="field">
        to
        <ls-select
          label="Count of its last stroke"
          [mono]="true"
          [options]="ends()"
          [chosen]="end() ?? ''"
          (chose)="setEnd($event)"
        />
      </div>
    </div>
    <p class="mono sum">{{ sum() }}</p>
    <ls-chips
      label="How to close"
      [dense]="true"
      [chips]="closings()"
      [chosen]="p.close.kind"
      (chose)="closeBy($event)"
    />
    @if (p.close.kind === 'groups') {
      <label class="field"
        >Sizes allowed
        <input
          #sizesField
          class="input mono"
          type="text"
          [value]="sizes().join(' ')"
          (change)="setSizes(sizesField.value)"
        />
      </label>
      <ls-select
        label="Groups"
        [mono]="true"
        [options]="groupings()"
        [chosen]="grouping()"
        (chose)="pickGroups($event)"
      />
      <p class="quiet note">{{ choicesWords() }}</p>
    }
    @if (p.close.kind === 'strokes') {
      <ls-stroke-text label="Close with" [text]="p.close.text" (changed)="setEnding($event, p.close.whole === true)" />
      <label class="check"
        ><input
          type="checkbox"
          [checked]="p.close.whole === true"
          (change)="setEnding(p.close.text, p.close.whole !== true)"
        />Keep all of the ending</label
      >
    }
    <label class="check"
      ><input type="checkbox" [checked]="p.mirrored" (change)="set({ mirrored: !p.mirrored })" />Swap hands every
      repeat</label
    >
  `,
  styleUrl: './editor.css',
})
export class FitEditorComponent {
  private readonly settings = inject(SettingsRepo);
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly units = choicesOf(['bars', 'beats'] as const);
  readonly unit = computed(() => ('bars' in this.params().space ? 'bars' : 'beats'));
  readonly amount = computed(() => {
    const { space } = this.params();
    return 'bars' in space ? space.bars : space.beats;
  });
  private readonly counting = computed(() => countingOf(this.before(), this.settings.schools()));
  readonly start = computed(() => this.said(this.params().start));
  /** The count the last slot falls on; null where the space is filled to its end. */
  readonly end = computed(() => {
    const { end } = this.params();
    return end === undefined ? null : this.said(end);
  });
  /** Every count of a bar on the home grid, and those that are set. */
  readonly counts = computed(() => {
    const pattern = this.before();
    const slots = Math.min(64, Math.ceil(barTicks(pattern.meter) / pattern.grid));
    const counts = Array.from({ length: slots }, (_, i) => countAt(i * pattern.grid, this.counting()).text);
    const set = [this.start(), this.end()].filter((c) => c !== null && !counts.includes(c));
    return choicesOf([...set.filter((c) => c !== null), ...counts]);
  });
  readonly ends = computed(() => [{ value: '', words: 'the end' }, ...this.counts()]);
  /** Slots there are to fill. */
  readonly slots = computed(() => fitSlots(this.before(), this.params()) ?? 0);
  /** What the card comes to, as the phrase itself says it. */
  readonly sum = computed(() => {
    const entry = { id: 'fit', on: true, move: 'fit' as const, params: this.params() };
    const { findings } = applyMove(this.before(), entry, () => this.before());
    return findings.find((f) => f.code === 'fit')?.words ?? '';
  });
  /** Group sizes that are allowed: one less than the cell, the cell, one more. */
  readonly sizes = linkedSignal(() => {
    const cell = Math.round(slotsLong(this.before()));
    return [cell - 1, cell, cell + 1].filter((n) => n > 0 && n <= 64);
  });
  readonly choices = computed(() =>
    partitions(
      this.slots(),
      this.sizes(),
      Math.max(1, Math.round(beatTicks(this.before().meter) / this.before().grid)),
    ),
  );
  readonly groupings = computed(() => this.choices().best.map((g, i) => ({ value: i, words: g.join(' + ') })));
  readonly grouping = computed(() => {
    const { close } = this.params();
    const own = close.kind === 'groups' ? close.groups.join() : '';
    const found = this.choices().best.findIndex((g) => g.join() === own);
    return found < 0 ? null : found;
  });
  readonly choicesWords = computed(() => {
    const { best, found, complete, ranked } = this.choices();
    if (complete && best.length === found) return found === 1 ? 'The only way.' : `${found} ways, most even first.`;
    const all = `${complete ? '' : 'at least '}${found.toLocaleString('en')}`;
    return ranked
      ? `Showing ${best.length} of ${all}, most even first.`
      : `Showing the best ${best.length} found of ${all}.`;
  });

  readonly closings = computed((): readonly Choice<Params['close']['kind']>[] => [
    { value: 'cut', words: 'cut the last' },
    { value: 'rest', words: 'rest' },
    { value: 'strokes', words: 'strokes' },
    { value: 'groups', words: 'groups', off: this.choices().best.length === 0 },
  ]);

  /** Slots that whole repeats leave over. */
  readonly left = computed(() => Math.round(this.slots() % Math.max(1, slotsLong(this.before()))));

  closeBy(kind: Params['close']['kind']): void {
    if (kind === this.params().close.kind) return;
    switch (kind) {
      case 'cut':
      case 'rest':
        return this.setClose({ kind });
      case 'strokes':
        return this.setClose({ kind, text: singles(this.left()) });
      case 'groups':
        return this.pickGroups(0);
    }
  }

  mostOf({ space }: Params): number {
    return 'bars' in space ? 64 : 256;
  }

  setAmount(n: number): void {
    this.set({ space: 'bars' in this.params().space ? { bars: n } : { beats: n } });
  }

  setUnit(unit: 'bars' | 'beats'): void {
    const n = this.amount();
    this.set({ space: unit === 'beats' ? { beats: n } : { bars: Math.min(64, n) } });
  }

  setSizes(text: string): void {
    const sizes = wholesOf(text, 1, 64);
    if (sizes.length > 0) this.sizes.set(sizes);
  }

  pickGroups(i: number): void {
    const groups = this.choices().best[i];
    if (groups) this.setClose({ kind: 'groups', groups: [...groups] });
  }

  setEnding(text: string, whole: boolean): void {
    this.setClose({ kind: 'strokes', text, ...(whole ? { whole } : {}) });
  }

  setClose(close: Params['close']): void {
    this.set({ close });
  }

  setEnd(end: string): void {
    const { space, start, mirrored, close } = this.params();
    this.changed.emit({ space, start, mirrored, close, ...(end === '' ? {} : { end }) });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }

  /** A count as the user says it; as it was written where it is no count of this pattern. */
  private said(text: string): string {
    const tick = parseCount(text, this.counting());
    return tick === null ? text : countAt(tick, this.counting()).text;
  }
}
