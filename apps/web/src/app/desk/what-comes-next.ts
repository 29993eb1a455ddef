import { InjectionToken } from '@angular/core';

/** Readies the screen in which a new job opens; called while its documents are on their way, and nothing waits for it. */
export const WHAT_COMES_NEXT = new InjectionToken<() => Promise<unknown>>('the screen of a new job', {
  factory: () => () => Promise.resolve(),
});
