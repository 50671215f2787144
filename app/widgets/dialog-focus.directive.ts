import { Directive, effect, inject } from '@angular/core';
import { Dialog } from 'primeng/dialog';

const FIELDS = 'input, select, textarea, button, [tabindex="0"]';

/**
 * Gives the keys to the first field of a dialog as soon as it stands in the page.
 * The dialog itself does so when its animation is over: whoever had gone to another field by then typed a goal into the
 * name.
 */
@Directive({ selector: 'p-dialog' })
export class DialogFocusDirective {
  constructor() {
    const dialog = inject(Dialog);
    dialog.focusOnShow = false;
    effect(() => {
      const box = dialog.container();
      const first = box?.querySelector<HTMLElement>(`.p-dialog-content :is(${FIELDS})`);
      if (box?.contains(document.activeElement)) return;
      first?.focus();
      if (first instanceof HTMLInputElement && first.type === 'text') select(first);
    });
  }
}

/**
 * What is proposed gives way to what is typed. Forms write it into the field as a promise does, which is before any
 * key; where they write it later still, whoever typed meanwhile is let type.
 */
function select(field: HTMLInputElement): void {
  void formHasWritten().then(() => field.select());
  const wait = setTimeout(() => field.select());
  for (const over of ['input', 'blur']) field.addEventListener(over, () => clearTimeout(wait), { once: true });
}

async function formHasWritten(): Promise<void> {
  await Promise.resolve();
  await Promise.resolve();
}
