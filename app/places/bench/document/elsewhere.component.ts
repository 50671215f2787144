import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { format } from 'date-fns';
import type { Phrase } from '@core/recipe';
import { KeepingStore } from './keeping.store';

/** Says that the phrase was kept or taken off elsewhere while it was changed here, and asks what to do. */
@Component({
  selector: 'ls-elsewhere',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="bar" role="alert">
      @if (theirs()) {
        <span>You changed it here, and another tab kept a newer version at {{ when() }}.</span>
        <button type="button" class="btn small" (click)="keeping.seeTheirs()">See theirs</button>
        <button type="button" class="btn small" (click)="keeping.askNew()">Keep mine as new</button>
        <button type="button" class="btn small" (click)="keeping.takeTheirs()">Use theirs</button>
      } @else {
        <span>This phrase was taken off the shelf. Your work here is safe. Keep it to put it back.</span>
        <button type="button" class="btn small" (click)="keeping.ask()">Keep it again</button>
      }
    </div>
  `,
  styleUrl: './bar.css',
})
export class ElsewhereComponent {
  readonly keeping = inject(KeepingStore);
  /** What stands on the shelf; null where it was taken off. */
  readonly theirs = input.required<Phrase | null>();
  readonly when = computed(() => format(this.theirs()?.changed ?? 0, 'HH:mm'));
}
