import type { Check, Plan } from '@foglio/core';
import { complain } from './terminal';

/** What has to be settled before anything is printed or written. */
export const stopsOf = (plan: Plan): Check[] => plan.checks.filter((check) => check.level === 'stop');

/** Says it. @returns whether anything has to be settled */
export function complainOfStops(file: string, plan: Plan): boolean {
  const stops = stopsOf(plan);
  stops.forEach((check) => complain(`${file}: ${check.message}`));
  return stops.length > 0;
}
