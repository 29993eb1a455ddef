import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename, resolve } from 'node:path';
import {
  planRow,
  profileForTicket,
  TicketError,
  whyUnfit,
  type Printer,
  type RowOutcome,
  type Ticket,
} from '@foglio/core';
import { InputError, sayFileTrouble } from '../input-error';
import type { Opening } from '../document-file';
import { loadJobOver, type Job } from '../job-file';
import type { Journal } from './journal';

/** A file of a series as planned; where it could not be read, with the reason. */
export interface Row {
  readonly path: string;
  readonly name: string;
  /** Of its bytes, hexadecimal; empty where it could not be read. */
  readonly sha256: string;
  readonly pages: number | null;
  /** Null: it was done before, and is not planned again. */
  readonly outcome: RowOutcome | null;
}

/** How files are planned. */
export interface Planning {
  readonly setup: Ticket;
  /** Null: each against a printer that has all it asks for. */
  readonly printer: Printer | null;
  readonly journal: Journal | null;
  readonly opening: Opening;
}

/**
 * Reads a file and plans it; what is wrong with it is told, and keeps no other from being planned.
 */
export async function planFile(path: string, { setup, printer, journal, opening }: Planning): Promise<Row> {
  const row = { path: resolve(path), name: basename(path), sha256: '', pages: null };
  try {
    const sha256 = await hashOf(path);
    const known = journal?.of({ file: row.path, sha256 });
    if (known?.state === 'over') return { ...row, sha256, pages: known.pages, outcome: null };
    const { ticket, documents } = await loadJobOver(setup, path, opening);
    return {
      ...row,
      sha256,
      pages: documents[0]?.pages.length ?? null,
      outcome: outcomeOf({ ticket, documents }, sha256, printer),
    };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const trouble = error.message.replace(`${path}: `, '');
    return { ...row, outcome: { trouble, tally: null, checks: [], seal: null } };
  }
}

/** What a file's job comes to. @param printer null: one that has all it asks for */
export function outcomeOf(
  { ticket, documents }: Pick<Job, 'ticket' | 'documents'>,
  sha256: string,
  printer: Printer | null,
): RowOutcome {
  try {
    const sealed = documents.map((document) => ({ ...document, sha256 }));
    // A series of one command goes to one printer, whatever its address.
    return planRow(ticket, sealed, printer ?? profileForTicket(ticket, documents), '');
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    return { trouble: `${error.problem}; ${error.repair}.`, tally: null, checks: [], seal: null };
  }
}

async function hashOf(path: string): Promise<string> {
  try {
    return createHash('sha256')
      .update(await readFile(path))
      .digest('hex');
  } catch (error) {
    throw new InputError(path, sayFileTrouble(error));
  }
}

/** The row's job to be sent, its document read anew: hundreds of files are not kept in memory for as long as a series takes. */
export const openRow = ({ path }: Row, setup: Ticket, opening: Opening): Promise<Job> =>
  loadJobOver(setup, path, opening, 'sheets');

/** A file of a series that is still to be sent. */
export type OpenRow = Row & { readonly outcome: RowOutcome };

export const isOpen = (row: Row): row is OpenRow => row.outcome !== null;

export const isFit = ({ outcome }: Row): boolean => outcome === null || whyUnfit(outcome) === null;
