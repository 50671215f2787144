import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { KeysService } from './keys.service';

/** What `?` shows: every key that works in the place that is open. */
@Component({
  selector: 'ls-keys-overlay',
  imports: [Dialog],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-dialog
      header="Keys"
      [visible]="true"
      closeAriaLabel="Close"
      [modal]="true"
      [dismissableMask]="true"
      [style]="{ width: '26rem' }"
      (visibleChange)="closed.emit()"
    >
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
    </p-dialog>
  `,
  styles: `
    dl {
      margin: 0 0 12px;
      padding-bottom: 12px;
      border-bottom: 1px solid var(--line);
      columns: 1;
    }
    dl:last-child {
      border: 0;
      margin: 0;
    }
    div {
      display: flex;
      gap: 12px;
      padding: 3px 0;
    }
    dt {
      width: 90px;
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
