import type { LaidOut } from '../pages/laid-out';
import { fitsAnyDocument } from '../pages/selection-general';
import { plainTicket } from './plain-ticket';
import type { Route, Ticket } from './ticket';

/**
 * A set-up is a ticket without its documents: in their place stands one document, or one for each way it is printed in,
 * whose file is this. So whatever reads a ticket reads a set-up.
 */
export const ANY_FILE = '*';

/** Whether a ticket names no files of its own. */
export const isSetup = ({ documents }: Pick<Ticket, 'documents'>): boolean =>
  documents.every(({ file }) => file === ANY_FILE);

type Entry = Ticket['documents'][number];

/** A file as it is given to a set-up; what came attached to a mail says so in the form that it was laid out in. */
export type SetupFile = string | { readonly id: string; readonly laid?: Pick<LaidOut, 'form'> };

/** What a file has that is its own, whatever the set-up: that it is an attachment. */
export function entryFor<T extends Pick<Entry, 'file' | 'form'>>(entry: T, file: SetupFile): T {
  const { attachment: _, ...form } = entry.form;
  if (typeof file === 'string') return { ...entry, file, form };
  const attachment = file.laid?.form.attachment;
  return { ...entry, file: file.id, form: attachment === undefined ? form : { ...form, attachment } };
}

/**
 * What of a ticket can be had again for other files: all but its title and its documents. Where it prints one file in
 * several ways, all of them; of several files how they are read, if they are read alike, and their routes for any file.
 */
export function setupOf(ticket: Ticket): Ticket {
  const { documents: named } = ticket;
  const documents = named.map((one) => entryFor(one, one.file));
  const sources = new Set(named.map(({ file, form }) => `${form.attachment ?? ''} ${file}`));
  const isOneFile = sources.size === 1;
  // Who prints a job is not of the set-up.
  const informationSheet = { ...ticket.informationSheet, by: '' };
  if (isOneFile)
    return { ...ticket, title: '', informationSheet, documents: documents.map((one) => ({ ...one, file: ANY_FILE })) };
  const routes = ticket.routes.map(forAnyDocument);
  return {
    ...ticket,
    title: '',
    informationSheet,
    documents: [commonEntry(documents)],
    routes: routes.filter((one, at) => routes.findIndex((other) => isSame(one, other)) === at),
  };
}

function commonEntry(documents: readonly Entry[]): Entry {
  const [first] = documents.map((one) => ({ ...one, file: ANY_FILE }));
  const isCommon = documents.every((one) => isSame({ ...one, file: ANY_FILE }, first));
  return isCommon && first ? first : plainTicket([ANY_FILE]).documents[0]!;
}

function forAnyDocument({ document: _, ...route }: Route): Route {
  return route;
}

/** Written in one order, as all are that were read by one schema. */
const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * The ticket that a set-up makes of these files, in their order. Its routes are about any file: pages that a short one has
 * not match nothing (model, Ticket), which the checks tell where a route then changes nothing.
 */
export function applySetup(setup: Ticket, files: readonly SetupFile[], title = ''): Ticket {
  const ways = setup.documents.length;
  const documents = files.flatMap((file) => setup.documents.map((one) => entryFor(one, file)));
  const routes = setup.routes.flatMap((route): Route[] => {
    if (ways === 1) return [forAnyDocument(route)];
    const { document } = route;
    return document === undefined ? [route] : files.map((_, at) => ({ ...route, document: at * ways + document }));
  });
  return { ...setup, title, documents, routes };
}

/** A selection of a set-up that means pages of one document alone, so that it is asked for anew. */
export interface OpenSelection {
  /** Whose pages: of a document or of a route, by its index from 0. */
  readonly of: 'documents' | 'routes';
  readonly at: number;
  readonly text: string;
}

/** The selections of a set-up, or of any ticket, that do not fit any file. */
export function openSelections(setup: Ticket): OpenSelection[] {
  const each = (['documents', 'routes'] as const).flatMap((of) =>
    setup[of].map(({ pages }, at) => ({ of, at, text: pages })),
  );
  return each.filter(({ text }) => !fitsAnyDocument(text));
}

/** The ticket with another text for one of its selections. */
export function withSelection(ticket: Ticket, { of, at }: Pick<OpenSelection, 'of' | 'at'>, pages: string): Ticket {
  const change = <T extends { pages: string }>(list: readonly T[]): T[] =>
    list.map((one, index) => (index === at ? { ...one, pages } : one));
  return of === 'documents'
    ? { ...ticket, documents: change(ticket.documents) }
    : { ...ticket, routes: change(ticket.routes) };
}
