import { readFile } from 'node:fs/promises';
import { createServer, type Server, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { serveIpp } from '@foglio/ipp/serving';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { findQueue } from './queue';
import { queuePrinter, type QueueParts } from './queue-printer';
import { log } from '../log';

/** Connections at once: every program in a house, and none that would keep others out. */
const MOST_CONNECTIONS = 256;

/** A connection on which nothing comes for so long is closed, in milliseconds. */
const IDLE_MS = 60_000;

/** A whole document may take so long to come, in milliseconds. */
const LONGEST_REQUEST_MS = 30 * 60_000;

/** Icons of the queues (PWG 5100.13, printer-icons), as the application has them. */
const ICON_PATH = /^\/(icon-\d{2,3}\.png)$/;

/** Queues lie at /ipp/print/NAME. */
const QUEUE_PATH = /^\/ipp\/print\/([a-z0-9-]{1,80})$/;

/** Foglio as a printer: the Desk and the set-ups that are offered as printers (RFC 8010). */
export function createIppServer(parts: QueueParts, webFolder: string): Server {
  const find = async (path: string) => {
    const name = QUEUE_PATH.exec(path)?.[1];
    const queue = name === undefined ? null : await findQueue(parts.db, name);
    return queue && queuePrinter(parts, queue);
  };
  const server = createServer((request, response) => {
    const { socket } = request;
    socket.setTimeout(IDLE_MS);
    // All came: how long it takes from here on is not the sender's doing, and who is cut off now would print it again.
    request.on('end', () => socket.setTimeout(0));
    const icon = request.method === 'GET' && ICON_PATH.exec(request.url ?? '')?.[1];
    if (icon) return void sendIcon(join(webFolder, icon), response);
    serveIpp(request, response, find, { dataBytes: parts.uploadLimit }).catch((error: unknown) => {
      if (!isDatabaseAway(error)) log.error({ err: forLog(error) }, 'incoming');
      // Whoever prints hears that it was not taken, and prints again.
      if (!response.headersSent) response.writeHead(503, { 'Content-Length': 0 }).end();
      else response.destroy();
    });
  });
  server.maxConnections = MOST_CONNECTIONS;
  server.headersTimeout = IDLE_MS;
  server.requestTimeout = LONGEST_REQUEST_MS;
  server.setTimeout(IDLE_MS);
  return server;
}

async function sendIcon(path: string, response: ServerResponse): Promise<void> {
  try {
    const picture = await readFile(path);
    response.writeHead(200, { 'Content-Type': 'image/png', 'Content-Length': picture.length }).end(picture);
  } catch {
    response.writeHead(404, { 'Content-Length': 0 }).end();
  }
}
