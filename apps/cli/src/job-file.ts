import { userInfo } from 'node:os';
import { basename, dirname, resolve } from 'node:path';
import {
  applySetup,
  isSetup,
  momentOf,
  profileForTicket,
  SelectionError,
  selectPages,
  setupOf,
  TicketError,
  type Plan,
  type Portion,
  type Printer,
  type Ticket,
} from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { planAt } from '@foglio/sentence';
import { openDocument, readOrSay, withDetails, type LoadedDocument, type Opening } from './document-file';
import { InputError } from './input-error';

/** A ticket file with the documents it names. */
export interface Job {
  readonly file: string;
  readonly ticket: Ticket;
  readonly documents: readonly LoadedDocument[];
}

/** How much is known of a job's pages: all, or only what decides on its sheets and not what checks look at, which takes longest. */
export type Known = 'all' | 'sheets';

/** Reads a ticket and every document it names; paths are beside the ticket. @throws InputError */
export async function loadJob(file: string, opening: Opening, known: Known = 'all'): Promise<Job> {
  const ticket = await readJson(file, readTicket);
  if (isSetup(ticket)) throw new InputError(file, 'this is a set-up without files; give them to "foglio series"');
  const job = await openJob(file, ticket, opening, known);
  remarkOnAttached(job, opening);
  return job;
}

/** What is attached to a mail is printed where the ticket names it, and nowhere else. */
function remarkOnAttached({ ticket, documents }: Job, { remark }: Opening): void {
  const named = ticket.documents.flatMap(({ file, form }) => (form.attachment ? [`${file} ${form.attachment}`] : []));
  ticket.documents.forEach(({ file }, at) => {
    const left = (documents[at]?.laid?.attachments ?? []).filter((name) => !named.includes(`${file} ${name}`));
    const [first] = left;
    if (first === undefined) return;
    const example = JSON.stringify({ file, form: { attachment: first } });
    remark(`${file}: attached and not in this job: ${left.join(', ')}; name each as a document, like ${example}`);
  });
}

/** An information sheet names who runs the command, where it names nobody else. */
const printedBy = (ticket: Ticket, user: string): Ticket => {
  const { informationSheet } = ticket;
  return { ...ticket, informationSheet: { ...informationSheet, by: informationSheet.by || user } };
};

/** Reads a set-up, or what of a ticket is one. @throws InputError */
export const loadSetup = async (file: string): Promise<Ticket> => setupOf(await readJson(file, readTicket));

/** The job that a set-up makes of a file. @throws InputError */
export async function loadJobOver(setup: Ticket, path: string, opening: Opening, known: Known = 'all'): Promise<Job> {
  const whole = resolve(path);
  const title = basename(path).replace(/\.[^.]+$/, '');
  const job = await openJob(path, applySetup(setup, [whole], title), opening, known);
  const attachments = job.documents[0]?.laid?.attachments ?? [];
  if (attachments.length === 0) return job;
  const attached = attachments.map((attachment) => ({ id: whole, laid: { form: { attachment } } }));
  return openJob(path, applySetup(setup, [whole, ...attached], title), opening, known);
}

async function openJob(file: string, written: Ticket, opening: Opening, known: Known = 'all'): Promise<Job> {
  const ticket = printedBy(written, userInfo().username);
  const opened = new Map<string, LoadedDocument>();
  const wanted = new Map<string, Set<number>>();
  // One file in two forms is two documents.
  const entries = ticket.documents.map(({ file: name, form }) => {
    const path = resolve(dirname(file), name);
    return { path, form, key: JSON.stringify([path, form]) };
  });
  for (const [index, { path, form, key }] of entries.entries()) {
    const document = opened.get(key) ?? (await openDocument(path, form, opening));
    opened.set(key, document);
    const pages = wanted.get(key) ?? new Set();
    const needed = known === 'all' || asksForDetails(ticket, index) || trims(ticket, index);
    if (needed) pagesToRead(ticket, index, document).forEach((page) => pages.add(page));
    wanted.set(key, pages);
  }
  for (const { path, key } of entries) {
    const pages = [...(wanted.get(key) ?? [])];
    wanted.delete(key);
    if (pages.length > 0) opened.set(key, await withDetails(path, opened.get(key)!, pages));
  }
  return { file, ticket, documents: entries.map(({ key }) => opened.get(key) as LoadedDocument) };
}

/** Selections that ask what is on the pages, so that of every page it must be known. */
const ASKS_FOR_DETAILS = /colou?r|blank/i;

const asksForDetails = ({ documents, routes }: Ticket, index: number): boolean =>
  [documents[index]?.pages ?? '', ...routes.map(({ pages }) => pages)].some((text) => ASKS_FOR_DETAILS.test(text));

/** Whether white margins are trimmed, so that of each page that is printed it must be known what is on it. */
const trims = ({ documents, routes }: Ticket, index: number): boolean =>
  [documents[index], ...routes].some((one) => one?.part === 'content');

/** The pages of which the plan needs to know all: those that are printed. What cannot be read is left for it to name. */
function pagesToRead(ticket: Ticket, index: number, facts: LoadedDocument): readonly number[] {
  const entry = ticket.documents[index] as Ticket['documents'][number];
  if (asksForDetails(ticket, index)) return facts.pages.map((_, at) => at + 1);
  try {
    return selectPages(entry.pages, { ...entry, facts, forgiving: false });
  } catch (error) {
    if (error instanceof SelectionError) return [];
    throw error;
  }
}

/** The job's plan against a printer, or against a printer that has all it asks for. @throws InputError */
export function planJob(
  { file, ticket, documents }: Job,
  printer: Printer | null,
  moment = momentOf(new Date()),
  portion: Portion | null = null,
): Plan {
  try {
    return planAt(ticket, documents, printer ?? profileForTicket(ticket, documents), moment, portion);
  } catch (error) {
    if (error instanceof TicketError) throw new InputError(file, error.message);
    throw error;
  }
}

/** Reads a printer profile file. @throws InputError */
export const loadPrinter = (file: string): Promise<Printer> => readJson(file, readPrinter);

async function readJson<T>(file: string, read: (data: unknown) => T): Promise<T> {
  const text = (await readOrSay(file)).toString('utf8');
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    throw new InputError(file, `not JSON: ${(error as Error).message}; correct it there`);
  }
  try {
    return read(data);
  } catch (error) {
    if (error instanceof TicketError) throw new InputError(file, error.message);
    throw error;
  }
}
