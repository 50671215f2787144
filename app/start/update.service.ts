import { inject, Injectable, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { HealthService } from '../storage/health.service';

/** How often it is looked for a newer version while a tab stays open, in milliseconds. */
const LOOK_EVERY = 60 * 60 * 1000;

/** Whether all of the application is kept for work without a network, and whether a newer version waits. */
@Injectable({ providedIn: 'root' })
export class UpdateService {
  private readonly updates = inject(SwUpdate, { optional: true });
  private readonly health = inject(HealthService);
  private readonly offlineState = signal(false);
  private readonly newerState = signal(false);
  /** Whether everything works without a network: once the last file was kept, not when the worker is there. */
  readonly offline = this.offlineState.asReadonly();
  /** Whether a newer version is kept and waits to be taken. */
  readonly newer = this.newerState.asReadonly();

  start(): void {
    const { updates } = this;
    if (!updates?.isEnabled) return;
    updates.versionUpdates.subscribe((event) => {
      if (event.type === 'VERSION_READY') this.newerState.set(true);
    });
    updates.unrecoverable.subscribe(() =>
      this.health.tell('A part of Loop Shelf is missing. Your work is safe. Reload the page.'),
    );
    void this.look();
    setInterval(() => void this.look(), LOOK_EVERY);
  }

  /** The newer version, when the player wishes. What is in hand is kept already, or the browser asks. */
  take(): void {
    location.reload();
  }

  later(): void {
    this.newerState.set(false);
  }

  private async look(): Promise<void> {
    try {
      // It is answered when every file is kept.
      await this.updates?.checkForUpdate();
      this.offlineState.set(true);
    } catch {
      // Without a network there is nothing newer; what is kept works on.
      if (navigator.serviceWorker.controller) this.offlineState.set(true);
    }
  }
}
