import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { barTicks, beatTicks, countAt, parseCount } from '@core/time';
import { countingOf, fitSum, groupSum, partitions, slotsLong, type Pattern } from '@core/pattern';
import { fitSlots, type MoveParams } from '@core/recipe';
import { SettingsRepo } from '../../data/settings.repo';
import { ChipsComponent, type Chip } from '../../ui/chips.component';
import { NumberFieldComponent } from '../../ui/number-field.component';
import { StrokeTextComponent } from './stroke-text.component';
import { textOf, wholeOf, wholesOf } from './values';

type Params = MoveParams['fit'];

@Component({
  selector: 'ls-fit-editor',
  imports: [ChipsComponent, NumberFieldComponent, StrokeTextComponent],
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
      <label class="field"
        >of
        <select class="input" (change)="setUnit($event)" aria-label="Bars or beats">
          <option value="bars" [selected]="'bars' in p.space">bars</option>
          <option value="beats" [selected]="'beats' in p.space">beats</option>
        </select>
      </label>
    </div>
    <div class="row">
      <label class="field"
        >from
        <select class="input" (change)="set({ start: text($event) })" aria-label="Start count">
          @for (c of counts(); track c) {
            <option [value]="c" [selected]="c === start()">{{ c }}</option>
          }
        </select>
      </label>
      <label class="field"
        >to
        <select class="input" (change)="setEnd(text($event))" aria-label="Count it ends on">
          <option value="" [selected]="end() === null">the end</option>
          @for (c of counts(); track c) {
            <option [value]="c" [selected]="c === end()">{{ c }}</option>
          }
        </select>
      </label>
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
        <input class="input mono" type="text" [value]="sizes().join(' ')" (change)="setSizes($event)" />
      </label>
      <select class="input mono" aria-label="Groups" (change)="pickGroups(whole($event, 0, 1000))">
        @for (g of choices().best; track $index; let i = $index) {
          <option [value]="i" [selected]="g.join() === p.close.groups.join()">{{ g.join(' + ') }}</option>
        }
      </select>
      <p class="quiet note">{{ choicesWords() }}</p>
    }
    @if (p.close.kind === 'strokes') {
      <ls-stroke-text
        label="Close with"
        [text]="p.close.text"
        (changed)="setClose({ kind: 'strokes', text: $event })"
      />
    }
    <label class="check"
      ><input type="checkbox" [checked]="p.mirrored" (change)="set({ mirrored: !p.mirrored })" />Swap hands on every
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
  readonly text = textOf;
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
    return [...[this.start(), this.end()].filter((c) => c !== null && !counts.includes(c)), ...counts];
  });
  readonly whole = wholeOf;
  /** Slots there are to fill. */
  readonly slots = computed(() => fitSlots(this.before(), this.params()) ?? 0);
  readonly sum = computed(() => {
    const { close } = this.params();
    return close.kind === 'groups'
      ? groupSum(this.slots(), close.groups)
      : (fitSum(this.slots(), slotsLong(this.before()))?.text ?? '');
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
  readonly choicesWords = computed(() => {
    const { best, found, complete } = this.choices();
    if (complete && best.length === found) return found === 1 ? 'The only way.' : `${found} ways, the evenest first.`;
    return `Showing the best ${best.length} of ${complete ? '' : 'at least '}${found.toLocaleString('en')}.`;
  });

  readonly closings = computed((): readonly Chip<Params['close']['kind']>[] => [
    { value: 'cut', words: 'cut the last' },
    { value: 'rest', words: 'rest' },
    { value: 'strokes', words: 'strokes' },
    { value: 'groups', words: 'groups', off: this.choices().best.length === 0 },
  ]);

  closeBy(kind: Params['close']['kind']): void {
    if (kind === this.params().close.kind) return;
    switch (kind) {
      case 'cut':
      case 'rest':
        return this.setClose({ kind });
      case 'strokes':
        return this.setClose({ kind, text: 'R L R' });
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

  setUnit(event: Event): void {
    const n = this.amount();
    this.set({ space: textOf(event) === 'beats' ? { beats: n } : { bars: Math.min(64, n) } });
  }

  setSizes(event: Event): void {
    const sizes = wholesOf(event, 1, 64);
    if (sizes.length > 0) this.sizes.set(sizes);
  }

  pickGroups(i: number): void {
    const groups = this.choices().best[i];
    if (groups) this.setClose({ kind: 'groups', groups: [...groups] });
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
