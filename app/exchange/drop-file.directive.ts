import { Directive, output } from '@angular/core';

/** A place on which a file can be dropped. What is dragged inside the page, as a strip on its board, is none. */
@Directive({
  selector: '[lsDropFile]',
  host: { '(dragover)': 'over($event)', '(drop)': 'drop($event)' },
})
export class DropFileDirective {
  readonly fileDropped = output<File>();

  over(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  drop(event: DragEvent): void {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    this.fileDropped.emit(file);
  }
}
