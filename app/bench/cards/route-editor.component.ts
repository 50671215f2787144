import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { HAND_VOICES, VOICE } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectorEditorComponent } from './selector-editor.component';
import { textOf, wholesOf } from './values';

type Params = MoveParams['route'];

@Component({
  selector: 'ls-route-editor',
  imports: [SelectorEditorComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of params().stations; track $index; let i = $index) {
      <div class="row">
        @for (side of sides; track side) {
          <label class="field"
            >{{ i === 0 ? side : '' }}
            <select
              class="input"
              [attr.aria-label]="'Stop ' + (i + 1) + ', ' + side + ' hand'"
              (change)="setStation(i, side, $event)"
            >
              @for (v of voices; track v) {
                <option [value]="v" [selected]="v === s[side]">{{ facts[v].name }}</option>
              }
            </select>
          </label>
        }
        <button
          type="button"
          class="btn small"
          [disabled]="params().stations.length < 2"
          [attr.aria-label]="'Leave out stop ' + (i + 1)"
          (click)="removeStation(i)"
        >
          −
        </button>
      </div>
    }
    <div class="row">
      <button type="button" class="btn small" [disabled]="params().stations.length >= 16" (click)="addStation()">
        Another stop
      </button>
      <label class="field"
        >Strokes to a stop
        <input
          class="input mono"
          type="text"
          [value]="sizes()"
          aria-label="Strokes to a stop"
          (change)="setSizes($event)"
        />
      </label>
      <label class="field"
        >Order
        <input
          class="input mono"
          type="text"
          placeholder="1 2 3"
          [value]="order()"
          aria-label="Order of the stops"
          (change)="setOrder($event)"
        />
      </label>
    </div>
    <ls-selector-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
  `,
  styleUrl: './editor.css',
})
export class RouteEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly sides = ['right', 'left'] as const;
  readonly voices = HAND_VOICES;
  readonly facts = VOICE;
  readonly sizes = computed(() => this.params().sizes.join(' '));
  readonly order = computed(() => this.params().order.join(' '));

  setStation(i: number, side: 'right' | 'left', event: Event): void {
    const voice = HAND_VOICES.find((v) => v === textOf(event));
    if (voice) this.set({ stations: this.params().stations.map((s, n) => (n === i ? { ...s, [side]: voice } : s)) });
  }

  addStation(): void {
    this.set({ stations: [...this.params().stations, { right: 'floor-tom', left: 'floor-tom' }] });
  }

  removeStation(i: number): void {
    this.set({ stations: this.params().stations.filter((_, n) => n !== i) });
  }

  setSizes(event: Event): void {
    const sizes = wholesOf(event, 1, 64);
    if (sizes.length > 0) this.set({ sizes });
  }

  setOrder(event: Event): void {
    this.set({ order: wholesOf(event, 1, 16) });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
