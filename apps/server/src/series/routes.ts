import {
  changedSeries,
  newSeries,
  rowSkipping,
  seriesFiles,
  seriesOrder,
  seriesResuming,
  seriesStart,
} from '@foglio/api';
import { Router } from 'express';
import type { Database } from '../database/connection';
import { series } from '../database/schema';
import { bodyReader } from '../http/body';
import { saveAs, writeCsv } from '../http/download';
import { findPrinter } from '../printers/printer-store';
import { acceptSetup } from '../setups/setup-store';
import { printableReport, reportOf, reportTable } from './report';
import { pauseSeries, resumeSeries, startSeries } from './run';
import {
  addFiles,
  changeSeries,
  describeSeries,
  documentsOfRows,
  findSeries,
  listSeries,
  orderFiles,
  removeSeries,
  rowsOf,
  skipFile,
  type StoredSeries,
} from './series-store';

const readNew = bodyReader(newSeries);
const readChange = bodyReader(changedSeries);
const readFiles = bodyReader(seriesFiles);
const readOrder = bodyReader(seriesOrder);
const readSkipping = bodyReader(rowSkipping);
const readStart = bodyReader(seriesStart);
const readResuming = bodyReader(seriesResuming);

/** `/api/series`: a set-up over many files, sent one after the other. */
export function seriesRoutes(db: Database): Router {
  const router = Router();
  const find = (id: string | undefined): Promise<StoredSeries> => findSeries(db, id);
  const asItStands = async (id: string | undefined) => describeSeries(db, await find(id));

  router.get('/', async (_request, response) => {
    response.json(await listSeries(db));
  });

  router.post('/', async (request, response) => {
    const { title, setup, printerId } = readNew(request.body);
    await findPrinter(db, printerId);
    const values = { title: title.trim(), setup: acceptSetup(setup), printerId };
    const [begun] = await db.insert(series).values(values).returning();
    response.status(201).json(await describeSeries(db, begun as StoredSeries));
  });

  router.get('/:id', async (request, response) => {
    response.json(await asItStands(request.params.id));
  });

  router.get('/:id/documents', async (request, response) => {
    const found = await documentsOfRows(db, await rowsOf(db, await find(request.params.id)));
    const documents = [...found.values()].map(({ contentId: _, ...told }) => told);
    response.json(documents);
  });

  router.put('/:id', async (request, response) => {
    const { setup, ...change } = readChange(request.body);
    const accepted = setup === undefined ? {} : { setup: acceptSetup(setup) };
    await changeSeries(db, await find(request.params.id), { ...change, ...accepted });
    response.json(await asItStands(request.params.id));
  });

  router.delete('/:id', async (request, response) => {
    await removeSeries(db, await find(request.params.id));
    response.status(204).end();
  });

  router.post('/:id/rows', async (request, response) => {
    await addFiles(db, await find(request.params.id), readFiles(request.body).files);
    response.json(await asItStands(request.params.id));
  });

  router.put('/:id/rows', async (request, response) => {
    await orderFiles(db, await find(request.params.id), readOrder(request.body));
    response.json(await asItStands(request.params.id));
  });

  router.put('/:id/rows/:row', async (request, response) => {
    const { skipped } = readSkipping(request.body);
    await skipFile(db, await find(request.params.id), request.params.row, skipped);
    response.json(await asItStands(request.params.id));
  });

  router.post('/:id/start', async (request, response) => {
    const { sheets, confirmed = [], key = null, seal = null } = readStart(request.body);
    await startSeries(db, await find(request.params.id), { sheets, confirmed, key, seal });
    response.status(202).json(await asItStands(request.params.id));
  });

  router.post('/:id/pause', async (request, response) => {
    await pauseSeries(db, await find(request.params.id));
    response.json(await asItStands(request.params.id));
  });

  router.post('/:id/resume', async (request, response) => {
    await resumeSeries(db, await find(request.params.id), readResuming(request.body).again);
    response.json(await asItStands(request.params.id));
  });

  router.get('/:id/report.csv', async (request, response) => {
    const one = await find(request.params.id);
    const table = reportTable(await reportOf(db, one));
    saveAs(response, one.title, '.csv');
    response.send(writeCsv(table));
  });

  router.get('/:id/report.pdf', async (request, response) => {
    const one = await find(request.params.id);
    const pdf = await printableReport(db, one);
    saveAs(response, one.title, '.pdf');
    response.send(Buffer.from(pdf));
  });

  return router;
}
