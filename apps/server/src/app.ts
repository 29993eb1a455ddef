import { join } from 'node:path';
import { describeApi } from '@foglio/api';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Database } from './database/connection';
import { deliveryRoutes } from './deliveries/routes';
import { fileRoutes } from './files/routes';
import { guard } from './http/guard';
import { Problem, problemHandler } from './http/problem';
import { jobRoutes } from './jobs/routes';
import { NEWS_PATH } from './news/stream';
import type { PdfWorkers } from './pdf/pdf-workers';
import { printerRoutes } from './printers/routes';
import type { PrinterWatch } from './printers/watch';
import { seriesRoutes } from './series/routes';
import { setupRoutes } from './setups/routes';

export interface AppParts {
  readonly db: Database;
  readonly watch: PrinterWatch;
  readonly workers: PdfWorkers;
  readonly port: () => number;
  readonly webFolder: string;
  readonly uploadLimit: number;
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

/** The whole server: API under /api, the web application everywhere else. */
export function createApp({ db, watch, workers, port, webFolder, uploadLimit }: AppParts): Express {
  const app = express();
  // Served on loopback over plain HTTP, where asking browsers to insist on TLS would only lock people out.
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY_POLICY, strictTransportSecurity: false }));
  app.use(guard(port));
  app.use('/api/files', fileRoutes(db, workers, uploadLimit));
  app.use('/api', express.json({ limit: '1mb' }));
  const described = describeApi();
  app.get('/api/openapi.json', (_request, response) => void response.json(described));
  app.use('/api/jobs', jobRoutes(db, workers));
  app.use('/api/setups', setupRoutes(db));
  app.use('/api/series', seriesRoutes(db));
  app.use('/api/printers', printerRoutes(db, watch));
  app.use('/api/deliveries', deliveryRoutes(db));
  app.get(NEWS_PATH, () => {
    throw new Problem('upgrade-required', 'News comes over a WebSocket: ask for one (RFC 6455).');
  });
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
