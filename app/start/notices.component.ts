import { afterNextRender, ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Toast } from 'primeng/toast';
import { NoticesService, type NoticeAction } from '../common/notices.service';

/** Where notices stand. It is fetched once the page is there, and made when the first notice is given. */
@Component({
  selector: 'ls-notices',
  imports: [Toast],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-toast position="bottom-center">
      <ng-template #message let-message>
        <div class="notice">
          <span>{{ message.detail }}</span>
          @if (actionOf(message.data); as action) {
            <button type="button" class="btn small" (click)="act(action)">{{ action.label }}</button>
          }
          <button type="button" class="btn small plain" aria-label="Close this notice" (click)="notices.close()">
            <i class="pi pi-times" aria-hidden="true"></i>
          </button>
        </div>
      </ng-template>
    </p-toast>
  `,
  styles: `
    :host {
      display: contents;
    }
    .notice {
      display: flex;
      gap: 12px;
      align-items: center;
      flex: 1;
      overflow-wrap: anywhere;
    }
    .notice span {
      flex: 1;
      max-height: 6em;
      overflow: hidden;
    }
  `,
})
export class NoticesComponent {
  readonly notices = inject(NoticesService);

  constructor() {
    afterNextRender(() => this.notices.stand());
  }

  actionOf(data: unknown): NoticeAction | null {
    return typeof data === 'object' && data !== null && 'run' in data ? (data as NoticeAction) : null;
  }

  act(action: NoticeAction): void {
    this.notices.close();
    action.run();
  }
}
