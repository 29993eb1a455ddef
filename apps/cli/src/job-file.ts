import { readFile } from 'node:fs/promises';
import { basename, dirname, resolve } from 'node:path';
import {
  plan,
  profileForTicket,
  TicketError,
  type DocumentFacts,
  type Plan,
  type Printer,
  type Ticket,
} from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { PdfError, readFacts } from '@foglio/pdf';
import { InputError, sayFileTrouble } from './input-error';

export interface LoadedDocument extends DocumentFacts {
  readonly bytes: Uint8Array;
}

/** A ticket file with the documents it names. */
export interface Job {
  readonly file: string;
  readonly ticket: Ticket;
  readonly documents: readonly LoadedDocument[];
}

/** Reads a PDF and its facts. @throws InputError */
export async function loadDocument(path: string): Promise<LoadedDocument> {
  const bytes = new Uint8Array(await readOrSay(path));
  try {
    return { name: basename(path), bytes, ...(await readFacts(bytes)) };
  } catch (error) {
    if (error instanceof PdfError) throw new InputError(path, error.message);
    throw error;
  }
}

/** Reads a ticket and every document it names; paths are beside the ticket. @throws InputError */
export async function loadJob(file: string): Promise<Job> {
  const ticket = await readJson(file, readTicket);
  const byPath = new Map<string, LoadedDocument>();
  const documents: LoadedDocument[] = [];
  for (const document of ticket.documents) {
    const path = resolve(dirname(file), document.file);
    const loaded = byPath.get(path) ?? (await loadDocument(path));
    byPath.set(path, loaded);
    documents.push(loaded);
  }
  return { file, ticket, documents };
}

/** The job's plan against a printer, or against a printer that has all it asks for. @throws InputError */
export function planJob({ file, ticket, documents }: Job, printer: Printer | null): Plan {
  try {
    return plan(ticket, documents, printer ?? profileForTicket(ticket, documents));
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

async function readOrSay(path: string): Promise<Buffer> {
  try {
    return await readFile(path);
  } catch (error) {
    throw new InputError(path, sayFileTrouble(error));
  }
}
