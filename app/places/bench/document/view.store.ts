import { Injectable, signal } from '@angular/core';

/** What stands under the ribbon. */
export type Lower = 'staff' | 'paths' | 'compare';
/** What lies over the lower half of the middle. */
export type Sheet = 'variants' | 'sticking' | 'compose';

/** What is open on the Bench: under the ribbon, over its lower half, over all of it. Provided by the Bench. */
@Injectable()
export class ViewStore {
  readonly lower = signal<Lower | null>('staff');
  readonly sheet = signal<Sheet | null>(null);
  readonly printing = signal(false);
  readonly takingAlong = signal(false);
  /** What is brought in from a file; with one that was dropped here. */
  readonly bringing = signal<{ readonly file: File | null } | null>(null);
  readonly pickingSource = signal(false);
  /** Ticks that are pointed at, from the pattern's start. */
  readonly pointed = signal<readonly number[]>([]);

  toggleLower(what: Lower): void {
    this.lower.update((now) => (now === what ? null : what));
  }

  toggleSheet(what: Sheet): void {
    this.sheet.update((now) => (now === what ? null : what));
  }

  closeSheet(): void {
    this.sheet.set(null);
  }

  /** What was chosen to be compared is laid beneath the phrase. */
  layBeneath(): void {
    this.closeSheet();
    this.lower.set('compare');
  }
}
