import { inject, Injectable, signal } from '@angular/core';
import { MessageService } from 'primeng/api';

/** Something that can be taken back or tried again from a notice. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** Short notices: what was done, with the way back. Troubles that stay are shown by the shell from the data layer. */
@Injectable({ providedIn: 'root' })
export class NoticesService {
  private readonly messages = inject(MessageService);
  readonly last = signal('');

  tell(text: string, action?: NoticeAction): void {
    this.show('info', text, action);
  }

  wrong(text: string, action?: NoticeAction): void {
    this.show('error', text, action);
  }

  private show(severity: 'info' | 'error', text: string, action?: NoticeAction): void {
    this.last.set(text);
    this.messages.clear();
    this.messages.add({
      severity,
      detail: text,
      // The package's own button takes the keys as soon as it is there: the next Space would press it.
      closable: false,
      life: severity === 'error' ? 12_000 : 6000,
      ...(action ? { data: action } : {}),
    });
  }

  close(): void {
    this.messages.clear();
  }
}
