import { join } from 'node:path';
import { describeApi, type OperationName } from '@foglio/api';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Database } from './database/connection';
import { holdBackHandlers } from './sendings/hold-back';
import { sendingHandlers } from './sendings/routes';
import { fileHandlers } from './files/routes';
import { healthHandlers } from './health/routes';
import { bind, type Handlers } from './http/bind';
import { guard } from './http/guard';
import { Problem, problemHandler } from './http/problem';
import { logRequests } from './http/request-log';
import { incomingHandlers } from './incoming/routes';
import { jobHandlers } from './jobs/routes';
import type { PdfWorkers } from './pdf/pdf-workers';
import type { Plans } from './plans/plans';
import type { Nearby } from './printers/nearby';
import { panelHandlers, printerHandlers } from './printers/routes';
import type { PrinterWatch } from './printers/watch';
import { seriesHandlers } from './series/routes';
import { setupHandlers } from './setups/routes';
import { spendHandlers } from './spend/routes';

export interface AppParts {
  readonly db: Database;
  readonly watch: PrinterWatch;
  readonly nearby: Nearby;
  readonly workers: PdfWorkers;
  readonly plans: Plans;
  readonly port: () => number;
  readonly webFolder: string;
  readonly uploadLimit: number;
  /** Where a queue can be printed to, by its name. */
  readonly queueAddress: (queue: string) => string;
}

/** Only what the page itself brings may run; pdf.js needs WebAssembly, and Angular writes style elements. */
const CONTENT_SECURITY_POLICY = {
  useDefaults: false,
  directives: {
    'default-src': ["'self'"],
    'script-src': ["'self'", "'wasm-unsafe-eval'"],
    'style-src': ["'self'", "'unsafe-inline'"],
    'worker-src': ["'self'", 'blob:'],
    'img-src': ["'self'", 'data:', 'blob:'],
    'font-src': ["'self'", 'data:'],
    'connect-src': ["'self'", 'blob:'],
    'object-src': ["'none'"],
    'base-uri': ["'self'"],
    'frame-ancestors': ["'none'"],
  },
};

/** Everything the API does. */
const handlersOf = ({
  db,
  watch,
  nearby,
  workers,
  plans,
  uploadLimit,
  queueAddress,
}: AppParts): Handlers<OperationName> => ({
  describeApi,
  ...healthHandlers(db),
  ...fileHandlers(db, workers, uploadLimit),
  ...jobHandlers(db, workers, plans),
  ...setupHandlers(db),
  ...seriesHandlers(db, workers),
  ...incomingHandlers(db, queueAddress),
  ...printerHandlers(db, watch, nearby),
  ...panelHandlers(db, watch),
  ...sendingHandlers(db, plans),
  ...holdBackHandlers(db, watch),
  ...spendHandlers(db),
  news: () => {
    throw new Problem('upgrade-required', 'News comes over a WebSocket: ask for one (RFC 6455).');
  },
});

/** The whole server: API under /api, the web application everywhere else. */
export function createApp(parts: AppParts): Express {
  const { port, webFolder } = parts;
  const app = express();
  // Served on loopback over plain HTTP, where asking browsers to insist on TLS would only lock people out.
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY_POLICY, strictTransportSecurity: false }));
  app.use(logRequests);
  app.use(guard(port));
  bind(app, handlersOf(parts));
  app.use('/api', (request) => {
    throw new Problem('not-found', `There is nothing at ${request.originalUrl}.`);
  });
  app.use(express.static(webFolder, { index: false, maxAge: '1h' }));
  app.get('/{*path}', (request, _response, next) => {
    // A missing script must be a 404: answered with the page, it would fail in ways nobody understands.
    if (/\.[a-z0-9]+$/i.test(request.path)) throw new Problem('not-found', `There is no ${request.path}.`);
    next();
  });
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'));
  });
  app.use(problemHandler);
  return app;
}
