import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';
import type { Choice } from './choice';

/**
 * A list to choose one of several from. What it holds is what the place says is chosen, whatever was pressed.
 * `autofocus` is said out loud to the package: left away, it marks every field so, and the browser may take the keys to
 * one.
 */
@Component({
  selector: 'ls-select',
  imports: [FormsModule, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-select
      [ngModel]="shown()"
      (onChange)="choose($event.value)"
      [options]="list()"
      optionLabel="words"
      optionValue="value"
      optionDisabled="off"
      [ariaLabel]="label()"
      [placeholder]="placeholder()"
      [disabled]="disabled()"
      [styleClass]="mono() ? 'mono' : ''"
      [panelStyleClass]="mono() ? 'mono' : ''"
      [checkmark]="false"
      [focusOnHover]="false"
      [selectOnFocus]="false"
      [autofocus]="false"
      scrollHeight="320px"
      appendTo="body"
    />
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    p-select {
      width: 100%;
    }
  `,
})
export class SelectComponent<T extends string | number> {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Choice<T>[]>();
  readonly chosen = input.required<T | null>();
  /** What stands there while nothing is chosen. */
  readonly placeholder = input('');
  readonly disabled = input(false);
  readonly mono = input(false);
  readonly chose = output<T>();
  /** The package takes lists that may be changed; this one is not. */
  readonly list = computed(() => [...this.options()]);
  readonly shown = linkedSignal(() => this.chosen());

  choose(value: T): void {
    this.shown.set(value);
    this.chose.emit(value);
    // Where the choice was not taken the list goes back to what is chosen.
    queueMicrotask(() => this.shown.set(this.chosen()));
  }
}
