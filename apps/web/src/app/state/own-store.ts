import { createEnvironmentInjector, type EnvironmentInjector } from '@angular/core';
import { Actions, EffectSources, EffectsRunner, provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import * as benchEffects from './bench.effects';
import { benchFeature } from './bench.state';
import * as queueEffects from './queue.effects';
import { queueFeature } from './queue.state';

/**
 * A screen's store, with its effects. It lives and dies with the injector: whatever comes once the screen is left finds
 * nothing that it could change, and no timer goes on. Effects find `Store` and `Actions` as anywhere else.
 */
const own = [Actions, EffectSources, EffectsRunner];

/** The store of one job, or set-up, that is open. */
export const benchStore = (parent: EnvironmentInjector): EnvironmentInjector =>
  createEnvironmentInjector(
    [provideStore({ [benchFeature.name]: benchFeature.reducer }), own, provideEffects(benchEffects)],
    parent,
    'Bench',
  );

/** The store of the Queue. */
export const queueStore = (parent: EnvironmentInjector): EnvironmentInjector =>
  createEnvironmentInjector(
    [provideStore({ [queueFeature.name]: queueFeature.reducer }), own, provideEffects(queueEffects)],
    parent,
    'Queue',
  );
