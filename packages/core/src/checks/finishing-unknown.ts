import type { Check } from '../plan/plan';
import { sayFinishing } from '../settings/finishing-said';
import { canBeFinished } from '../sending/ways';
import type { CheckRule } from './context';
import { finishingsOf, has, insteadOf, leaveOut } from './finishing';
import { firstThatHelps, withRepair } from './repair';
import { listOf } from './words';

/** The printer cannot do it, or not to sheets that reach it like these. */
export const finishingUnknown: CheckRule = (context) => {
  const { plan, printer, ticket } = context;
  const names = finishingsOf(plan);
  if (names.length === 0) return [];
  const check = (message: string): Check => ({
    code: 'finishing-unknown',
    level: 'stop',
    message,
    sheets: [],
    pages: [],
  });
  const unknown = names.filter((name) => !has(printer, name, plan));
  if (unknown.length > 0) {
    const [first] = unknown as [(typeof unknown)[number]];
    const there = printer.finishings.length > 0 ? '' : ' It has no finisher, as far as it says.';
    const message = `${printer.name} has not ${listOf(unknown.map(sayFinishing))}.${there}`;
    const stands = (changed: typeof context): boolean =>
      finishingsOf(changed.plan).some((name) => !has(printer, name, changed.plan));
    const other = insteadOf(first, context);
    return [withRepair(check(message), firstThatHelps(context, stands, [other, leaveOut(ticket, unknown)]))];
  }
  if (canBeFinished(plan, printer)) return [];
  const what = listOf(names.map(sayFinishing));
  const message = plan.passes
    ? `${what[0]!.toUpperCase()}${what.slice(1)}: not on sheets that go through ${printer.name} twice, or with one face alone.`
    : `${printer.name} takes these sheets as several jobs, and does this to each job by itself: ${what}.`;
  const alike = ticket.routes.map((route) => ({ ...route, ...(route.sides ? { sides: ticket.sides } : {}) }));
  const repair = firstThatHelps(context, (changed) => !canBeFinished(changed.plan, printer), [
    plan.passes ? { label: 'Print one-sided', patch: { sides: 'one-sided', faces: 'both', routes: alike } } : null,
    leaveOut(ticket, names),
  ]);
  return [withRepair(check(message), repair)];
};
