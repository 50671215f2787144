import { Directive, output } from '@angular/core';

/** A link to a phrase or a lesson, as it may be pasted. */
const LINK = /[#&][pl]=[A-Za-z0-9_-]{20,}/;

/**
 * A place on which a file can be dropped, and into which a file or a link to a phrase can be pasted while no field has
 * the keyboard. What is dragged inside the page, as a strip on its board, is none.
 */
@Directive({
  selector: '[lsDropFile]',
  host: { '(dragover)': 'over($event)', '(drop)': 'drop($event)', '(document:paste)': 'paste($event)' },
})
export class DropFileDirective {
  readonly fileDropped = output<File>();

  over(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  drop(event: DragEvent): void {
    this.take(event, event.dataTransfer?.files[0]);
  }

  paste(event: ClipboardEvent): void {
    const { target } = event;
    if (target instanceof Element && target.closest('input, textarea, .p-dialog, [role=application]')) return;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    const link = LINK.test(text) ? new File([text], 'link.txt', { type: 'text/plain' }) : undefined;
    this.take(event, event.clipboardData?.files[0] ?? link);
  }

  private take(event: Event, file: File | undefined): void {
    if (!file) return;
    event.preventDefault();
    this.fileDropped.emit(file);
  }
}
