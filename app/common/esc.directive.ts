import { Directive, inject, output } from '@angular/core';
import { KeysService } from './keys.service';

/** A panel that Esc closes, before anything else hears of it, for as long as it is open. */
@Directive({ selector: '[lsEsc]' })
export class EscDirective {
  readonly lsEsc = output();

  constructor() {
    inject(KeysService).use([{ combo: 'Escape', shown: 'Esc', does: 'Close the panel', run: () => this.lsEsc.emit() }]);
  }
}
