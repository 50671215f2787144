import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { today } from './clock';

/** How often it is looked whether another day has come, in milliseconds. */
const LOOK = 30_000;

/** The practice day it is, followed: over midnight, over a sleep of the device, and where the clock is set. */
@Injectable({ providedIn: 'root' })
export class DayService {
  private readonly state = signal(today());
  readonly today = this.state.asReadonly();

  constructor() {
    const look = (): void => this.state.set(today());
    const timer = setInterval(look, LOOK);
    document.addEventListener('visibilitychange', look);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    });
  }
}
