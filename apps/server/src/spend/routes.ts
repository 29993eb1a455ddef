import { sayCheaper, saySpentKind } from '@foglio/sentence';
import type { Database } from '../database/connection';
import type { Handlers } from '../http/bind';
import { saveAs, writeCsv } from '../http/download';
import { Problem } from '../http/problem';
import { listSpent, spendOf, type Which } from './spend-store';

const LIST_HEAD = [
  'Day',
  'Printer',
  'Job',
  'Set-up',
  'Kind',
  'Sheets',
  'Two-sided sheets',
  'Sides',
  'Colour sides',
  'Grey sides billed as colour',
  'Paper €',
  'Printing €',
  'In all €',
  'Of it for colour on grey sides €',
  'Sheets saved',
  'Saved €',
  'Printed again',
  'Would have cost less',
  'Less by €',
] as const;

const AGAIN = { 'broken-off': 'after it was broken off', wished: 'yes' } as const;

/** What was printed and paid for. */
export function spendHandlers(db: Database): Handlers<'spend' | 'spendList'> {
  return {
    spend: ({ query }) => spendOf(db, inOrder(query)),
    spendList: async ({ query, response }) => {
      const which = inOrder(query);
      const rows = (await listSpent(db, which)).map((one) => [
        one.day,
        one.printerName,
        one.title,
        one.setupName ?? '',
        saySpentKind(one.kind),
        ...[one.sheets, one.twoSidedSheets, one.sides, one.colorSides, one.graySides],
        ...[one.paper, one.printing, Number((one.paper + one.printing).toFixed(4)), one.gray],
        ...[one.savedSheets, one.saved],
        one.again === null ? '' : AGAIN[one.again],
        one.cheaperWay === null ? '' : sayCheaper(one.cheaperWay, one.cheaperText),
        one.cheaperSaves,
      ]);
      saveAs(response, `Spend ${which.from} to ${which.to}`, '.csv');
      response.send(writeCsv([LIST_HEAD, ...rows]));
    },
  };
}

/** @throws Problem `body-invalid` where the last day is before the first */
function inOrder(which: Which): Which {
  if (which.to < which.from) throw new Problem('body-invalid', '“to” is before “from”: ask for days in their order.');
  return which;
}
