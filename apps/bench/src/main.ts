import { ErrorHandler, provideBrowserGlobalErrorListeners, provideZonelessChangeDetection } from '@angular/core';
import { bootstrapApplication } from '@angular/platform-browser';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { App } from './app/app';
import { routes } from './app/app.routes';
import { provideOpenedAtOnce } from './app/shared/controls/opened-at-once';
import { FaultHandler } from './app/shared/notices/fault-handler';

bootstrapApplication(App, {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideOpenedAtOnce(),
    { provide: ErrorHandler, useExisting: FaultHandler },
    provideRouter(routes, withComponentInputBinding()),
  ],
}).catch((error: unknown) => console.error(error));
