import { chooseWay } from '../sending/ways';
import type { Check } from '../plan/plan';
import type { CheckContext, CheckRule } from './context';
import { firstThatHelps, mapRoutes, withRepair } from './repair';

/** The printer cannot take this plan as one job. */
export const separateJobs: CheckRule = (context) => {
  const check = findSeparate(context);
  if (!check) return [];
  const { ticket } = context;
  const { sides, tray } = ticket;
  const alike = mapRoutes(ticket, (route) => (route.sides ? { sides } : {}));
  const fromOne = mapRoutes(ticket, (route) => ({ ...(route.tray ? { tray } : {}) }));
  const repair = firstThatHelps(context, (changed) => findSeparate(changed) !== null, [
    { label: `Print all ${sides}`, patch: { routes: alike } },
    { label: 'Take all paper from one tray', patch: { routes: fromOne } },
  ]);
  return [withRepair(check, repair)];
};

function findSeparate({ plan, printer }: Pick<CheckContext, 'plan' | 'printer'>): Check | null {
  const way = chooseWay(plan, printer);
  if (way === 'part-jobs') {
    const message = `${printer.name} finishes each job by itself, so each part goes as a job of its own.`;
    return { code: 'separate-jobs', level: 'caution', message, sheets: [], pages: [] };
  }
  if (way !== 'separate') return null;
  const message = `${printer.name} cannot change tray or sides within a job, so this goes as several jobs.`;
  return { code: 'separate-jobs', level: 'caution', message, sheets: [], pages: [] };
}
