import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { barTicks, beatTicks, countAt, USUAL_SCHOOLS } from '@core/time';
import { countingOf, fitSum, type Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { StrokeTextComponent } from './stroke-text.component';
import { textOf, wholeOf } from './values';

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
    </div>
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
  readonly sum = computed(() => {
    const pattern = this.before();
    const { space, start } = this.params();
    const from = Math.max(0, this.starts().indexOf(start)) * pattern.grid;
    const length = 'bars' in space ? space.bars * barTicks(pattern.meter) - from : space.beats * beatTicks(pattern.meter);
    return fitSum(length / pattern.grid, pattern.length / pattern.grid)?.text ?? '';
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

  setClose(close: Params['close']): void {
    this.set({ close });
  }

  private set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
