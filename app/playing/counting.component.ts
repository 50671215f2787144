import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { COUNT_KINDS, type CountKind } from '@core/playback';

const WORDS: Readonly<Record<CountKind, string>> = {
  spoken: 'Count aloud',
  sung: 'Sing it',
  tones: 'Count in tones',
};

/** Who counts along: one of them, or nobody when it is pressed again. */
@Component({
  selector: 'ls-counting',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (k of kinds; track k) {
      <button
        type="button"
        class="btn small"
        [class.on]="kind() === k"
        [attr.aria-pressed]="kind() === k"
        (click)="kindChange.emit(kind() === k ? null : k)"
      >
        {{ words[k] }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-self: end;
    }
  `,
  host: { role: 'group', 'aria-label': 'Who counts along' },
})
export class CountingComponent {
  readonly kind = input.required<CountKind | null>();
  readonly kindChange = output<CountKind | null>();
  readonly kinds = COUNT_KINDS;
  readonly words = WORDS;
}
