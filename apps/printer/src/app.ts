import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { firstString } from '@foglio/ipp';
import { serveIpp, whyRefused } from '@foglio/ipp/serving';
import { readSizeName, type Printer } from '@foglio/core';
import { readPrinter } from '@foglio/core/validate';
import { renderPage } from '@foglio/pdf';
import type { Archive, PrintJob } from './archive';
import type { Machine } from './machine';
import { JobEvents } from './events';
import { strangely, type Manner } from './manners';
import { served } from './served';

export interface AppOptions {
  readonly machine: Machine;
  readonly archive: Archive;
  /** In what it is not as others are. */
  readonly manner?: Manner;
}

/** What a printer is to be from now on: the profile it had, if none is given. */
interface NewMachine {
  readonly profile?: unknown;
  readonly sheetMs?: number;
  /** 0: as fast as documents come. */
  readonly intakeKb?: number;
}

/** Bytes of a document. */
const MOST_DATA = 1024 * 1024 * 1024;

/** The simulated printer's two sides: IPP at /ipp/print, and its front panel and output as JSON under /panel. */
export function createApp({ machine, archive, manner }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  const events = new JobEvents(machine);
  const printer = () => manner?.served?.(served(machine, events), machine) ?? served(machine, events);
  if (manner) app.use('/ipp/print', strangely(manner));
  app.post('/ipp/print{/*job}', (request, response) =>
    serveIpp(request, response, (path) => (path === '/ipp/print' ? printer() : null), { dataBytes: MOST_DATA }),
  );
  app.use('/panel', onlyFromHere);
  servePanel(app, machine);
  serveOutput(app, machine, archive);
  app.use(tellShortly);
  return app;
}

/** Whoever stands at the panel does so on this machine. */
const onlyFromHere: RequestHandler = ({ headers, socket }, response, next) => {
  if (whyRefused(headers, socket.localPort ?? 0) === null) return void next();
  response.status(403).json({ error: 'the panel is for whoever stands at it' });
};

/** What is wrong with a request, and nothing of the inside. */
const tellShortly: ErrorRequestHandler = (error: { status?: number; message?: string }, _request, response, next) => {
  if (response.headersSent) return void next(error);
  const { status = 500, message } = error;
  if (status >= 500) console.error(error);
  response.status(status).json({ error: status < 500 ? `it cannot be read: ${message}` : 'something went wrong here' });
};

/** Its buttons and trays. */
function servePanel(app: Express, machine: Machine): void {
  app.get('/panel', (_request, response) => {
    const trays = machine.profile.trays.map(({ id }) => ({
      id,
      loaded: machine.loaded.get(id) ?? 0,
      pulled: machine.pulled.has(id),
    }));
    response.json({ name: machine.profile.name, stop: machine.stop, refed: machine.refed, trays });
  });
  app.put('/panel/trays/:id', express.json(), async (request, response) => {
    const { loaded, size } = request.body as { loaded?: unknown; size?: unknown };
    const known = machine.profile.trays.some((tray) => tray.id === request.params.id);
    if (!known) return void response.status(404).json({ error: `no tray "${request.params.id}"` });
    if (!Number.isInteger(loaded) || (loaded as number) < 0) {
      return void response.status(400).json({ error: '"loaded" must be a number of sheets' });
    }
    if (size !== undefined && !(typeof size === 'string' && readSizeName(size))) {
      return void response.status(400).json({ error: '"size" must be a PWG 5101.1 size name' });
    }
    await machine.load(request.params.id, loaded as number, size);
    response.status(204).end();
  });
  app.put('/panel/trays/:id/pulled', express.json(), (request, response) => {
    const { pulled } = request.body as { pulled?: unknown };
    const known = machine.profile.trays.some((tray) => tray.id === request.params.id);
    if (!known) return void response.status(404).json({ error: `no tray "${request.params.id}"` });
    if (typeof pulled !== 'boolean') return void response.status(400).json({ error: '"pulled" must be true or false' });
    machine.pull(request.params.id, pulled);
    response.status(204).end();
  });
  app.put('/panel/fault', express.json(), (request, response) => {
    const { fault } = request.body as { fault?: unknown };
    if (fault !== null && fault !== 'media-jam' && fault !== 'door-open') {
      return void response.status(400).json({ error: '"fault" must be "media-jam", "door-open" or null' });
    }
    machine.breakDown(fault);
    response.status(204).end();
  });
  app.put('/panel/refeed', express.json(), async (request, response) => {
    const { turned } = request.body as { turned?: unknown };
    if (typeof turned !== 'boolean') return void response.status(400).json({ error: '"turned" must be true or false' });
    const last = [...machine.jobs.values()].findLast(({ deliveredCount }) => deliveredCount > 0);
    if (!last) return void response.status(404).json({ error: 'nothing has come out yet' });
    await machine.refeed(last, turned);
    response.status(204).end();
  });
  // What no office printer has, and those who try things out need.
  app.put('/panel/new', express.json(), async (request, response) => {
    const { profile, sheetMs = 0, intakeKb } = request.body as NewMachine;
    let another: { profile?: Printer };
    try {
      another = profile === undefined ? {} : { profile: readPrinter(profile) };
    } catch (error) {
      return void response.status(400).json({ error: `"profile": ${(error as Error).message}` });
    }
    await machine.renew({ ...another, sheetMs, intakeKb: intakeKb || Infinity });
    response.status(204).end();
  });
}

