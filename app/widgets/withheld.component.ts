import { ChangeDetectionStrategy, Component, input } from '@angular/core';

const WORDS = {
  input: 'No microphone and no MIDI here: this page came over plain http. Open it over https, or on this computer.',
  folder: 'No folder here: this page came over plain http. Open it over https, or on this computer.',
} as const;

/** What a browser withholds from a page that came over plain http from another machine, said before it is tried. */
@Component({
  selector: 'ls-withheld',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@if (isWithheld) {
    <p class="quiet small">{{ words[what()] }}</p>
  }`,
})
export class WithheldComponent {
  readonly what = input<keyof typeof WORDS>('input');
  readonly words = WORDS;
  readonly isWithheld = !globalThis.isSecureContext;
}
