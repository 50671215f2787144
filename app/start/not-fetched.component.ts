import { ChangeDetectionStrategy, Component } from '@angular/core';

/** Stands where a place could not be fetched. */
@Component({
  selector: 'ls-not-fetched',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section role="alert">
      <h1>This page could not be loaded</h1>
      <p>There was no answer. Your work is safe in this browser.</p>
      <button type="button" class="btn primary" (click)="again()">Try again</button>
    </section>
  `,
  styles: `
    section {
      display: flex;
      flex-direction: column;
      align-items: flex-start;
      gap: 16px;
      padding: 56px 40px;
    }
  `,
})
export class NotFetchedComponent {
  again(): void {
    location.reload();
  }
}
