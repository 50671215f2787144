import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { parseStrokeText } from '@core/stroke';

/** A field for stroke text. Only what can be read is told; until then the problem stands below, with its column. */
@Component({
  selector: 'ls-stroke-text',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="field"
      >{{ label() }}
      <input
        #field
        class="input mono"
        type="text"
        autocomplete="off"
        spellcheck="false"
        [attr.aria-invalid]="problem() !== null"
        [value]="typed()"
        (input)="take(field.value)"
      />
    </label>
    @if (problem(); as words) {
      <p class="wrong" role="status">{{ words }}</p>
    }
  `,
  styleUrl: './editor.css',
})
export class StrokeTextComponent {
  readonly label = input.required<string>();
  readonly text = input.required<string>();
  readonly changed = output<string>();
  readonly typed = linkedSignal(() => this.text());
  readonly problem = computed(() => {
    const read = parseStrokeText(this.typed());
    return read.ok ? null : read.problems[0].message;
  });

  take(text: string): void {
    this.typed.set(text);
    if (parseStrokeText(text).ok) this.changed.emit(text);
  }
}
