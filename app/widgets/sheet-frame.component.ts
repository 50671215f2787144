import { DOCUMENT } from '@angular/common';
import { ChangeDetectionStrategy, Component, DestroyRef, inject, input, output } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { DialogFocusDirective } from './dialog-focus.directive';

/** Width of the paper's text on A4 and Letter, in px at 96 to the inch, with usual margins. */
export const PAPER = 690;

/**
 * White paper in a dialog: what stands on it is what is printed, and nothing else is while it is open. Buttons beside
 * _Print_ are put into `[bar]`.
 */
@Component({
  selector: 'ls-sheet-frame',
  imports: [Dialog, DialogFocusDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      [header]="header()"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [maximizable]="false"
      [draggable]="false"
      appendTo="body"
      styleClass="sheet-dialog"
      [style]="{ width: '850px', maxWidth: '96vw', maxHeight: '96vh' }"
      (visibleChange)="closed.emit()"
    >
      <div class="bar">
        <button type="button" class="btn primary" [disabled]="!ready()" (click)="print()">Print</button>
        <ng-content select="[bar]" />
      </div>
      <div class="sheet" tabindex="0" role="region" aria-label="The page">
        <ng-content />
      </div>
    </p-dialog>
  `,
  styleUrl: './sheet-frame.component.css',
})
export class SheetFrameComponent {
  readonly header = input.required<string>();
  /** Whether there is something to print. */
  readonly ready = input(true);
  readonly closed = output();
  private readonly page = inject(DOCUMENT);

  constructor() {
    // While the pages are there they are the only thing that goes on paper.
    const { classList } = this.page.documentElement;
    classList.add('has-sheet');
    inject(DestroyRef).onDestroy(() => classList.remove('has-sheet'));
  }

  print(): void {
    this.page.defaultView?.print();
  }
}
