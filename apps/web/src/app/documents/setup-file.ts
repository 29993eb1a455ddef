import { inject, Injectable } from '@angular/core';
import type { FileRecord, JobDocument, JobRecord } from '@foglio/api';
import type { Ticket, TicketInput } from '@foglio/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../api/api';
import { Uploader } from './uploader';

/** How a file of a set-up ends. */
const KIND = '.json';

export const isSetupFile = ({ name }: File): boolean => name.toLowerCase().endsWith(KIND);

/**
 * A set-up as a file: its ticket, with documents by their names, as the command line reads it beside them. Of two
 * documents of one name only the id tells which is meant.
 */
export function writeSetup(ticket: Ticket, documents: readonly JobDocument[]): string {
  const named = ticket.documents.map((one) => {
    const document = documents.find(({ id }) => id === one.file);
    const isOnly = documents.every(({ id, name }) => name !== document?.name || id === document.id);
    return document && isOnly ? { ...one, file: document.name } : one;
  });
  return JSON.stringify({ ...ticket, documents: named }, null, 2);
}

/** What came of a set-up's file: its job, and which of the files beside it are documents of it. */
export interface TakenUp {
  readonly job: JobRecord;
  readonly used: readonly File[];
}

/** Takes a set-up up again from its file. */
@Injectable({ providedIn: 'root' })
export class SetupFiles {
  private readonly api = inject(Api);
  private readonly uploader = inject(Uploader);

  /**
   * A job of the set-up: over the files that were dropped with it, where they are called as its documents are, otherwise
   * over those of that name that are here already.
   *
   * @returns null where a locked document was left out
   * @throws Error in words where the file is no set-up, or a document is not here or not the only one of its name
   */
  async takeUp(file: File, beside: readonly File[]): Promise<TakenUp | null> {
    const setup = readSetup(await file.text());
    const used = beside.filter(({ name }) => setup.documents.some((document) => document.file === name));
    const uploaded = new Map<string, FileRecord>();
    for (const one of used) {
      const record = await this.uploader.upload(one, setup.documents.find(({ file: name }) => name === one.name)!.form);
      if (!record) return null;
      uploaded.set(one.name, record);
    }
    const documents = [];
    for (const document of setup.documents) {
      const id = uploaded.get(document.file)?.id ?? (await this.find(document.file));
      documents.push({ ...document, file: id });
    }
    return { job: await firstValueFrom(this.api.createJob({ ...setup, documents })), used };
  }

  /** The id of the file of that name. */
  private async find(name: string): Promise<string> {
    const found = await firstValueFrom(this.api.filesNamed(name));
    if (found.length > 1) {
      throw new Error(`${found.length} different files called “${name}” are here; drop the one that is meant with it.`);
    }
    // A file without a name here may be told by its id; what is neither, the server refuses in words.
    return found[0]?.id ?? name;
  }
}

/** What must be there to find the documents; all else the server reads, and says what is wrong where. */
function readSetup(text: string): TicketInput {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch (error) {
    throw new Error(`this is not JSON (${(error as Error).message}); drop a set-up that was saved here.`);
  }
  const documents = (read as { documents?: unknown } | null)?.documents;
  const isSetup =
    Array.isArray(documents) && documents.every((one) => typeof (one as { file?: unknown })?.file === 'string');
  if (!isSetup) throw new Error('documents: there is no list of files; drop a set-up that was saved here.');
  return read as TicketInput;
}
