import { OverlayContainer } from '@angular/cdk/overlay';
import { provideHttpClient, withFetch } from '@angular/common/http';
import {
  EnvironmentInjector,
  inject,
  provideAppInitializer,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
  type ApplicationConfig,
} from '@angular/core';
import { MAT_FORM_FIELD_DEFAULT_OPTIONS, type MatFormFieldDefaultOptions } from '@angular/material/form-field';
import { MatIconRegistry } from '@angular/material/icon';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { loadBench, routes } from './app.routes';
import { WHAT_COMES_NEXT } from './desk/what-comes-next';

/** The Bench is loaded, and what plans and draws for it has begun, before there is anything to plan or to draw. */
async function readyBench(injector: EnvironmentInjector): Promise<void> {
  await loadBench();
  const [{ Planner }, { PageRenderer }] = await Promise.all([
    import('./workers/planner'),
    import('./pages/page-renderer'),
  ]);
  injector.get(Planner);
  await injector.get(PageRenderer).begin();
}

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideRouter(routes, withComponentInputBinding()),
    provideHttpClient(withFetch()),
    {
      provide: WHAT_COMES_NEXT,
      useFactory: () => {
        const injector = inject(EnvironmentInjector);
        return () => readyBench(injector);
      },
    },
    // What is wrong is said beside a field, so none keeps room for it underneath.
    {
      provide: MAT_FORM_FIELD_DEFAULT_OPTIONS,
      useValue: { appearance: 'outline', subscriptSizing: 'dynamic' } satisfies MatFormFieldDefaultOptions,
    },
    provideAppInitializer(() => {
      inject(MatIconRegistry).setDefaultFontSetClass('material-icons-outlined');
      // Menus lie there too, which are no landmarks by themselves as dialogs are (WAI-ARIA 1.2, region).
      const overlays = inject(OverlayContainer).getContainerElement();
      overlays.setAttribute('role', 'region');
      overlays.setAttribute('aria-label', 'Over the page');
    }),
  ],
};
