import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
  type OnDestroy,
} from '@angular/core';
import { GRID, gridName, parseMeter, type Grid } from '@core/time';
import { parseStrokeText } from '@core/stroke';
import { patternOfText } from '@core/pattern';
import { quantiseTaps, tempoOfSlot, type Tap } from '@core/listen';
import { KeysService } from '../../../common/keys.service';
import { RibbonComponent } from '../../../drawings/ribbon/ribbon.component';

/** What was tapped: stroke text, the grid it is on, and the tempo it was tapped at. */
export interface Tapped {
  readonly text: string;
  readonly grid: Grid;
  readonly tempo: number;
}

/** Two pads, or two keys: a rhythm tapped without a click becomes strokes on even slots. */
@Component({
  selector: 'ls-tap-pad',
  imports: [RibbonComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pads">
      <button type="button" class="pad" (pointerdown)="tap('L')">left <kbd>F</kbd></button>
      <button type="button" class="pad" (pointerdown)="tap('R')">right <kbd>J</kbd></button>
    </div>
    @if (read(); as r) {
      @if (r.ok) {
        <div class="heard"><ls-ribbon [pattern]="drawn()" size="card" /></div>
        <p class="quiet small">
          Read as <span class="mono">{{ r.value.text.slice(0, 60) }}</span> in {{ gridName(r.value.grid) }} at
          {{ tempo() }}
          @if (r.value.loose > 0.16) {
            · tapped loosely: check the rests
          }
        </p>
        <div class="row">
          <button
            type="button"
            class="btn primary"
            (click)="done.emit({ text: r.value.text, grid: r.value.grid, tempo: tempo() })"
          >
            {{ does() }}
          </button>
          <button type="button" class="btn" (click)="clear()">Again</button>
        </div>
      } @else {
        <p class="quiet small">{{ r.problems[0].message }}</p>
      }
    } @else {
      <p class="quiet small">Tap it once, without a click, as on a table. Rests are found too.</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .pads {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
    .pad {
      min-height: 52px;
      border: 1.5px solid var(--line-strong);
      border-radius: var(--radius);
      background: var(--sunken);
      color: var(--ink);
      font: 600 15px var(--text);
      cursor: pointer;
      touch-action: manipulation;
      user-select: none;
    }
    .pad:active {
      background: var(--accent-soft);
      border-color: var(--accent);
    }
    .row {
      display: flex;
      gap: 8px;
    }
    .small {
      font-size: 12.5px;
    }
    .heard {
      overflow-x: auto;
    }
  `,
})
export class TapPadComponent implements OnDestroy {
  /** What is done with what was tapped. */
  readonly does = input('Put the rhythm on the Bench');
  readonly done = output<Tapped>();
  readonly gridName = gridName;
  private readonly taps = signal<readonly Tap[]>([]);
  private readonly four = parseMeter('4/4') ?? { beats: 4, unit: 4 as const, groups: [4] };
  readonly read = computed(() => (this.taps().length === 0 ? null : quantiseTaps(this.taps())));
  readonly tempo = computed(() => {
    const read = this.read();
    return read?.ok ? tempoOfSlot(read.value.slot, read.value.grid, this.four) : 90;
  });
  readonly drawn = computed(() => {
    const read = this.read();
    const nodes = read?.ok ? parseStrokeText(read.value.text) : null;
    return patternOfText(nodes?.ok ? nodes.value : [], this.four, read?.ok ? read.value.grid : GRID.sixteenths);
  });

  constructor() {
    inject(KeysService).use([
      { combo: 'f', shown: 'F', does: 'Tap: left hand', run: (e) => this.tap('L', e) },
      { combo: 'j', shown: 'J', does: 'Tap: right hand', run: (e) => this.tap('R', e) },
    ]);
  }

  ngOnDestroy(): void {
    this.taps.set([]);
  }

  tap(limb: Tap['limb'], event?: KeyboardEvent): void {
    if (event?.repeat) return;
    const seconds = (event?.timeStamp ?? performance.now()) / 1000;
    // After a long silence a new rhythm begins.
    const last = this.taps().at(-1);
    const fresh = last !== undefined && seconds - last.seconds > 3;
    this.taps.update((all) => [...(fresh ? [] : all), { seconds, limb }]);
  }

  clear(): void {
    this.taps.set([]);
  }
}
