import {
  printerAddress,
  printerFault,
  printerPausing,
  saidOfPaper,
  stackRefeeding,
  stackTaking,
  trayLoading,
  trayPulling,
} from '@foglio/api';
import { pausePrinter } from '@foglio/ipp';
import { Router } from 'express';
import type { Database } from '../database/connection';
import { bodyReader } from '../http/body';
import { Problem } from '../http/problem';
import { askPanel, passOn } from './panel';
import { addPrinter, describePaper, removePrinter, findPrinter, listPrinters } from './printer-store';
import type { PrinterWatch } from './watch';

const readAddress = bodyReader(printerAddress);
const readPaper = bodyReader(saidOfPaper);
const readLoading = bodyReader(trayLoading);
const readPulling = bodyReader(trayPulling);
const readFault = bodyReader(printerFault);
const readRefeeding = bodyReader(stackRefeeding);
const readPausing = bodyReader(printerPausing);
const readTaking = bodyReader(stackTaking);

/** `/api/printers`: the printers known, each as it is now where it answers; of simulated ones the front panel too. */
export function printerRoutes(db: Database, watch: PrinterWatch): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await Promise.all((await listPrinters(db)).map((printer) => watch.describe(printer))));
  });
  router.get('/:id', async (request, response) => {
    response.json(await watch.describe(await findPrinter(db, request.params.id)));
  });
  router.post('/', async (request, response) => {
    const { uri } = readAddress(request.body);
    response.status(201).json(await watch.describe(await addPrinter(db, uri.trim())));
  });
  router.delete('/:id', async (request, response) => {
    await removePrinter(db, await findPrinter(db, request.params.id));
    response.status(204).end();
  });
  router.put('/:id/trays/:tray', async (request, response) => {
    const { id, tray } = request.params;
    response.json(await watch.describe(await describePaper(db, id, tray, readPaper(request.body))));
  });
  router.put('/:id/panel/trays/:tray', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    await askPanel(printer, `/trays/${encodeURIComponent(request.params.tray)}`, readLoading(request.body));
    response.json(await watch.describe(printer));
  });
  router.put('/:id/panel/trays/:tray/pulled', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    await askPanel(printer, `/trays/${encodeURIComponent(request.params.tray)}/pulled`, readPulling(request.body));
    response.json(await watch.describe(printer));
  });
  router.put('/:id/panel/fault', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    await askPanel(printer, '/fault', readFault(request.body));
    response.json(await watch.describe(printer));
  });
  router.put('/:id/panel/refeed', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    await askPanel(printer, '/refeed', readRefeeding(request.body));
    response.json(await watch.describe(printer));
  });
  router.put('/:id/panel/paused', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    if (printer.panel === null) throw new Problem('not-found', `${printer.name} is not a simulated printer.`);
    await pausePrinter(printer.uri, readPausing(request.body).paused, 'foglio');
    response.json(await watch.describe(printer));
  });
  router.get('/:id/panel/output', async (request, response) => {
    const answer = await askPanel(await findPrinter(db, request.params.id), '/output');
    response.json(await answer.json());
  });
  router.put('/:id/panel/output', async (request, response) => {
    const printer = await findPrinter(db, request.params.id);
    await askPanel(printer, '/output', readTaking(request.body));
    response.json(await watch.describe(printer));
  });
  router.get('/:id/panel/jobs/:job/documents/:document', async (request, response) => {
    const { id, job, document } = request.params;
    await passOn(
      await askPanel(await findPrinter(db, id), `/jobs/${Number(job)}/documents/${Number(document)}`),
      response,
    );
  });
  return router;
}
