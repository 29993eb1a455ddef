import { OverlayContainer } from '@angular/cdk/overlay';
import { provideHttpClient, withFetch } from '@angular/common/http';
import {
  inject,
  isDevMode,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
  type EnvironmentProviders,
} from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { provideStoreDevtools } from '@ngrx/store-devtools';
import { routes } from './app.routes';
import * as benchEffects from './state/bench.effects';
import { benchFeature } from './state/bench.state';
import { act, listen, queueFeature } from './state/queue.state';

declare const ngDevMode: unknown;

/** `ngDevMode` is known to the bundler, so that the tools are left out of the production build. */
const devtools = (): EnvironmentProviders[] =>
  typeof ngDevMode === 'undefined' || ngDevMode ? [provideStoreDevtools({ logOnly: !isDevMode() })] : [];

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideRouter(routes, withComponentInputBinding()),
    provideHttpClient(withFetch()),
    provideStore({ [benchFeature.name]: benchFeature.reducer, [queueFeature.name]: queueFeature.reducer }),
    provideEffects(benchEffects, { listen, act }),
    provideAppInitializer(() => {
      inject(MatIconRegistry).setDefaultFontSetClass('material-icons-outlined');
      // Menus lie there too, which are no landmarks by themselves as dialogs are (WAI-ARIA 1.2, region).
      const overlays = inject(OverlayContainer).getContainerElement();
      overlays.setAttribute('role', 'region');
      overlays.setAttribute('aria-label', 'Over the page');
    }),
    ...devtools(),
  ],
};
