import { nameWithoutKind } from './name-without-kind';
import type { Ticket } from '@foglio/core';
import { sayTray, type Aspect, type Situation } from './aspect';
import { trayChoices } from './paper';

/** The documents, where a new sheet begins, and what lies between. */

const LONGEST_NAME = 48;

function documentTitle({ ticket, documents, at }: Situation): string {
  const only = ticket.documents.length === 1 && ticket.title !== '';
  return shortened(only ? ticket.title : nameWithoutKind(documents[at]?.name ?? 'a document'));
}

/** A name so long that it would crowd out the rest keeps its beginning and its end, by which names are told apart. */
const shortened = (name: string): string =>
  name.length <= LONGEST_NAME ? name : `${name.slice(0, LONGEST_NAME - 16)}…${name.slice(-15)}`;

type TicketDocument = Ticket['documents'][number];

const documentOf = ({ ticket, at }: Situation): TicketDocument | undefined => ticket.documents[at];

const withDocument = ({ ticket, at }: Situation, change: Partial<TicketDocument>): Partial<Ticket> => ({
  documents: ticket.documents.map((one, index) => (index === at ? { ...one, ...change } : one)),
});

export const title: Aspect = {
  name: 'title',
  title: 'What the job is called',
  offer: null,
  lead: ' of ',
  say: documentTitle,
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
    const degrees = documentOf(situation)?.rotate ?? 0;
    return degrees === 0 ? null : `turned ${degrees}°`;
  },
  plain: (situation) => withDocument(situation, { rotate: 0 }),
  choices: (situation) => [
    { label: 'As they are', patch: withDocument(situation, { rotate: 0 }) },
    { label: 'A quarter turn clockwise', patch: withDocument(situation, { rotate: 90 }) },
    { label: 'Upside down', patch: withDocument(situation, { rotate: 180 }) },
    { label: 'A quarter turn anticlockwise', patch: withDocument(situation, { rotate: 270 }) },
  ],
};

export const numbering: Aspect = {
  name: 'numbering',
  title: 'What page numbers mean',
  offer: 'Pages counted by their printed labels',
  lead: ', ',
  fits: ({ documents }) => documents.length === 1 && documents[0]!.pages.some(({ label }) => label !== undefined),
  say: (situation) => (documentOf(situation)?.numbering === 'labels' ? 'counted by their labels' : null),
  plain: (situation) => withDocument(situation, { numbering: 'position' }),
  choices: (situation) => [
    { label: 'Places in the document, from 1', patch: withDocument(situation, { numbering: 'position' }) },
    { label: 'The labels printed on the pages', patch: withDocument(situation, { numbering: 'labels' }) },
  ],
};

export const newSections: Aspect = {
  name: 'new-sections',
  title: 'Where a section begins',
  offer: 'Each section on a new sheet',
  lead: ', ',
  fits: ({ documents }) => documents.some(({ outline }) => (outline?.length ?? 0) > 0),
  say: ({ ticket }) => (ticket.newSheet.sections ? 'each section on a new sheet' : null),
  plain: ({ ticket }) => ({ newSheet: { ...ticket.newSheet, sections: false } }),
  choices: ({ ticket: { newSheet } }) => [
    { label: 'Right after the one before', patch: { newSheet: { ...newSheet, sections: false } } },
    { label: 'Each on a new sheet', patch: { newSheet: { ...newSheet, sections: true } } },
  ],
};

export const newDocuments: Aspect = {
  name: 'new-documents',
  title: 'Where a document begins',
  offer: 'One document right after the other',
  lead: ', ',
  fits: ({ ticket }) => ticket.documents.length > 1,
  say: ({ ticket }) =>
    !ticket.newSheet.documents && ticket.documents.length > 1 ? 'one document right after the other' : null,
  plain: ({ ticket }) => ({ newSheet: { ...ticket.newSheet, documents: true } }),
  choices: ({ ticket: { newSheet } }) => [
    { label: 'Each on a new sheet', patch: { newSheet: { ...newSheet, documents: true } } },
    { label: 'On the sheet where the one before ends', patch: { newSheet: { ...newSheet, documents: false } } },
  ],
};

export const slips: Aspect = {
  name: 'slips',
  title: 'Blank slips',
  offer: 'Blank slips between sets or documents',
  lead: ', ',
  say: ({ ticket: { slips: put } }) => (put.between === 'nothing' ? null : `with a blank slip between ${put.between}`),
  plain: ({ ticket }) => ({ slips: { ...ticket.slips, between: 'nothing' } }),
  choices: ({ ticket }) => [
    { label: 'No slips', patch: { slips: { ...ticket.slips, between: 'nothing' } } },
    { label: 'A blank sheet between sets', patch: { slips: { ...ticket.slips, between: 'sets' } } },
    { label: 'A blank sheet between documents', patch: { slips: { ...ticket.slips, between: 'documents' } } },
  ],
};

export const slipTray: Aspect = {
  name: 'slip-tray',
  title: 'The paper of the slips',
  offer: 'Slips from a tray of their own',
  lead: ' from ',
  fits: ({ ticket }) => ticket.slips.between !== 'nothing',
  say: ({ ticket: { slips: put }, printer }) =>
    put.between === 'nothing' || put.tray === null ? null : sayTray(put.tray, printer),
  plain: ({ ticket }) => ({ slips: { ...ticket.slips, tray: null } }),
  choices: (situation) => {
    const from = (id: string | null): Partial<Ticket> => ({ slips: { ...situation.ticket.slips, tray: id } });
    return [
      { label: 'Whichever tray holds the paper of the sheet before', patch: from(null) },
      ...trayChoices(situation, from),
    ];
  },
};

export const delivery: Aspect = {
  name: 'delivery',
  title: 'Which sheet is printed first',
  offer: 'The last sheet first',
  lead: ', ',
  say: ({ ticket }) => (ticket.delivery === 'last-to-first' ? 'last sheet first' : null),
  plain: () => ({ delivery: 'first-to-last' }),
  choices: () => [
    { label: 'The first sheet first', patch: { delivery: 'first-to-last' } },
    { label: 'The last sheet first, for printers that stack face up', patch: { delivery: 'last-to-first' } },
  ],
};
