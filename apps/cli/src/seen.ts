import { createHash } from 'node:crypto';
import { sayDifference, sealOf, type Plan, type Portion, type Printer } from '@foglio/core';
import { askProfile, type PrinterAddress } from '@foglio/ipp';
import { InputError } from './input-error';
import { planJob, type Job } from './job-file';

/** A plan that was told at the terminal, and what it was made for. */
export interface Seen {
  readonly plan: Plan;
  readonly printer: Printer;
  /** Of the printer, and with what it takes to ask it. */
  readonly address: string;
  readonly at: PrinterAddress;
  /** That texts tell. */
  readonly moment: string;
  /** What of the ticket it prints; null: all of it. */
  readonly portion: Portion | null;
}

/**
 * While a person reads, trays are opened: what is printed must still be what was confirmed.
 *
 * @throws InputError saying what differs
 */
export async function requireSame(job: Job, seen: Seen): Promise<void> {
  const { address, at, moment, portion } = seen;
  const documents = job.documents.map((document) => ({ ...document, sha256: hashOf(document.bytes) }));
  const sealed = ({ plan, printer }: Pick<Seen, 'plan' | 'printer'>) =>
    sealOf({ plan, printer, ticket: job.ticket, documents, address, moment });
  const printer = await askProfile(at);
  const differs = sayDifference(sealed(seen), sealed({ printer, plan: planJob(job, printer, moment, portion) }));
  if (differs === null) return;
  throw new InputError(job.file, `since you were asked, this changed: ${differs}. Nothing was sent; send it again`);
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
