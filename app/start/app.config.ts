import {
  type ApplicationConfig,
  inject,
  isDevMode,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withDisabledInitialNavigation } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { MessageService } from 'primeng/api';
import { BaseStyle } from 'primeng/base';
import { providePrimeNG } from 'primeng/config';
import { UseStyle } from 'primeng/usestyle';
import { delay, from, type Observable, race, timer } from 'rxjs';
import { Database } from '../storage/database';
import { nextTask } from '../common/idle';
import { BuiltSheet, BuiltStyle } from './built-styles';
import { routes } from './routes';

const AT_ONCE = { disabled: true };

/** How long the place that was opened has the machine and the disk to itself once the shelf can be read, in ms. */
const PEACE = 1500;
/** After so long all is kept for work without a network even where the shelf never answered, in ms. */
const AT_LAST = 30_000;

/** When everything is fetched and kept for work without a network: what the player waits for comes first. */
function whenShelfStands(): Observable<unknown> {
  return race(from(inject(Database).ready).pipe(delay(PEACE)), timer(AT_LAST));
}

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    // The shell is made in a task of its own, after what it is made from, and goes to its first place in the next.
    provideAppInitializer(nextTask),
    provideRouter(routes, withComponentInputBinding(), withDisabledInitialNavigation()),
    providePrimeNG({
      ripple: false,
      // What is opened is there at once: with sticks in hand nobody waits for it to come in.
      pt: { dialog: { motion: AT_ONCE, ...{ maskMotion: AT_ONCE } } },
      theme: 'none',
    }),
    { provide: BaseStyle, useClass: BuiltStyle },
    { provide: UseStyle, useClass: BuiltSheet },
    MessageService,
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: whenShelfStands }),
  ],
};
