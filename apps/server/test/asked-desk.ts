import type { Ticket } from '@foglio/core';
import { decodeMessage, encodeMessage, type Attributes, type Message, type Value } from '@foglio/ipp';
import { Printer, type Parsed } from 'ipp';
import request from 'supertest';
import { listen, type Listener } from '../../../packages/ipp/test/second-opinion';
import { startServer, type RunningServer } from './running-server';

/** A job as the API tells of it. */
export interface Job {
  readonly id: string;
  readonly ticket: Ticket;
  readonly came: {
    readonly name: string;
    readonly user: string;
    readonly queue: string;
    readonly remarks: string[];
  } | null;
}

export const name = (value: string): Value[] => [{ tag: 'name', value }];
export const format = (value: string): Value[] => [{ tag: 'mimeMediaType', value }];
export const keyword = (value: string): Value[] => [{ tag: 'keyword', value }];
export const integer = (value: number): Value[] => [{ tag: 'integer', value }];

/** The Desk as a printer, asked by other clients than its own; another package reads along all that passes. */
export class AskedDesk {
  private constructor(
    readonly server: RunningServer,
    private readonly wire: Listener,
  ) {}

  static async open(): Promise<AskedDesk> {
    const server = await startServer({ reads: true });
    return new AskedDesk(server, await listen(server.queueAddress('desk')));
  }

  async close(): Promise<void> {
    // First, so that nothing runs on where the two readings differ.
    await this.server.stop();
    this.wire.close();
  }

  /** Where it is asked without anybody reading along. */
  get url(): string {
    return this.server.queueAddress('desk').replace('ipp:', 'http:');
  }

  /** A set-up that is offered as a printer: its address. */
  async offered(called: string, ticket: object): Promise<string> {
    const saved = await request(this.server.base).post('/api/setups').send({ name: called, ticket });
    const { id } = saved.body as { id: string };
    const changed = await request(this.server.base).put(`/api/setups/${id}`).send({ offered: true });
    return this.server.queueAddress((changed.body as { queue: string }).queue);
  }

  async jobs(): Promise<Job[]> {
    const all: Job[] = [];
    for (;;) {
      const answer = await request(this.server.base).get('/api/jobs').query({ from: all.length, most: 100 });
      const { jobs, total } = answer.body as { jobs: Job[]; total: number };
      all.push(...jobs);
      if (all.length >= total) return all;
    }
  }

  /** @param called as the program called it */
  async jobNamed(called: string): Promise<Job> {
    const found = (await this.jobs()).find(({ came }) => came?.name === called);
    return (await request(this.server.base).get(`/api/jobs/${found!.id}`)).body as Job;
  }

  /** Asks by the client of the package `ipp`. */
  execute(operation: string, groups: { readonly [group: string]: unknown } | null): Promise<Parsed> {
    const printer = new Printer(this.wire.uri.replace('ipp:', 'http:'));
    return new Promise((resolve, reject) =>
      printer.execute(operation, groups, (error, answer) => (error ? reject(error) : resolve(answer))),
    );
  }

  /** A message as our own codec writes it. */
  message(code: number, operation: Attributes, job: Attributes | null = null): Uint8Array {
    return encodeMessage({
      version: [2, 0],
      code,
      requestId: 7,
      groups: [
        {
          tag: 'operation',
          attributes: {
            'attributes-charset': [{ tag: 'charset', value: 'utf-8' }],
            'attributes-natural-language': [{ tag: 'naturalLanguage', value: 'en' }],
            'printer-uri': [{ tag: 'uri', value: this.server.queueAddress('desk') }],
            'requesting-user-name': name('anna'),
            ...operation,
          },
        },
        ...(job ? [{ tag: 'job' as const, attributes: job }] : []),
      ],
    });
  }

  /** Sends a message and what is behind it. */
  post(...parts: readonly Uint8Array[]): Promise<Message> {
    return this.postTo(this.wire.uri, ...parts);
  }

  /** The same to another queue. */
  async postTo(uri: string, ...parts: readonly Uint8Array[]): Promise<Message> {
    const answer = await fetch(uri.replace('ipp:', 'http:'), {
      method: 'POST',
      headers: { 'Content-Type': 'application/ipp' },
      body: Buffer.concat(parts),
    });
    expect(answer.status).toBe(200);
    return decodeMessage(new Uint8Array(await answer.arrayBuffer())).message;
  }
}
