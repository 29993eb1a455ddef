import { readFile } from 'node:fs/promises';
import { asSent, isMonochrome } from '@foglio/core';
import { IppError, sendPlan } from '@foglio/ipp';
import { inScratchFolder } from '@foglio/pdf';
import type { Database } from '../database/connection';
import { Problem } from '../http/problem';
import { documentsOf, planTicket } from '../jobs/job-store';
import { IMPOSED, imposeStored } from '../jobs/routes';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { findPrinter } from '../printers/printer-store';
import { changeDelivery, type StoredDelivery } from './delivery-store';

/** As the printer shows who sent it. */
const USER = 'foglio';

/**
 * Sends one delivery: takes it in hand, imposes, sends. It ends as "printing" once the printer has the whole document,
 * or as "failed" with the reason; if the process dies in between it stays "sending" under this server's number, and the
 * keeper settles it.
 */
export async function sendDelivery(db: Database, workers: PdfWorkers, id: string, server: number): Promise<void> {
  const delivery = await changeDelivery(db, id, ['queued'], { state: 'sending', server, message: null });
  if (!delivery) return;
  try {
    const status = await transmit(db, workers, delivery);
    await changeDelivery(db, id, ['sending'], { state: 'printing', printerJobId: status.id, server: null });
  } catch (error) {
    if (!(error instanceof IppError) && !(error instanceof Problem)) console.error(`sending ${id}:`, error);
    const reason = (error as Error).message.replace(/\.$/, '');
    if (isUncertain(error)) {
      // The connection broke: the printer alone knows what it got. The keeper asks it.
      await changeDelivery(db, id, ['sending'], { message: `Sending broke off: ${reason}.`, server: null });
    } else {
      await changeDelivery(db, id, ['sending'], {
        state: 'failed',
        message: `Nothing was printed: ${reason}.`,
        server: null,
      });
    }
  }
}

/** Whether the printer may have taken the job although sending failed here. */
const isUncertain = (error: unknown): boolean => error instanceof IppError && error.status === null && error.jobCreated;

async function transmit(db: Database, workers: PdfWorkers, delivery: StoredDelivery) {
  const { id, ticket, profile } = delivery;
  const printer = await findPrinter(db, delivery.printerId);
  const documents = await documentsOf(db, ticket);
  const plan = asSent(planTicket(ticket, documents, profile));
  return sendPlan({
    printerUri: printer.uri,
    printer: profile,
    plan,
    ticket,
    pdf: await inScratchFolder(async (path) => {
      const how = { ticket, plan, blanks: 'none', grey: !isMonochrome(ticket) } as const;
      await imposeStored(db, workers, how, documents, path);
      return new Uint8Array(await readFile(path(IMPOSED)));
    }),
    jobName: ticket.title || (documents[0]?.name ?? 'Foglio'),
    userName: USER,
    onCreated: async (printerJobId) => void (await changeDelivery(db, id, ['sending'], { printerJobId })),
  });
}
