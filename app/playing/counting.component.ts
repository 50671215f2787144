import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { COUNT_KINDS, type CountKind } from '@core/playback';
import { ChipsComponent } from '../widgets/chips.component';
import { choicesOf } from '../widgets/choice';

const WORDS: Readonly<Record<CountKind, string>> = {
  spoken: 'Spoken count',
  sung: 'Sung syllables',
  tones: 'Beeps',
};

/** Who counts along: one of them, or nobody when it is pressed again. */
@Component({
  selector: 'ls-counting',
  imports: [ChipsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<ls-chips
    label="Who counts along"
    [chips]="kinds"
    [chosen]="down()"
    (chose)="kindChange.emit($event === kind() ? null : $event)"
  />`,
  styles: `
    :host {
      align-self: end;
    }
  `,
})
export class CountingComponent {
  readonly kind = input.required<CountKind | null>();
  readonly kindChange = output<CountKind | null>();
  readonly kinds = choicesOf(COUNT_KINDS, (k) => WORDS[k]);
  readonly down = computed((): readonly CountKind[] => {
    const kind = this.kind();
    return kind ? [kind] : [];
  });
}
