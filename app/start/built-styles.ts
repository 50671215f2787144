import { Injectable } from '@angular/core';
import { BaseStyle } from 'primeng/base';
import { UseStyle } from 'primeng/usestyle';

// The styles of the library's components are in our own style sheet (`npm run gen` writes it). Left alone, each
// component that is made works out again what to add to the page, and what is added has the looks of all of it worked
// out anew.

/** What the library would write into the page for a component: nothing. */
@Injectable()
export class BuiltSheet extends UseStyle {
  override use(): undefined {
    return undefined;
  }
}

/** What the library would write into the page for all components: nothing. */
@Injectable()
export class BuiltStyle extends BaseStyle {
  override load = (): Record<string, never> => ({});
}
