import { ChangeDetectionStrategy, Component, inject, output, resource } from '@angular/core';
import { format } from 'date-fns';
import { Dialog } from 'primeng/dialog';
import { count } from '@core/base';
import type { ShowState } from '@core/shelf';
import { DialogFocusDirective } from '../../widgets/dialog-focus.directive';
import { ShowsStore } from './shows.store';

/** What a show was before, to go back to. */
@Component({
  selector: 'ls-states-dialog',
  imports: [Dialog, DialogFocusDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Earlier versions"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [style]="{ width: '30rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      <ul>
        @for (s of states.value(); track s.id) {
          <li>
            <span
              ><strong>{{ when(s) }}</strong> {{ words(s) }}</span
            >
            <button type="button" class="btn small" (click)="back(s)">Go back to it</button>
          </li>
        } @empty {
          <li class="quiet">This show was not changed since it was made.</li>
        }
      </ul>
    </p-dialog>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 12px;
      padding: 6px 0;
      border-bottom: 1px solid var(--line);
    }
  `,
})
export class StatesDialogComponent {
  private readonly store = inject(ShowsStore);
  readonly closed = output();
  readonly states = resource({ loader: () => this.store.states(), defaultValue: [] });

  when({ at }: ShowState): string {
    return format(at, 'd MMM, HH:mm');
  }

  words({ state }: ShowState): string {
    const spots = state.cues.flatMap((c) => c.spots);
    const filled = spots.filter((s) => s.phrase !== null).length;
    return `${count(state.cues.length, 'cue')}, ${filled} of ${count(spots.length, 'spot')} filled`;
  }

  async back(state: ShowState): Promise<void> {
    await this.store.goBack(state);
    this.closed.emit();
  }
}
