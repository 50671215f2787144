import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { InputNumber } from 'primeng/inputnumber';

/** A number as typed, held between its bounds. What is being typed is not taken away by a value from elsewhere. */
@Component({
  selector: 'ls-number-field',
  imports: [FormsModule, InputNumber],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-inputnumber
      [ngModel]="shown()"
      [min]="least()"
      [max]="most()"
      [step]="step()"
      [maxFractionDigits]="digits()"
      [useGrouping]="false"
      [autofocus]="false"
      locale="en"
      [ariaLabel]="label()"
      (onFocus)="held.set(value())"
      (onBlur)="take(); held.set(null)"
      (keydown.enter)="take()"
      (keydown.arrowup)="take()"
      (keydown.arrowdown)="take()"
    />
  `,
  styles: `
    :host {
      display: inline-block;
      width: 64px;
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
  private readonly field = viewChild.required(InputNumber);
  /** The value while it is being typed over; null when it is not. */
  readonly held = signal<number | null>(null);
  readonly shown = computed(() => this.held() ?? this.value());
  readonly digits = computed(() => (Number.isInteger(this.step()) ? 0 : 2));

  /** Takes what stands in the field. An empty field is what it was. */
  take(): void {
    const { least, most, step, now } = {
      least: this.least(),
      most: this.most(),
      step: this.step(),
      now: this.value(),
    };
    const typed = this.field().value;
    const whole =
      typed === null || typed === undefined ? now : Math.min(most, Math.max(least, Math.round(typed / step) * step));
    // A step of a tenth leaves dust behind the comma.
    const clean = Number(whole.toFixed(6));
    this.field().writeValue(clean);
    if (clean !== now) this.changed.emit(clean);
  }
}
