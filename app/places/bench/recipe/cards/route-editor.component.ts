import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { Voice } from '@core/stroke';
import type { Pattern } from '@core/pattern';
import type { MoveParams } from '@core/recipe';
import { SelectionEditorComponent } from './selection-editor.component';
import { wholesOf } from './values';
import { KitsRepo } from '../../../../storage/kits.repo';
import { SelectComponent } from '../../../../widgets/select.component';

type Params = MoveParams['route'];

@Component({
  selector: 'ls-route-editor',
  imports: [SelectionEditorComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of params().stations; track $index; let i = $index) {
      <div class="row">
        @for (side of sides; track side) {
          <div class="field">
            {{ i === 0 ? side : '' }}
            <ls-select
              [label]="'Stop ' + (i + 1) + ', ' + side + ' hand'"
              [options]="voices()"
              [chosen]="s[side]"
              (chose)="setStation(i, side, $event)"
            />
          </div>
        }
        <button
          type="button"
          class="btn small"
          [disabled]="params().stations.length < 2"
          [attr.aria-label]="'Remove stop ' + (i + 1)"
          (click)="removeStation(i)"
        >
          −
        </button>
      </div>
    }
    <div class="row">
      <button type="button" class="btn small" [disabled]="params().stations.length >= 16" (click)="addStation()">
        Add a stop
      </button>
      <label class="field"
        >Strokes to a stop
        <input
          #sizesField
          class="input mono"
          type="text"
          [value]="sizes()"
          aria-label="Strokes to a stop"
          (change)="setSizes(sizesField.value)"
        />
      </label>
      <label class="field"
        >Order
        <input
          #orderField
          class="input mono"
          type="text"
          placeholder="1 2 3"
          [value]="order()"
          aria-label="Order of the stops"
          (change)="setOrder(orderField.value)"
        />
      </label>
    </div>
    <ls-selection-editor [value]="params().select" [before]="before()" (changed)="set({ select: $event })" />
  `,
  styleUrl: './editor.css',
})
export class RouteEditorComponent {
  readonly params = input.required<Params>();
  readonly before = input.required<Pattern>();
  readonly changed = output<Params>();
  readonly sides = ['right', 'left'] as const;
  private readonly kits = inject(KitsRepo);
  readonly voices = computed(() =>
    this.kits.voicesFor(this.params().stations.flatMap(({ right, left }) => [right, left])),
  );
  readonly sizes = computed(() => this.params().sizes.join(' '));
  readonly order = computed(() => this.params().order.join(' '));

  setStation(i: number, side: 'right' | 'left', voice: Voice): void {
    this.set({ stations: this.params().stations.map((s, n) => (n === i ? { ...s, [side]: voice } : s)) });
  }

  addStation(): void {
    this.set({ stations: [...this.params().stations, { right: 'floor-tom', left: 'floor-tom' }] });
  }

  removeStation(i: number): void {
    this.set({ stations: this.params().stations.filter((_, n) => n !== i) });
  }

  setSizes(text: string): void {
    const sizes = wholesOf(text, 1, 64);
    if (sizes.length > 0) this.set({ sizes });
  }

  setOrder(text: string): void {
    this.set({ order: wholesOf(text, 1, 16) });
  }

  set(part: Partial<Params>): void {
    this.changed.emit({ ...this.params(), ...part });
  }
}
