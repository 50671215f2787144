import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { differenceInCalendarDays } from 'date-fns';
import { Dialog } from 'primeng/dialog';
import type { Phrase } from '@core/recipe';
import { REMOVED_FOR } from '@core/shelf';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';
import { ShelfActs } from './shelf.acts';

interface Off {
  readonly id: string;
  readonly at: number;
  readonly phrase: Phrase;
}

/** What was taken off the shelf in the last 30 days, to be brought back with its log, takes and drill. */
@Component({
  selector: 'ls-removed-dialog',
  imports: [Dialog, DialogFocusDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Taken off the shelf"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '38rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      @if (removed().length === 0) {
        <p>You took nothing off in the last 30 days.</p>
      } @else {
        <p>Each comes back with all its tries.</p>
      }
      <ul>
        @for (r of removed(); track r.id) {
          <li>
            <span class="cut name">{{ r.phrase.name.slice(0, 100) }}</span>
            <span class="quiet">{{ days(r) }}</span>
            <button type="button" class="btn small" (click)="acts.putBack([r.id])">Put back on the shelf</button>
          </li>
        }
      </ul>
      @if (removed().length > 1) {
        <button type="button" class="btn" (click)="acts.putBack(ids())">Put all {{ removed().length }} back</button>
      }
    </p-dialog>
  `,
  styles: `
    ul {
      margin: 10px 0;
      padding: 0;
      list-style: none;
      max-height: 50vh;
      overflow: auto;
    }
    li {
      display: flex;
      align-items: center;
      gap: 12px;
      min-height: 44px;
      border-bottom: 1px solid var(--line);
    }
    .name {
      flex: 1;
      min-width: 0;
      font-weight: 600;
    }
  `,
})
export class RemovedDialogComponent {
  readonly acts = inject(ShelfActs);
  readonly removed = input.required<readonly Off[]>();
  readonly closed = output();

  ids(): readonly string[] {
    return this.removed().map((r) => r.id);
  }

  days({ at }: Off): string {
    const left = differenceInCalendarDays(at + REMOVED_FOR, Date.now());
    return left <= 1 ? 'for one more day' : `for ${left} more days`;
  }
}
