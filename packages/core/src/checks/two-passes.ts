import { findTray, trayName } from '../printer/printer';
import { inTwoPasses } from '../planning/passes';
import type { CheckRule } from './context';
import { oneSidedThroughout, withRepair } from './repair';

/** Two-sided on a printer without a duplex unit. */
export const twoPasses: CheckRule = (context) => {
  const { plan, printer } = context;
  const back = inTwoPasses(plan)?.[1];
  if (!back) return [];
  const tray = printer.refeedTray === null ? null : findTray(printer, printer.refeedTray);
  const into = tray ? trayName(tray) : 'the tray';
  const how = back.handling === 'as-it-lies' ? 'goes back as it lies' : 'is turned over as a whole and goes back';
  const message = `${printer.name} prints one side at a time: after the fronts the stack ${how} into ${into}.`;
  const check = { code: 'two-passes', level: 'caution', message, sheets: [], pages: [] } as const;
  return [withRepair({ ...check, sheets: [], pages: [] }, oneSidedThroughout(context))];
};
