import {
  type ApplicationConfig,
  isDevMode,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withDisabledInitialNavigation } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { MessageService } from 'primeng/api';
import { providePrimeNG } from 'primeng/config';
import { nextTask } from '../ui/idle';
import { ShelfPreset } from './preset';
import { routes } from './routes';

const AT_ONCE = { disabled: true };

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
      theme: {
        preset: ShelfPreset,
        options: { darkModeSelector: '.dark', cssLayer: { name: 'primeng', order: 'primeng, app' } },
      },
    }),
    MessageService,
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: 'registerWhenStable:30000' }),
  ],
};