/** What lies in the output, and the files it came from. */
function serveOutput(app: Express, machine: Machine, archive: Archive): void {
  app.get('/panel/output', (_request, response) => {
    const { output } = machine;
    response.json({ sheets: output.length, delivered: output.map((sheet, index) => ({ ...sheet, index: index + 1 })) });
  });
  app.put('/panel/output', express.json(), async (request, response) => {
    const { taken } = request.body as { taken?: unknown };
    if (taken !== true) return void response.status(400).json({ error: '"taken" must be true' });
    await machine.takeOutput();
    response.status(204).end();
  });
  app.get('/panel/jobs/:id', (request, response) => {
    const job = machine.jobs.get(Number(request.params.id));
    if (!job) return void response.status(404).json({ error: 'no such job' });
    const { id, name, state, reasons, message, documents, sheets, deliveredCount, delivered } = job;
    const pages = documents.map((document) => document.pages.length);
    response.json({ id, name, state, reasons, message, pages, sheets, deliveredCount, delivered });
  });
  app.get('/panel/jobs/:id/documents/:document', async (request, response) => {
    const job = machine.jobs.get(Number(request.params.id));
    const document = Number(request.params.document);
    if (!job?.documents[document - 1]) return void response.status(404).json({ error: 'no such document' });
    response.type('application/pdf').send(Buffer.from(await archive.readDocument(job.id, document)));
  });
  // What is on a face of a sheet in the output, as it was printed.
  app.get('/panel/jobs/:id/sheets/:index/:face.png', async (request, response) => {
    const { id, index, face } = request.params;
    const sheet = machine.jobs.get(Number(id))?.delivered.find((one) => one.index === Number(index));
    const mark = face === 'upper' || face === 'lower' ? sheet?.[face] : null;
    if (!mark) return void response.status(404).json({ error: 'nothing is printed there' });
    const file = await archive.readDocument(mark.job, mark.document);
    const inColor = machine.profile.color && !isMonochrome(machine.jobs.get(mark.job));
    response.type('png').send(Buffer.from(await renderPage(file, mark.page, FACE_DPI, inColor)));
  });
}

/** Dots an inch at which faces are shown: enough to read them. */
const FACE_DPI = 100;

/** Whether a job asked for black alone (PWG 5100.13, print-color-mode). */
const isMonochrome = (job: PrintJob | undefined): boolean =>
  job !== undefined && firstString(job.attributes, 'print-color-mode') === 'monochrome';
