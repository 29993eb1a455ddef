import { Router } from 'express';
import type { Database } from '../database/connection';
import { Problem } from '../http/problem';
import { askNow, findPrinter, listPrinters, type StoredPrinter } from './printer-store';

/** `/api/printers`: the printers known, each as it is now where it answers. */
export function printerRoutes(db: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await Promise.all((await listPrinters(db)).map((printer) => describePrinter(db, printer))));
  });
  router.get('/:id', async (request, response) => {
    response.json(await describePrinter(db, await findPrinter(db, request.params.id)));
  });
  return router;
}

/** The profile is the last one seen where the printer does not answer; `answers` says so. */
async function describePrinter(db: Database, printer: StoredPrinter) {
  const { id, name, seenAt } = printer;
  try {
    return { id, name, answers: true, seenAt: new Date(), profile: await askNow(db, printer) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { id, name, answers: false, seenAt, profile: printer.profile };
  }
}
