import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SWING } from '@core/time';
import { choicesOf } from '../../widgets/choice';
import { NumberFieldComponent } from '../../widgets/number-field.component';
import { SelectComponent } from '../../widgets/select.component';
import { BenchStore } from './document/bench.store';

const FEELS = ['straight', 'eighths', '16ths'] as const;
type FeelChoice = (typeof FEELS)[number];

/** What a triplet's swing is, in per cent: the usual one. */
const TRIPLET = 0.67;

/** The feel of the phrase: straight, or eighths or 16ths swung by so many per cent of the pair. */
@Component({
  selector: 'ls-swing',
  imports: [NumberFieldComponent, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ls-select label="Feel" [options]="feels" [chosen]="feel()" (chose)="choose($event)" />
    @if (swing()) {
      <ls-number-field
        label="Swing in percent"
        [least]="least"
        [most]="most"
        [value]="percent()"
        (changed)="setPercent($event)"
      />
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 6px;
      font-size: 13px;
    }
    ls-number-field {
      width: 56px;
    }
    @container place (max-width: 600px) {
      :host {
        flex-wrap: wrap;
      }
    }
  `,
})
export class SwingComponent {
  private readonly store = inject(BenchStore);
  readonly feels = choicesOf(FEELS, (f) => (f === 'straight' ? 'Straight' : `${f} swung`));
  readonly least = SWING.least * 100;
  readonly most = SWING.most * 100;
  readonly swing = computed(() => this.store.recipe()?.source.swing ?? null);
  readonly feel = computed((): FeelChoice => this.swing()?.on ?? 'straight');
  readonly percent = computed(() => Math.round((this.swing()?.ratio ?? TRIPLET) * 100));

  choose(feel: FeelChoice): void {
    this.store.setSwing(feel === 'straight' ? null : { on: feel, ratio: this.percent() / 100 });
  }

  setPercent(percent: number): void {
    const swing = this.swing();
    if (swing) this.store.setSwing({ ...swing, ratio: percent / 100 }, 'swing');
  }
}
