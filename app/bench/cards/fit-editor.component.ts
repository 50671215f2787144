import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { barTicks, beatTicks, countAt, USUAL_SCHOOLS } from '@core/time';
import { countingOf, fitSum, partitions, slotsLong, type Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { StrokeTextComponent } from './stroke-text.component';
import { textOf, wholeOf, wholesOf } from './values';

type Params = MoveParams['fit'];

@Component({
  selector: 'ls-fit-editor',
  imports: [StrokeTextComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let p = params();
    <div class="row">
      <label class="field"
        >Fill
        <input
          class="input"
          type="number"
          min="1"
          [max]="mostOf(p)"
          [value]="amount()"
          (change)="setAmount($event)"
          aria-label="How many bars or beats"
        />
      </label>
      <label class="field"
        >of
        <select class="input" (change)="setUnit($event)" aria-label="Bars or beats">
          <option value="bars" [selected]="'bars' in p.space">bars</option>
          <option value="beats" [selected]="'beats' in p.space">beats</option>
        </select>
      </label>
      <label class="field"
        >from
        <select
          class="input"
          (change)="changed.emit({ space: p.space, start: text($event), mirrored: p.mirrored, close: p.close })"
          aria-label="Start count"
        >
          @for (c of starts(); track c) {
            <option [value]="c" [selected]="c === p.start">{{ c }}</option>
          }
        </select>
      </label>
    </div>
    <p class="mono sum">{{ sum() }}</p>
    <div class="chips" role="group" aria-label="How to close">
      <button type="button" [attr.aria-pressed]="p.close.kind === 'cut'" (click)="setClose({ kind: 'cut' })">cut the last</button>
      <button type="button" [attr.aria-pressed]="p.close.kind === 'rest'" (click)="setClose({ kind: 'rest' })">rest</button>
      <button type="button" [attr.aria-pressed]="p.close.kind === 'strokes'" (click)="setClose({ kind: 'strokes', text: 'R L R' })">
        strokes
      </button>
      <button
        type="button"
        [attr.aria-pressed]="p.close.kind === 'groups'"
        [disabled]="choices().best.length === 0"
        (click)="pickGroups(0)"
      >
        groups
      </button>
    </div>
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
      <ls-stroke-text label="Close with" [text]="p.close.text" (changed)="setClose({ kind: 'strokes', text: $event })" />
    }
    <label class="check"
      ><input
        type="checkbox"
        [checked]="p.mirrored"
        (change)="changed.emit({ space: p.space, start: p.start, mirrored: !p.mirrored, close: p.close })"
      />Swap hands on every repeat</label
    >
  `,
  styleUrl: './editor.css',
})
export class FitEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly text = textOf;
  readonly amount = computed(() => {
    const { space } = this.params();
    return 'bars' in space ? space.bars : space.beats;
  });
  /** Every count of a bar on the home grid, and the one that is set. */
  readonly starts = computed(() => {
    const pattern = this.before();
    const counting = countingOf(pattern, USUAL_SCHOOLS);
    const slots = Math.min(64, Math.ceil(barTicks(pattern.meter) / pattern.grid));
    const counts = Array.from({ length: slots }, (_, i) => countAt(i * pattern.grid, counting).text);
    return counts.includes(this.params().start) ? counts : [this.params().start, ...counts];
  });
  readonly whole = wholeOf;
  /** Slots there are to fill. */
  readonly slots = computed(() => {
    const pattern = this.before();
    const { space, start } = this.params();
    const from = Math.max(0, this.starts().indexOf(start)) * pattern.grid;
    const length = 'bars' in space ? space.bars * barTicks(pattern.meter) - from : space.beats * beatTicks(pattern.meter);
    return length / pattern.grid;
  });
  readonly sum = computed(() => fitSum(this.slots(), slotsLong(this.before()))?.text ?? '');
  /** Group sizes that are allowed: one less than the cell, the cell, one more. */
  readonly sizes = linkedSignal(() => {
    const cell = Math.round(slotsLong(this.before()));
    return [cell - 1, cell, cell + 1].filter((n) => n > 0 && n <= 64);
  });
  readonly choices = computed(() =>
    partitions(this.slots(), this.sizes(), Math.max(1, Math.round(beatTicks(this.before().meter) / this.before().grid))),
  );
  readonly choicesWords = computed(() => {
    const { best, found, complete } = this.choices();
    if (complete && best.length === found) return found === 1 ? 'The only way.' : `${found} ways, the evenest first.`;
    return `Showing the best ${best.length} of ${complete ? '' : 'at least '}${found.toLocaleString('en')}.`;
  });

  mostOf({ space }: Params): number {
    return 'bars' in space ? 64 : 256;
  }

  setAmount(event: Event): void {
    const n = wholeOf(event, 1, this.mostOf(this.params()));
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

  private set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
