import { nameWithoutKind } from './name-without-kind';
import { sayTray, type Aspect } from './aspect';
import type { Situation } from './situation';
import { choicesOf, valueAt } from './field';
import { trayLabels } from './paper';

/** The documents, where a new sheet begins, and what lies between. */

const LONGEST_NAME = 48;

function documentTitle({ ticket, documents, at }: Situation): string {
  const only = ticket.documents.length === 1 && ticket.title !== '';
  return shortened(only ? ticket.title : nameWithoutKind(documents[at]?.name ?? 'a document'));
}

/** A name so long that it would crowd out the rest keeps its beginning and its end, by which names are told apart. */
const shortened = (name: string): string =>
  name.length <= LONGEST_NAME ? name : `${name.slice(0, LONGEST_NAME - 16)}…${name.slice(-15)}`;

export const title: Aspect = {
  name: 'title',
  title: 'What the job is called',
  offer: null,
  lead: ' of ',
  say: documentTitle,
  fields: ['title'],
  // A job keeps its name.
  plain: ({ ticket }) => ({ title: ticket.title }),
  text: ({ ticket }) => ({ label: 'Title', value: ticket.title, patch: (value) => ({ title: value }) }),
};

export const rotate: Aspect = {
  name: 'rotate',
  title: 'Turning all pages of the document',
  offer: 'All pages turned',
  lead: ', ',
  // Of several documents each is turned from the shelf, where one sees which.
  fits: ({ ticket }) => ticket.documents.length === 1,
  say: (situation) => {
    const degrees = valueAt(situation, 'documents.rotate') ?? 0;
    return degrees === 0 ? null : `turned ${degrees}°`;
  },
  fields: ['documents.rotate'],
  choices: (situation) =>
    choicesOf(situation, 'documents.rotate', [
      [0, 'As they are'],
      [90, 'A quarter turn clockwise'],
      [180, 'Upside down'],
      [270, 'A quarter turn anticlockwise'],
    ]),
};

export const numbering: Aspect = {
  name: 'numbering',
  title: 'What page numbers mean',
  offer: 'Pages counted by their printed labels',
  lead: ', ',
  fits: ({ documents }) => documents.length === 1 && documents[0]!.pages.some(({ label }) => label !== undefined),
  say: (situation) => (valueAt(situation, 'documents.numbering') === 'labels' ? 'counted by their labels' : null),
  fields: ['documents.numbering'],
  choices: (situation) =>
    choicesOf(situation, 'documents.numbering', [
      ['position', 'Places in the document, from 1'],
      ['labels', 'The labels printed on the pages'],
    ]),
};

export const inTurn: Aspect = {
  name: 'in-turn',
  title: 'The order of the documents',
  offer: 'The documents in turn',
  lead: ', ',
  fits: ({ ticket }) => ticket.documents.length > 1,
  say: ({ ticket }) => (ticket.inTurn && ticket.documents.length > 1 ? 'a page of each in turn' : null),
  fields: ['inTurn'],
  choices: (situation) =>
    choicesOf(situation, 'inTurn', [
      [false, 'One document after the other'],
      [true, 'In turn: the first page of each, then the second of each'],
    ]),
};

export const newSections: Aspect = {
  name: 'new-sections',
  title: 'Where a section begins',
  offer: 'Each section on a new sheet',
  lead: ', ',
  fits: ({ ticket, documents }) => !ticket.inTurn && documents.some(({ outline }) => (outline?.length ?? 0) > 0),
  say: ({ ticket }) => (ticket.newSheet.sections && !ticket.inTurn ? 'each section on a new sheet' : null),
  fields: ['newSheet.sections'],
  choices: (situation) =>
    choicesOf(situation, 'newSheet.sections', [
      [false, 'Right after the one before'],
      [true, 'Each on a new sheet'],
    ]),
};

export const newDocuments: Aspect = {
  name: 'new-documents',
  title: 'Where a document begins',
  offer: 'One document right after the other',
  lead: ', ',
  fits: ({ ticket }) => ticket.documents.length > 1 && !ticket.inTurn,
  say: ({ ticket }) =>
    !ticket.newSheet.documents && ticket.documents.length > 1 && !ticket.inTurn
      ? 'one document right after the other'
      : null,
  fields: ['newSheet.documents'],
  choices: (situation) =>
    choicesOf(situation, 'newSheet.documents', [
      [true, 'Each on a new sheet'],
      [false, 'On the sheet where the one before ends'],
    ]),
};

export const slips: Aspect = {
  name: 'slips',
  title: 'Blank slips',
  offer: 'Blank slips between sets or documents',
  lead: ', ',
  say: ({ ticket: { slips: put, inTurn: turns } }) =>
    put.between === 'nothing' || (turns && put.between === 'documents')
      ? null
      : `with a blank slip between ${put.between}`,
  fields: ['slips.between'],
  choices: (situation) =>
    choicesOf(situation, 'slips.between', [
      ['nothing', 'No slips'],
      ['sets', 'A blank sheet between sets'],
      ['documents', 'A blank sheet between documents'],
    ]),
};

export const slipTray: Aspect = {
  name: 'slip-tray',
  title: 'The paper of the slips',
  offer: 'Slips from a tray of their own',
  lead: ' from ',
  fits: ({ ticket }) => ticket.slips.between !== 'nothing',
  say: ({ ticket: { slips: put }, printer }) =>
    put.between === 'nothing' || put.tray === null ? null : sayTray(put.tray, printer),
  fields: ['slips.tray'],
  choices: (situation) =>
    choicesOf(situation, 'slips.tray', [
      [null, 'Whichever tray holds the paper of the sheet before'],
      ...trayLabels(situation),
    ]),
};

export const delivery: Aspect = {
  name: 'delivery',
  title: 'Which sheet is printed first',
  offer: 'The last sheet first',
  lead: ', ',
  say: ({ ticket }) => (ticket.delivery === 'last-to-first' ? 'last sheet first' : null),
  fields: ['delivery'],
  choices: (situation) =>
    choicesOf(situation, 'delivery', [
      ['first-to-last', 'The first sheet first'],
      ['last-to-first', 'The last sheet first, for printers that stack face up'],
    ]),
};
