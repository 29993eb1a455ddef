import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import { readPrinter } from '@foglio/core/validate';
import { createApp } from './app';
import { Archive } from './archive';
import { Machine } from './machine';
import { MANNERS } from './manners';

const USAGE = `usage: printer --profile PROFILE.json --folder FOLDER [--port 0] [--sheet-ms 400] [--intake-kb 0] [--keep-days 90] [--manner NAME]
  --profile    what printer to be: a printer profile
  --folder     where jobs, documents and delivered sheets are kept
  --port       loopback port; 0 takes a free one
  --sheet-ms   milliseconds a sheet takes
  --intake-kb  kilobytes a second at which documents are taken in; 0: as fast as they come
  --keep-days  days that a job is kept once it has ended
  --manner     something that it does not do as others do: ${Object.keys(MANNERS).join(', ')}`;

const { values } = parseArgs({
  options: {
    profile: { type: 'string' },
    folder: { type: 'string' },
    port: { type: 'string', default: '0' },
    'sheet-ms': { type: 'string', default: '400' },
    'intake-kb': { type: 'string', default: '0' },
    'keep-days': { type: 'string', default: '90' },
    manner: { type: 'string' },
  },
});
const manner = values.manner === undefined ? undefined : MANNERS[values.manner];
if (!values.profile || !values.folder || (values.manner !== undefined && !manner)) {
  console.error(USAGE);
  process.exit(2);
}
const archive = new Archive(values.folder);
const profile = readPrinter(JSON.parse(readFileSync(values.profile, 'utf8')));
const intakeKb = Number(values['intake-kb']) || Infinity;
const machine = new Machine({ profile, archive, sheetMs: Number(values['sheet-ms']), intakeKb });
await machine.start();

/** Time between two looks for jobs that are kept no longer, in milliseconds. */
const FORGET_EVERY_MS = 60 * 60_000;
const forget = async (): Promise<void> => {
  const before = new Date(Date.now() - Number(values['keep-days']) * 24 * 60 * 60_000);
  const forgotten = await machine.forget(before);
  if (forgotten > 0) console.log(`${profile.name} (simulated) forgot ${forgotten} jobs of before`);
};
await forget();
setInterval(() => void forget(), FORGET_EVERY_MS).unref();

const server = createServer(createApp({ machine, archive, ...(manner ? { manner } : {}) }));
// A slow intake is this printer's own doing, so it must not be the reason to break off.
server.requestTimeout = 0;
// Longer than a client is likely to be busy elsewhere between two questions.
server.keepAliveTimeout = 65_000;
server.listen(Number(values.port), '127.0.0.1', () => {
  const address = server.address();
  const port = typeof address === 'object' ? address?.port : values.port;
  console.log(`${profile.name} (simulated) at ipp://127.0.0.1:${port}/ipp/print`);
});
const off = async (): Promise<void> => {
  server.close();
  server.closeAllConnections();
  await machine.shutDown();
  process.exit(0);
};
process.on('SIGINT', () => void off());
process.on('SIGTERM', () => void off());
