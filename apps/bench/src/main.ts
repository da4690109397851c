import { ErrorHandler, provideBrowserGlobalErrorListeners, provideZonelessChangeDetection } from '@angular/core';
import { bootstrapApplication, REMOVE_STYLES_ON_COMPONENT_DESTROY } from '@angular/platform-browser';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { App } from './app/app';
import { routes } from './app/app.routes';
import { provideOpenedAtOnce } from './app/shared/controls/opened-at-once';
import { FaultHandler } from './app/shared/notices/fault-handler';

bootstrapApplication(App, {
  providers: [
    // A sheet that comes and goes with the last card of its kind would have the whole page styled anew.
    { provide: REMOVE_STYLES_ON_COMPONENT_DESTROY, useValue: false },
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideOpenedAtOnce(),
    { provide: ErrorHandler, useExisting: FaultHandler },
    provideRouter(routes, withComponentInputBinding()),
  ],
}).catch((error: unknown) => console.error(error));
