import { sayTray, type Aspect } from './aspect';
import { trayChoices } from './paper';

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
  plain: ({ ticket }) => ({ informationSheet: { ...ticket.informationSheet, print: false } }),
  choices: ({ ticket }) => [
    { label: 'None', patch: { informationSheet: { ...ticket.informationSheet, print: false } } },
    { label: 'One sheet before the job', patch: { informationSheet: { ...ticket.informationSheet, print: true } } },
  ],
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
  plain: ({ ticket }) => ({ informationSheet: { ...ticket.informationSheet, tray: null } }),
  choices: (situation) => {
    const from = (tray: string | null) => ({ informationSheet: { ...situation.ticket.informationSheet, tray } });
    return [
      { label: 'Whichever tray holds the paper of the first sheet', patch: from(null) },
      ...trayChoices(situation, from),
    ];
  },
};
