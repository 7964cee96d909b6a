import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import {
  ErrorHandler,
  isDevMode,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
} from '@angular/core';
import { provideServiceWorker } from '@angular/service-worker';
import { provideRouter, withComponentInputBinding, withInMemoryScrolling } from '@angular/router';
import { routes } from './app.routes';
import { askedEarly } from './data/asked-early';
import { hearsClock } from './data/clock';
import { whenIdle } from './data/platform';
import { hearsRevision } from './data/revision';
import { FaultsTold, tellOfUpdates } from './shell/app-update';

export const appConfig: ApplicationConfig = {
  providers: [
    provideBrowserGlobalErrorListeners(),
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([hearsClock, hearsRevision, askedEarly])),
    provideAppInitializer(tellOfUpdates),
    { provide: ErrorHandler, useClass: FaultsTold },
    // When nobody waits for anything: keeping the app must not slow the first clicks down.
    provideServiceWorker('worker.js', {
      enabled: !isDevMode(),
      registrationStrategy: whenIdle,
    }),
    provideRouter(
      routes,
      withComponentInputBinding(),
      withInMemoryScrolling({ scrollPositionRestoration: 'top' }),
    ),
  ],
};
