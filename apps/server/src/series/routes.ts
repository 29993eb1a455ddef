import type { Database } from '../database/connection';
import { series } from '../database/schema';
import type { Handlers } from '../http/bind';
import { saveAs, writeCsv } from '../http/download';
import { findPrinter } from '../printers/printer-store';
import { acceptSetup } from '../setups/setup-store';
import { printableReport, reportOf, reportTable } from './report';
import { pauseSeries, resumeSeries, startSeries } from './run';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { layOutRows } from './lay-out-rows';
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

type Names =
  | 'allSeries'
  | 'createSeries'
  | 'series'
  | 'seriesDocuments'
  | 'changeSeries'
  | 'removeSeries'
  | 'addSeriesFiles'
  | 'orderSeries'
  | 'skipSeriesFile'
  | 'startSeries'
  | 'pauseSeries'
  | 'resumeSeries'
  | 'seriesReport'
  | 'printableReport';

/** A set-up over many files, sent one after the other. */
export function seriesHandlers(db: Database, workers: PdfWorkers): Handlers<Names> {
  const find = (id: string): Promise<StoredSeries> => findSeries(db, id);
  /** Changes a series, and tells how it stands after it. */
  const changed = async (id: string, change: (one: StoredSeries) => Promise<unknown>) => {
    await change(await find(id));
    // Files that another set-up wants in another form follow by themselves.
    void layOutRows(db, workers, id);
    return describeSeries(db, await find(id));
  };
  return {
    allSeries: () => listSeries(db),
    createSeries: async ({ body: { title, setup, printerId } }) => {
      await findPrinter(db, printerId);
      const values = { title: title.trim(), setup: acceptSetup(setup), printerId };
      const [begun] = await db.insert(series).values(values).returning();
      return describeSeries(db, begun as StoredSeries);
    },
    series: async ({ params }) => describeSeries(db, await find(params.id)),
    seriesDocuments: async ({ params }) => {
      const found = await documentsOfRows(db, await rowsOf(db, await find(params.id)));
      return [...found.values()].map(({ contentId: _, ...told }) => told);
    },
    changeSeries: ({ params, body: { setup, ...change } }) => {
      const accepted = setup === undefined ? {} : { setup: acceptSetup(setup) };
      return changed(params.id, (one) => changeSeries(db, one, { ...change, ...accepted }));
    },
    removeSeries: async ({ params }) => removeSeries(db, await find(params.id)),
    addSeriesFiles: ({ params, body }) => changed(params.id, (one) => addFiles(db, one, body.files)),
    orderSeries: ({ params, body }) => changed(params.id, (one) => orderFiles(db, one, body)),
    skipSeriesFile: ({ params, body }) => changed(params.id, (one) => skipFile(db, one, params.row, body.skipped)),
    startSeries: ({ params, body: { sheets, confirmed = [], key = null, seal = null, by = null } }) =>
      changed(params.id, (one) => startSeries(db, one, { sheets, confirmed, key, seal, by })),
    pauseSeries: ({ params }) => changed(params.id, (one) => pauseSeries(db, one)),
    resumeSeries: ({ params, body }) => changed(params.id, (one) => resumeSeries(db, one, body.again)),
    seriesReport: async ({ params, response }) => {
      const one = await find(params.id);
      const table = reportTable(await reportOf(db, one));
      saveAs(response, one.title, '.csv');
      response.send(writeCsv(table));
    },
    printableReport: async ({ params, response }) => {
      const one = await find(params.id);
      const pdf = await printableReport(db, one);
      saveAs(response, one.title, '.pdf');
      response.send(Buffer.from(pdf));
    },
  };
}
