import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';
import type { Choice } from './choice';

/** A list that is longer is filled only when it is come to, drawn as it is scrolled, and can be searched. */
const LONG = 100;
/** The height of one line of a long list, in px. */
const LINE = 32;

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
      [filter]="isLong()"
      filterBy="words"
      [ariaFilterLabel]="'Find in ' + label()"
      emptyFilterMessage="No name has these letters."
      [virtualScroll]="isLong()"
      [virtualScrollItemSize]="line"
      scrollHeight="320px"
      appendTo="body"
    />
  `,
  host: { '(pointerenter)': 'near.set(true)', '(pointerdown)': 'near.set(true)', '(focusin)': 'near.set(true)' },
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
  readonly line = LINE;
  readonly shown = linkedSignal(() => this.chosen());
  readonly isLong = computed(() => this.options().length > LONG);
  /** The pointer or the keyboard came to it. */
  readonly near = signal(false);
  /** The package takes lists that may be changed; this one is not. It goes through all of a list again and again. */
  readonly list = computed(() => {
    const all = this.options();
    return this.isLong() && !this.near() ? all.filter((o) => o.value === this.shown()) : [...all];
  });

  choose(value: T): void {
    this.shown.set(value);
    this.chose.emit(value);
    // Where the choice was not taken the list goes back to what is chosen.
    queueMicrotask(() => this.shown.set(this.chosen()));
  }
}
