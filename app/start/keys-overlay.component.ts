import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { DialogFocusDirective } from '../widgets/dialog-focus.directive';
import { KeysService } from '../common/keys.service';

/** What `?` shows: every key that works in the place that is open. */
@Component({
  selector: 'ls-keys-overlay',
  imports: [Dialog, DialogFocusDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Keys"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [dismissableMask]="true"
      [style]="{ width: '54rem', maxWidth: '94vw' }"
      (visibleChange)="closed.emit()"
    >
      <div class="list" tabindex="0" role="region" aria-label="Keys of this place">
        @for (group of keys.all(); track $index) {
          <dl>
            @for (key of group; track key.combo) {
              <div>
                <dt>
                  <kbd>{{ key.shown }}</kbd>
                </dt>
                <dd>{{ key.does }}</dd>
              </div>
            }
          </dl>
        }
      </div>
    </p-dialog>
  `,
  styles: `
    dl {
      margin: 0 0 12px;
      padding-bottom: 12px;
      border-bottom: 1px solid var(--line);
      columns: 22rem 2;
      column-gap: 24px;
    }
    .list {
      max-height: 62vh;
      overflow: auto;
    }
    dl:last-child {
      border: 0;
      margin: 0;
    }
    dl > div {
      break-inside: avoid;
      display: flex;
      gap: 12px;
      padding: 3px 0;
    }
    dt {
      width: 96px;
      flex: none;
    }
    dd {
      margin: 0;
    }
  `,
})
export class KeysOverlayComponent {
  readonly keys = inject(KeysService);
  readonly closed = output();
}
