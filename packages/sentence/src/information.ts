import { sayTray, type Aspect } from './aspect';
import { choicesOf } from './field';
import { trayLabels } from './paper';

/** The sheet before the job that says what it is. */

export const information: Aspect = {
  name: 'information-sheet',
  title: 'The information sheet',
  offer: 'An information sheet before the job',
  lead: ', ',
  say: ({ ticket: { informationSheet: sheet } }) => {
    if (!sheet.print) return null;
    return `with an information sheet before it${sheet.by.trim() === '' ? '' : `, printed by ${sheet.by.trim()}`}`;
  },
  fields: ['informationSheet.print'],
  choices: (situation) =>
    choicesOf(situation, 'informationSheet.print', [
      [false, 'None'],
      [true, 'One sheet before the job'],
    ]),
  text: ({ ticket }) => ({
    label: 'Printed by',
    value: ticket.informationSheet.by,
    patch: (by) => ({ informationSheet: { ...ticket.informationSheet, print: true, by } }),
  }),
};

export const informationTray: Aspect = {
  name: 'information-tray',
  title: 'The paper of the information sheet',
  offer: 'The information sheet from a tray of its own',
  lead: ', ',
  fits: ({ ticket }) => ticket.informationSheet.print,
  say: ({ ticket: { informationSheet: sheet }, printer }) =>
    sheet.print && sheet.tray !== null ? `that sheet from ${sayTray(sheet.tray, printer)}` : null,
  fields: ['informationSheet.tray'],
  choices: (situation) =>
    choicesOf(situation, 'informationSheet.tray', [
      [null, 'Whichever tray holds the paper of the first sheet'],
      ...trayLabels(situation),
    ]),
};
