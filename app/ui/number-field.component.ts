import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';

/**
 * A number as typed, held between its bounds. What is being typed is not taken away by a value that comes in from
 * elsewhere.
 */
@Component({
  selector: 'ls-number-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      class="input mono"
      type="number"
      [attr.min]="least()"
      [attr.max]="most()"
      [attr.step]="step()"
      [attr.aria-label]="label()"
      [value]="shown()"
      (input)="type($event)"
      (change)="take($event)"
      (blur)="typed.set(null)"
    />
  `,
  styles: `
    :host {
      display: inline-block;
    }
    .input {
      width: 64px;
      text-align: right;
    }
  `,
})
export class NumberFieldComponent {
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly least = input(0);
  readonly most = input(100);
  /** Values are rounded to it. */
  readonly step = input(1);
  readonly changed = output<number>();
  readonly typed = signal<string | null>(null);
  readonly shown = computed(() => this.typed() ?? String(this.value()));

  type(event: Event): void {
    if (event.target instanceof HTMLInputElement) this.typed.set(event.target.value);
  }

  take(event: Event): void {
    this.typed.set(null);
    if (!(event.target instanceof HTMLInputElement) || event.target.value === String(this.value())) return;
    const n = Number(event.target.value);
    const usable = event.target.value.trim() !== '' && Number.isFinite(n);
    const { least, most, step, value } = {
      least: this.least(),
      most: this.most(),
      step: this.step(),
      value: this.value(),
    };
    const held = usable ? Math.min(most, Math.max(least, Math.round(n / step) * step)) : value;
    // A step of a tenth leaves dust behind the comma.
    const clean = Number(held.toFixed(6));
    event.target.value = String(clean);
    if (clean !== value) this.changed.emit(clean);
  }
}
