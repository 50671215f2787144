import { DestroyRef, inject, Injectable, signal } from '@angular/core';

/** How long is played before a break is called to mind, in milliseconds. */
const BREAK_AFTER = 25 * 60_000;
/** A pause this long counts as a break. */
const BREAK = 4 * 60_000;

/**
 * Keeps the screen awake while a rung is played, and calls a break to mind after 25 minutes, between rungs and once.
 */
@Injectable({ providedIn: 'root' })
export class PracticeGuard {
  private readonly noteState = signal<string | null>(null);
  readonly note = this.noteState.asReadonly();
  private lock: WakeLockSentinel | null = null;
  private since: number | null = null;
  private paused: number | null = null;
  private told = false;
  private on = false;

  constructor() {
    // A page that was out of sight lost its lock; it is taken again when it is seen.
    const seen = (): void => {
      if (document.visibilityState !== 'visible') this.lock = null;
      else if (this.on) void this.wake();
    };
    document.addEventListener('visibilitychange', seen);
    inject(DestroyRef).onDestroy(() => document.removeEventListener('visibilitychange', seen));
  }

  playing(on: boolean): void {
    this.on = on;
    const now = Date.now();
    if (on) {
      if (this.since === null || (this.paused !== null && now - this.paused > BREAK)) {
        this.since = now;
        this.told = false;
      }
      this.paused = null;
      void this.wake();
    } else {
      this.paused ??= now;
      // Never into a rung: the reminder comes when it is over.
      if (this.since !== null && !this.told && now - this.since > BREAK_AFTER) {
        this.told = true;
        this.noteState.set('25 minutes played. Put the sticks down, shake out your hands, rest your ears.');
      }
      void this.lock?.release().catch(() => undefined);
      this.lock = null;
    }
  }

  dismiss(): void {
    this.noteState.set(null);
  }

  private async wake(): Promise<void> {
    try {
      // Not every browser has it, and it may be refused: then the screen behaves as it always does.
      if ('wakeLock' in navigator && !this.lock) this.lock = await navigator.wakeLock.request('screen');
    } catch {
      this.lock = null;
    }
  }
}
