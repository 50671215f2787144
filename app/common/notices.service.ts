import { inject, Injectable, signal } from '@angular/core';
import { MessageService, type ToastMessageOptions } from 'primeng/api';

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
  private readonly wantedState = signal(false);
  /** Whether a notice was ever given: until then nothing has to be there to show one. */
  readonly wanted = this.wantedState.asReadonly();
  /** The notice that came before there was a place for it. */
  private waiting: ToastMessageOptions | null = null;
  private stands = false;

  tell(text: string, action?: NoticeAction): void {
    this.show('info', text, action);
  }

  wrong(text: string, action?: NoticeAction): void {
    this.show('error', text, action);
  }

  private show(severity: 'info' | 'error', text: string, action?: NoticeAction): void {
    this.last.set(text);
    this.wantedState.set(true);
    const notice: ToastMessageOptions = {
      severity,
      detail: text,
      // The package's own button takes the keys as soon as it is there: the next Space would press it.
      closable: false,
      life: severity === 'error' ? 12_000 : 6000,
      ...(action ? { data: action } : {}),
    };
    if (!this.stands) this.waiting = notice;
    this.messages.clear();
    this.messages.add(notice);
  }

  /** There is a place for notices from now on; the one that waited for it is shown. */
  stand(): void {
    this.stands = true;
    if (this.waiting) this.messages.add(this.waiting);
    this.waiting = null;
  }

  close(): void {
    this.waiting = null;
    this.messages.clear();
  }
}
