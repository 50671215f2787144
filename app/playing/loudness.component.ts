import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';
import { LOUDEST, PARTS, type Part } from '@core/playback';
import { LoudnessRepo } from '../storage/loudness.repo';

const PART_WORDS: Readonly<Record<Part, string>> = {
  primary: 'groove',
  timekeeping: 'timekeeping',
  texture: 'texture',
  click: 'click',
  counts: 'counting',
  record: 'record',
};

/** How loud each part sounds, in every place that sounds. It is heard while the slider moves. */
@Component({
  selector: 'ls-loudness',
  imports: [FormsModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of parts(); track p) {
      <span class="part">
        <span>{{ words[p] }}</span>
        <p-slider
          [ngModel]="loudness.now()[p] * 100"
          (ngModelChange)="loudness.set(p, $event / 100)"
          [min]="0"
          [max]="most * 100"
          [step]="5"
          [ariaLabel]="'Loudness: ' + words[p]"
        />
        <span class="mono quiet">{{ (loudness.now()[p] * 100).toFixed(0) }}</span>
      </span>
    }
    <button type="button" class="btn small" (click)="loudness.reset()">All equal</button>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
      gap: 12px 18px;
      align-items: end;
    }
    .part {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 10px 6px;
      font-size: 13px;
      padding-right: 8px;
    }
    .part p-slider {
      grid-column: 1 / -1;
      order: 1;
    }
    .btn {
      justify-self: start;
    }
  `,
})
export class LoudnessComponent {
  readonly loudness = inject(LoudnessRepo);
  /** Whether a record sounds here. */
  readonly record = input(false);
  readonly parts = computed(() => PARTS.filter((p) => p !== 'record' || this.record()));
  readonly words = PART_WORDS;
  readonly most = LOUDEST;
}
