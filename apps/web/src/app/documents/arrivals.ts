import { computed, inject, Injectable, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { FileRecord, JobDocument } from '@foglio/api';
import { entryFor, plainTicket, type SetupFile, type Ticket } from '@foglio/core';
import { firstValueFrom } from 'rxjs';
import { Api, problemCode, sayError } from '../api/api';
import { Changes } from '../state/changes';
import { batched } from './batches';
import { Uploader } from './uploader';

/** A document that another file is to stand for: which it was, and where it stood then, from 0. */
export interface Replaced {
  readonly place: number;
  readonly file: string;
}

/** Where files are dropped: at the end of a job, or in the place of one of its documents. */
export interface Destination {
  readonly jobId: string;
  readonly title: string;
  readonly replaced: Replaced | null;
}

/** A file on its way in. */
export interface Underway {
  readonly name: string;
  readonly jobId: string;
  readonly title: string;
  /** Which of those that were dropped together, from 1. */
  readonly number: number;
  readonly count: number;
}

/** Where the job is on the screen, its Bench takes what arrives. */
export interface Attendant {
  /** @returns false where the job is not on the screen any more */
  readonly take: (file: JobDocument, replaced: Replaced | null) => Promise<boolean>;
  readonly refuse: (message: string) => void;
  /** The job was changed on the server. */
  readonly reload: () => void;
}

/** Another window may change the job at the same moment; then it is read once more. */
const TRIES = 5;

/**
 * Files on their way into jobs. Each comes into the job that it was dropped on, whatever is on the screen when it has been
 * taken in: into its Bench where that is open, otherwise into the job as the server has it.
 */
@Injectable({ providedIn: 'root' })
export class Arrivals {
  private readonly api = inject(Api);
  private readonly changes = inject(Changes);
  private readonly uploader = inject(Uploader);
  private readonly notices = inject(MatSnackBar);
  private readonly attendants = new Map<string, Attendant>();
  private readonly files = signal<readonly Underway[]>([]);
  readonly underway = this.files.asReadonly();

  /** In a sentence for any screen; null where nothing is on its way. */
  readonly said = computed(() => {
    const [first, ...others] = this.files();
    if (!first) return null;
    return `Taking in ${first.name} for “${first.title}”${others.length > 0 ? `, and ${others.length} more` : ''}`;
  });

  /** @returns what ends it */
  attend(jobId: string, attendant: Attendant): () => void {
    this.attendants.set(jobId, attendant);
    return () => {
      if (this.attendants.get(jobId) === attendant) this.attendants.delete(jobId);
    };
  }

  /** Brings files one after the other, so that they come in the order in which they were dropped. */
  async bring(came: readonly File[], to: Destination): Promise<void> {
    const { jobId, title } = to;
    const underway = (all: readonly File[]): Underway[] =>
      all.map(({ name }, at) => ({ name, jobId, title, number: at + 1, count: all.length }));
    const before = underway(came);
    this.files.update((all) => [...all, ...before]);
    const files = await batched(came, 'together');
    const under = underway(files);
    this.files.update((all) => [...all.filter((one) => !before.includes(one)), ...under]);
    const refused: string[] = [];
    for (const [at, file] of files.entries()) {
      try {
        const record = await this.uploader.upload(file, {}, true);
        if (!record) continue;
        await this.hand(record, to);
        const attached = await this.uploader.attachedTo(record);
        for (const one of attached.taken) await this.hand(one, { ...to, replaced: null });
        refused.push(...attached.refused);
      } catch (error) {
        refused.push(`${file.name}: ${sayError(error)}`);
      } finally {
        this.files.update((all) => all.filter((one) => one !== under[at]));
      }
    }
    if (refused.length > 0) this.refuse(to, refused.join(' '));
  }

  private async hand({ bytes: _, ...file }: FileRecord, { jobId, title, replaced }: Destination): Promise<void> {
    if (await this.attendants.get(jobId)?.take(file, replaced)) return;
    await this.putIntoStored(file, jobId, replaced);
    this.attendants.get(jobId)?.reload();
    this.notices.open(`${file.name} is in “${title}” now.`, undefined, { duration: 5_000 });
  }

  private async putIntoStored(file: JobDocument, jobId: string, replaced: Replaced | null): Promise<void> {
    for (let tries = 1; ; tries += 1) {
      try {
        await firstValueFrom(this.changes.settled({ kind: 'job', id: jobId }));
        const { ticket, revision } = await firstValueFrom(this.api.job(jobId));
        const saved = await firstValueFrom(this.api.saveTicket(jobId, withFile(ticket, file, replaced), revision));
        this.changes.begin({ kind: 'job', id: jobId }, saved.revision, {});
        return;
      } catch (error) {
        if (problemCode(error) !== 'job-changed' || tries === TRIES) throw error;
      }
    }
  }

  private refuse({ jobId, title }: Destination, message: string): void {
    const attendant = this.attendants.get(jobId);
    if (attendant) attendant.refuse(message);
    else this.notices.open(`“${title}”: ${message}`, 'Close');
  }
}

/**
 * The ticket with a file more. In the place of another all its pages are printed, since what was chosen of the old one means
 * nothing here; where that one is not there any more it comes last.
 */
export function withFile(ticket: Ticket, file: Exclude<SetupFile, string>, replaced: Replaced | null): Ticket {
  const plain = entryFor(plainTicket([file.id]).documents[0]!, file);
  // How it is turned and laid out is meant for its like too: a corrected copy of a workbook has the same sheets.
  const { rotate: _, form: __, ...fresh } = plain;
  const { documents } = ticket;
  const stands = replaced && documents[replaced.place]?.file === replaced.file ? replaced.place : null;
  const at = stands ?? documents.findIndex((one) => one.file === replaced?.file);
  return {
    ...ticket,
    documents:
      at < 0
        ? [...documents, plain]
        : documents.map((one, index) => (index === at ? entryFor({ ...one, ...fresh }, file) : one)),
  };
}
