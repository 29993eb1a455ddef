import { randomInt } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { Client } from 'pg';
import { log } from '../log';

/** The channel on which every server hears of every change; the tables' triggers write "topic key" to it. */
const CHANNEL = 'foglio_news';

/** What there is news of, with the key by which it is found: of a file the document's SHA-256, of all others the id. */
export type Topic = 'sending' | 'printer' | 'job' | 'file' | 'series' | 'incoming' | 'setup' | 'spend' | 'identify';

/** First half of the lock's key: tells these locks from others in the database. */
const LOCK_CLASS = 0x466f67;

const AGAIN_AFTER_MS = 1000;

/**
 * A server's presence in the database: a connection of its own that holds a lock for as long as the process lives, so
 * that others can tell a server that is still sending from one that was killed, and that hears of every
 * change. Emits "news" of all, "sending" with the id of one, "lost" when it
 * ends, and "reopened" after a time in which it may have missed some.
 */
export class Presence extends EventEmitter<{ news: [Topic, string]; sending: [string]; lost: []; reopened: [] }> {
  /** What sendings in this server's hands carry. */
  readonly server = randomInt(1, 2 ** 31 - 1);
  private client: Client | null = null;
  private closed = false;

  constructor(private readonly url: string) {
    super();
    this.setMaxListeners(0);
  }

  async open(): Promise<void> {
    const client = new Client({ connectionString: this.url });
    client.on('notification', ({ payload = '' }) => {
      const [topic, key] = payload.split(' ') as [Topic, string];
      this.emit('news', topic, key);
      if (topic === 'sending') this.emit('sending', key);
    });
    client.on('error', (error) => {
      log.warn(`database: ${error.message}`);
      // One that ends while it is opened is told by what waits for it.
      if (this.client !== client) return;
      this.openAgain();
      this.emit('lost');
    });
    await client.connect();
    await client.query('select pg_advisory_lock($1, $2)', [LOCK_CLASS, this.server]);
    await client.query(`listen ${CHANNEL}`);
    this.client = client;
  }

  /** Whether it stands, as far as is known. */
  get stands(): boolean {
    return this.client !== null;
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.client?.end();
  }

  /** Whether the server of that number still lives. */
  async lives(server: number): Promise<boolean> {
    if (server === this.server) return true;
    if (!this.client) return true;
    const { rows } = await this.client.query<{ gained: boolean }>('select pg_try_advisory_lock($1, $2) as gained', [
      LOCK_CLASS,
      server,
    ]);
    if (!rows[0]?.gained) return true;
    await this.client.query('select pg_advisory_unlock($1, $2)', [LOCK_CLASS, server]);
    return false;
  }

  /** Whether no other server lives. */
  async isAlone(): Promise<boolean> {
    const { rows } = await this.client!.query<{ others: number }>(
      `select count(*)::int as others from pg_locks where locktype = 'advisory' and classid = $1 and objid <> $2
       and database = (select oid from pg_database where datname = current_database())`,
      [LOCK_CLASS, this.server],
    );
    return rows[0]?.others === 0;
  }

  private openAgain(): void {
    this.client = null;
    if (this.closed) return;
    setTimeout(() => {
      this.open().then(
        () => this.emit('reopened'),
        () => this.openAgain(),
      );
    }, AGAIN_AFTER_MS).unref();
  }
}
