import { plan as makePlan, type Check, type DocumentFacts, type Plan, type PrinterInput } from '../src';
import { readPlan, readPrinter, readTicket } from '../src/validate';
import { OFFICE, type Settings } from './jobs';

export const codes = (plan: Plan): string[] => plan.checks.map(({ code }) => code);

interface Situation {
  readonly settings: Settings;
  readonly documents: readonly DocumentFacts[];
  readonly printer?: PrinterInput;
}

/** The one check of that code, and the plan after its repair, which must be a ticket that can be read again. */
export function settle(code: Check['code'], { settings, documents, printer = OFFICE }: Situation) {
  const { pages, ...rest } = settings;
  const entries = documents.map(({ name }) => ({ file: name, ...(pages === undefined ? {} : { pages }) }));
  const ticket = readTicket({ version: 1, documents: entries, ...rest });
  const before = makePlan(ticket, documents, readPrinter(printer));
  const check = before.checks.find((one) => one.code === code);
  if (!check) throw new Error(`no ${code} among ${codes(before).join(', ')}`);
  expect(readPlan(before)).toEqual(before);
  if (!check.repair) return { check, before, after: null };
  const repaired = readTicket({ ...ticket, ...check.repair.patch });
  const after = makePlan(repaired, documents, readPrinter(printer));
  expect(codes(after)).not.toContain(code);
  return { check, before, after };
}

export const traysOf = (plan: Plan | null): (string | null)[] => plan!.sheets.map(({ tray }) => tray);
