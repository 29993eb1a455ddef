import { readdirSync, readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import type { World } from './world';

/** What a client sent off, as it was answered for. */
export interface Accepted {
  readonly id: string;
  readonly title: string;
  readonly sheets: number;
  /** Whether its client thought better of it. */
  canceled: boolean;
  state: string;
  message: string | null;
}

/** A process at a moment. */
export interface Sample {
  readonly second: number;
  readonly program: 'server' | 'printer';
  /** Resident set size, in bytes, and open descriptors (proc(5)). */
  readonly memory: number;
  readonly descriptors: number;
}

interface Answer<T> {
  readonly status: number;
  readonly body: T;
}

/** A try ends after this, and the next begins after that, in milliseconds: whoever hangs is asked anew. */
const TRY_MS = 60_000;
const AGAIN_MS = 300;

/** Longer than any outage. */
const GIVE_UP_MS = 180_000;

const CONFIRMED = [
  'outside-printable',
  'text-too-small',
  'tray-short',
  'large-run',
  'gray-coded-as-color',
  'uncollated',
];
const OVER = ['completed', 'canceled', 'aborted', 'failed', 'interrupted'];

/** Numbers that look like chance, and are the same each time (a linear congruential generator, common practice). */
export function chance(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((state / 2 ** 31) * below);
  };
}

/** Clients that upload, plan, send and delete at once, whatever is killed meanwhile. */
export class Soak {
  readonly accepted: Accepted[] = [];
  readonly samples: Sample[] = [];
  /** Answers that were neither what was asked for nor an outage. */
  readonly wrong: string[] = [];
  private over = false;
  private readonly began = Date.now();

  constructor(private readonly world: World) {}

  /** Works until it is told to end, then until all that was accepted is over. */
  async work(clients: number, until: Promise<unknown>): Promise<void> {
    void until.finally(() => (this.over = true));
    const all = Array.from({ length: clients }, (_, client) => this.client(client));
    const beside = [this.refill(), this.watch()];
    await Promise.all(all);
    await Promise.all(beside);
  }

  private async client(client: number): Promise<void> {
    const next = chance(client + 1);
    for (let round = 0; !this.over; round += 1) {
      const title = `client ${client}, round ${round}`;
      const [pages, copies] = [1 + next(6), 1 + next(3)];
      const bytes = Buffer.concat([Buffer.from(numberedPdf(pages)), Buffer.from(`\n% ${title}\n`)]);
      const name = encodeURIComponent(`${title}.pdf`);
      const file = await this.ask<{ id: string }>('POST', `/files?name=${name}`, bytes);
      const ticket = { version: 1, title, documents: [{ file: file.id }], copies, tray: 'tray-1' };
      const job = await this.ask<{ id: string }>('POST', '/jobs', { ticket });
      const found = await this.ask<{ total: number }>('GET', `/jobs?search=${encodeURIComponent(title)}`);
      if (found.total < 1) this.wrong.push(`${title} is not in the list`);
      const sheets = pages * copies;
      const asked = { jobId: job.id, revision: 1, sheets, confirmed: CONFIRMED, key: `soak: ${title}, the only one` };
      const { id } = await this.ask<{ id: string }>('POST', '/sendings', asked);
      const accepted: Accepted = { id, title, sheets, canceled: false, state: 'queued', message: null };
      this.accepted.push(accepted);
      if (next(8) === 0) {
        const { status } = await this.answer('POST', `/sendings/${id}/cancel`, {});
        accepted.canceled = status === 200;
      }
      await this.follow(accepted);
      await this.answer('DELETE', `/jobs/${job.id}`);
    }
  }

  private async follow(accepted: Accepted): Promise<void> {
    for (const end = Date.now() + GIVE_UP_MS; Date.now() < end;) {
      const { state, message } = await this.ask<Pick<Accepted, 'state' | 'message'>>('GET', `/sendings/${accepted.id}`);
      Object.assign(accepted, { state, message });
      if (OVER.includes(accepted.state)) return;
      await wait(AGAIN_MS);
    }
    this.wrong.push(`${accepted.title} is still ${accepted.state}`);
  }

  /** An answer of 200 to 299. @throws Error where it cannot be had */
  async ask<T>(method: string, path: string, body?: object | Buffer): Promise<T> {
    const { status, body: answer } = await this.answer<T>(method, path, body);
    if (status >= 200 && status < 300) return answer;
    throw new Error(`${method} ${path}: ${status} ${JSON.stringify(answer)}`);
  }

  /** Asks again while nobody answers, something is away (5xx) or has no room (507), as a patient program does. */
  private async answer<T>(method: string, path: string, body?: object | Buffer): Promise<Answer<T>> {
    for (const end = Date.now() + GIVE_UP_MS; ;) {
      try {
        const isFile = Buffer.isBuffer(body);
        const answer = await fetch(`${this.world.base}/api${path}`, {
          method,
          signal: AbortSignal.timeout(TRY_MS),
          ...(body === undefined ? {} : { body: isFile ? new Uint8Array(body) : JSON.stringify(body) }),
          ...(body === undefined || isFile ? {} : { headers: { 'Content-Type': 'application/json' } }),
        });
        const text = await answer.text();
        if (answer.status < 500) return { status: answer.status, body: (text === '' ? {} : JSON.parse(text)) as T };
        // What only Foglio itself can have got wrong.
        if (answer.status === 500) this.wrong.push(`${method} ${path.replace(/\?.*/, '')}: ${text}`);
      } catch {
        // It was killed in the middle, or is not there again yet.
      }
      if (Date.now() > end) throw new Error(`${method} ${path}: nobody answers`);
      await wait(AGAIN_MS);
    }
  }

  /** Puts paper in, as somebody does who passes by. */
  private async refill(): Promise<void> {
    while (!this.over) {
      await this.world.load('tray-1', 400).catch(() => undefined);
      await wait(1_000);
    }
    await this.world.load('tray-1', 500).catch(() => undefined);
  }

  private async watch(): Promise<void> {
    while (!this.over) {
      const second = (Date.now() - this.began) / 1000;
      for (const program of ['server', 'printer'] as const) {
        const pid = program === 'server' ? this.world.serverPid : this.world.printerPid;
        try {
          const [, kilobytes] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
          const descriptors = readdirSync(`/proc/${pid}/fd`).length;
          this.samples.push({ second, program, memory: Number(kilobytes) * 1024, descriptors });
        } catch {
          // It is not there just now.
        }
      }
      await wait(2_000);
    }
  }
}

/** What came out of a printer, sheets by the names of its jobs, however many jobs of a name it has. */
export async function printed(world: World): Promise<Map<string, number>> {
  const sheets = new Map<string, number>();
  for (let id = 1; ; id += 1) {
    const answer = await fetch(`${world.panel}/jobs/${id}`);
    if (answer.status === 404) return sheets;
    const { name, deliveredCount } = (await answer.json()) as { name: string; deliveredCount: number };
    // Its name ends in the mark of its sending.
    const title = name.replace(/ #[0-9a-f]{8}$/, '');
    sheets.set(title, (sheets.get(title) ?? 0) + deliveredCount);
  }
}
