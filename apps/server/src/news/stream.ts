import { OPERATIONS, type NewsRecord } from '@foglio/api';
import { eq } from 'drizzle-orm';
import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import type { Database } from '../database/connection';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { jobs } from '../database/schema';
import { describeSending, findSending } from '../sendings/sending-store';
import type { Presence, Topic } from '../sendings/presence';
import { refusal } from '../http/guard';
import { Problem } from '../http/problem';
import { findPrinter } from '../printers/printer-store';
import type { PrinterNow, PrinterWatch } from '../printers/watch';
import { log } from '../log';

const { path: NEWS_PATH } = OPERATIONS.news;

/** A word now and then, so that both sides notice a connection that is dead without having been closed. */
const BEAT_MS = 15_000;

/** Bytes that wait for a listener who takes nothing any more; it comes again and asks for all. */
const MOST_WAITING = 4 * 1024 * 1024;

/** Status codes of RFC 6455 (7.4.1) and of its registry. */
const SERVICE_RESTART = 1012;
const TRY_AGAIN_LATER = 1013;

export interface NewsParts {
  readonly db: Database;
  readonly presence: Presence;
  readonly watch: PrinterWatch;
  readonly port: () => number;
}

/** Nothing can be asked for, and nothing is told, until it is back. */
const AWAY = { topic: 'database away' } as const;

/** As it goes out; moments become text on the way. */
type Told = NewsRecord | { readonly topic: 'sending' | 'printer'; readonly [field: string]: unknown };

/**
 * `/api/news`: what changes, as it changes, over a WebSocket (RFC 6455). Of server-sent events a browser keeps no more
 * than six connections to one server, and a seventh window would wait for ever. Nothing that was missed is told later:
 * whoever comes, or comes again, asks for what it needs.
 */
export class NewsStream {
  // What listeners say is not listened to.
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: 1024 });
  private readonly answered = new WeakSet<WebSocket>();
  private readonly beat: NodeJS.Timeout;

  constructor(private readonly parts: NewsParts) {
    parts.presence.on('news', this.hear).on('lost', this.tellAway).on('reopened', this.endAll);
    parts.watch.on('changed', this.tellPrinter);
    this.beat = setInterval(() => this.beatAll(), BEAT_MS);
  }

  /** Takes listeners at a server. */
  attach(server: Server): void {
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      socket.on('error', () => socket.destroy());
      const why = refusal(request.headers, this.parts.port());
      if (why) return turnAway(socket, '403 Forbidden', why.message);
      if (request.url !== NEWS_PATH) return turnAway(socket, '404 Not Found', `There is nothing at ${request.url}.`);
      this.sockets.handleUpgrade(request, socket, head, (listener) => this.take(listener));
    });
  }

  close(): void {
    clearInterval(this.beat);
    this.parts.presence.off('news', this.hear).off('lost', this.tellAway).off('reopened', this.endAll);
    this.parts.watch.off('changed', this.tellPrinter);
    for (const listener of this.sockets.clients) listener.terminate();
    this.parts.watch.rest();
  }

  private take(listener: WebSocket): void {
    this.answered.add(listener);
    listener.on('pong', () => this.answered.add(listener));
    listener.on('error', () => listener.terminate());
    listener.on('close', () => this.sockets.clients.size === 0 && this.parts.watch.rest());
    this.parts.watch.begin();
    if (!this.parts.presence.stands) listener.send(JSON.stringify(AWAY));
  }

  private readonly hear = (topic: Topic, key: string): void => {
    if (this.sockets.clients.size === 0) return;
    this.find(topic, key).then(
      (told) => told && this.tell(told),
      (error: unknown) => isDatabaseAway(error) || log.error({ topic, key, err: forLog(error) }, 'news'),
    );
  };

  /** What is told of it, as it stands now; null where it is told in another way, or gone. */
  private async find(topic: Topic, key: string): Promise<Told | null> {
    const { db, watch } = this.parts;
    try {
      if (topic === 'sending') return { topic, sending: describeSending(await findSending(db, key)) };
      if (topic === 'printer') return { topic, printer: await watch.describe(await findPrinter(db, key)) };
      if (topic !== 'job') return { topic, id: key };
      const [job] = await db.select({ revision: jobs.revision }).from(jobs).where(eq(jobs.id, key));
      return { topic, id: key, revision: job?.revision ?? 0 };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return topic === 'printer' ? { topic: 'no printer', id: key } : null;
    }
  }

  private readonly tellAway = (): void => this.tell(AWAY);

  private readonly tellPrinter = (printer: PrinterNow): void => this.tell({ topic: 'printer', printer });

  private tell(told: Told): void {
    const text = JSON.stringify(told);
    for (const listener of this.sockets.clients) {
      if (listener.readyState !== listener.OPEN) continue;
      if (listener.bufferedAmount > MOST_WAITING) listener.close(TRY_AGAIN_LATER);
      else listener.send(text);
    }
  }

  private beatAll(): void {
    for (const listener of this.sockets.clients) {
      if (!this.answered.delete(listener)) listener.terminate();
      else listener.ping();
    }
    this.tell({ topic: 'beat' });
  }

  /** News may have been missed: whoever listens comes again by itself, and then asks for all. */
  private readonly endAll = (): void => {
    for (const listener of this.sockets.clients) listener.close(SERVICE_RESTART);
  };
}

function turnAway(socket: Duplex, status: string, why: string): void {
  const body = `${why}\n`;
  const head = [`HTTP/1.1 ${status}`, 'Content-Type: text/plain; charset=utf-8', 'Connection: close'];
  socket.end(`${head.join('\r\n')}\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`);
}
