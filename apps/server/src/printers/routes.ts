import type { StackRecord } from '@foglio/api';
import { pausePrinter } from '@foglio/ipp';
import type { Database } from '../database/connection';
import type { Handlers } from '../http/bind';
import { Problem } from '../http/problem';
import { USER } from '../sendings/as-known';
import { addressOf } from './access';
import { askPanel, passOn } from './panel';
import type { Nearby } from './nearby';
import { addPrinter, describePaper, findPrinter, isAt, letIn, listPrinters, removePrinter } from './printer-store';
import type { PrinterWatch } from './watch';

type Printers = 'printers' | 'nearbyPrinters' | 'printer' | 'addPrinter' | 'letIn' | 'removePrinter' | 'describePaper';
type Panel =
  | 'loadTray'
  | 'pullTray'
  | 'setFault'
  | 'refeed'
  | 'pausePrinter'
  | 'output'
  | 'takeOutput'
  | 'outputDocument';

/** The printers known, each as it is now where it answers. */
export const printerHandlers = (db: Database, watch: PrinterWatch, nearby: Nearby): Handlers<Printers> => ({
  nearbyPrinters: async () => {
    const known = await listPrinters(db);
    return (await nearby.look()).map((one) => ({
      ...one,
      printerId: known.find((printer) => isAt(printer, one.uri))?.id ?? null,
    }));
  },
  printers: async () => Promise.all((await listPrinters(db)).map((printer) => watch.describeSoon(printer))),
  printer: async ({ params }) => watch.describe(await findPrinter(db, params.id)),
  addPrinter: async ({ body }) => watch.describe(await addPrinter(db, body.uri.trim(), body)),
  letIn: async ({ params, body }) => watch.describe(await letIn(db, params.id, body)),
  removePrinter: async ({ params }) => removePrinter(db, await findPrinter(db, params.id)),
  describePaper: async ({ params, body }) => watch.describe(await describePaper(db, params.id, params.tray, body)),
});

/** The front panel of a simulated printer. */
export function panelHandlers(db: Database, watch: PrinterWatch): Handlers<Panel> {
  /** Does something at the panel, and tells how the printer stands after it. */
  const work = async (id: string, part: string, what: object) => {
    const printer = await findPrinter(db, id);
    await askPanel(printer, part, what);
    return watch.describe(printer);
  };
  return {
    loadTray: ({ params, body }) => work(params.id, `/trays/${encodeURIComponent(params.tray)}`, body),
    pullTray: ({ params, body }) => work(params.id, `/trays/${encodeURIComponent(params.tray)}/pulled`, body),
    setFault: ({ params, body }) => work(params.id, '/fault', body),
    refeed: ({ params, body }) => work(params.id, '/refeed', body),
    takeOutput: ({ params, body }) => work(params.id, '/output', body),
    pausePrinter: async ({ params, body }) => {
      const printer = await findPrinter(db, params.id);
      if (printer.panel === null) throw new Problem('not-found', `${printer.name} is not a simulated printer.`);
      await pausePrinter(addressOf(printer), body.paused, USER);
      return watch.describe(printer);
    },
    output: async ({ params }) =>
      (await (await askPanel(await findPrinter(db, params.id), '/output')).json()) as StackRecord,
    outputDocument: async ({ params: { id, job, document }, response }) => {
      const part = `/jobs/${Number(job)}/documents/${Number(document)}`;
      await passOn(await askPanel(await findPrinter(db, id), part), response);
    },
  };
}
