import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { readTempo } from '@core/time';

/**
 * A tempo as typed: kept within what can be played, with a hint when it had to be changed. Arrows step by one, with
 * Shift by five.
 */
@Component({
  selector: 'ls-tempo-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #field
      class="input mono"
      type="text"
      inputmode="decimal"
      [attr.aria-label]="label()"
      [attr.aria-invalid]="hint() !== null"
      [value]="shown()"
      (focus)="field.select()"
      (input)="typed.set(field.value)"
      (blur)="take(field)"
      (keydown)="key($event, field)"
    />
    @if (hint(); as words) {
      <span class="wrong" role="status">{{ words }}</span>
    }
  `,
  styles: `
    :host {
      position: relative;
      display: inline-block;
    }
    .input {
      width: 72px;
      text-align: right;
    }
    .wrong {
      position: absolute;
      left: 0;
      bottom: calc(100% + 4px);
      background: var(--surface);
      border: 1px solid var(--mark);
      border-radius: 4px;
      padding: 2px 8px;
      white-space: nowrap;
      z-index: 4;
    }
  `,
})
export class TempoFieldComponent {
  readonly label = input('Tempo in bpm');
  readonly bpm = input.required<number>();
  readonly bpmChange = output<number>();
  /** What is being typed: a tempo that comes in from elsewhere meanwhile does not take it away. */
  readonly typed = signal<string | null>(null);
  readonly shown = computed(() => this.typed() ?? String(this.bpm()));
  readonly hint = signal<string | null>(null);

  key(event: KeyboardEvent, field: HTMLInputElement): void {
    if (event.key === 'Enter') this.take(field);
    if (isLetter(event)) this.leave(event, field);
    const step = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (step === 0) return;
    event.preventDefault();
    this.set(String(this.bpm() + step * (event.shiftKey ? 5 : 1)));
  }

  /** No tempo has letters: whoever presses one means the key, and has done with the tempo. */
  private leave(event: KeyboardEvent, field: HTMLInputElement): void {
    event.preventDefault();
    event.stopPropagation();
    if (field.closest('.p-dialog')) return;
    field.blur();
    const { key, code, shiftKey } = event;
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key, code, shiftKey, bubbles: true }));
  }

  take(field: HTMLInputElement): void {
    if (field.value !== String(this.bpm())) this.set(field.value, field);
    else {
      this.typed.set(null);
      this.hint.set(null);
    }
  }

  /**
   * Takes what is being typed, for whoever reads the tempo while the field may not have been left: a dialog that moves
   * in the page takes the focus without a word.
   */
  commit(): void {
    const typed = this.typed();
    if (typed !== null) this.set(typed);
  }

  private set(text: string, field?: HTMLInputElement): void {
    const { bpm, hint } = readTempo(text, this.bpm());
    this.hint.set(hint);
    if (field) field.value = String(bpm);
    this.typed.set(null);
    if (bpm !== this.bpm()) this.bpmChange.emit(bpm);
  }
}

function isLetter({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
  return /^[a-z]$/i.test(key) && !ctrlKey && !metaKey && !altKey;
}
