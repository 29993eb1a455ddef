import { createServer, type RequestListener, type Server } from 'node:http';
import fc from 'fast-check';
import {
  askJob,
  askStatus,
  collection,
  dataOf,
  decodeMessage,
  encodeMessage,
  firstString,
  groupOf,
  integer,
  IppDecodeError,
  IppError,
  OPERATIONS,
  readProfile,
  STATUS,
  type Attributes,
} from '../src';
import { askPrinter, type IppRequest } from '../src/client';
import { answerOf, bytesOf, close, listening, SMALL, trayWithA4 } from './small-printer';

let server: Server | null = null;

const answering = (listener: RequestListener): Promise<string> => listening((server = createServer(listener)));

afterEach(() => {
  close(server);
  server = null;
});

describe('what nobody here has words for', () => {
  test('tags and values that are not of their syntax are kept as they came, and written so again', () => {
    const strange: Attributes = {
      'x-tag': [{ tag: 'other', number: 0x7e, value: new Uint8Array([1, 2]) }],
      'x-short': [{ tag: 'other', number: 0x21, value: new Uint8Array([7]) }],
      'x-name': [{ tag: 'other', number: 0x36, value: new Uint8Array([0, 9, 65]) }],
      'x-col': [collection({ within: [{ tag: 'other', number: 0x5f, value: new Uint8Array([3]) }, integer(4)] })],
    };
    const message = answerOf({ ...SMALL, ...strange });
    expect(JSON.stringify(decodeMessage(encodeMessage(message)).message)).toBe(JSON.stringify(message));
    expect(readProfile(groupOf(decodeMessage(encodeMessage(message)).message, 'printer')).trays).toHaveLength(2);
  });

  test('groups are passed over, with what is in them (RFC 8010, 3.5.1)', () => {
    const plain = bytesOf(answerOf());
    const group = Buffer.from([0x0e, 0x44, 0, 1, 0x78, 0, 1, 0x79]);
    const { message } = decodeMessage(Buffer.concat([plain.subarray(0, 8), group, plain.subarray(8)]));
    expect(message).toEqual(answerOf());
  });

  test('a message of more values than any printer has is not read to its end', () => {
    const many = answerOf({ many: Array.from({ length: 60_000 }, (_, at) => integer(at)) });
    expect(() => decodeMessage(encodeMessage(many))).toThrow(/it has more than 50000 values/);
  });
});

describe('a profile of what a printer lists', () => {
  test('a tray twice, with margins and to the edge, is one tray with the wider margins', () => {
    const twice = {
      ...SMALL,
      'media-col-ready': [trayWithA4('tray-1', 0), trayWithA4('tray-1', 420), trayWithA4('tray-2', 300)],
    };
    const { trays, margin } = readProfile(twice);
    expect(trays.map(({ id, margin: own }) => [id, own])).toEqual([
      ['tray-1', 4.2],
      ['tray-2', 3],
    ]);
    expect(margin).toBe(4.2);
  });

  test('more trays, or papers, than any printer has are refused by their number', () => {
    const of = (count: number) => ({
      ...SMALL,
      'media-col-ready': Array.from({ length: count }, (_, at) => trayWithA4(`tray-${at}`)),
    });
    expect(() => readProfile(of(60))).toThrow('the printer names 60 trays, which none has');
    expect(() => readProfile(of(5_000))).toThrow('the printer names 5000 papers, which none has');
  });

  test('names that are no keywords are no trays', () => {
    expect(() => readProfile({ ...SMALL, 'media-col-ready': [trayWithA4('Tray One!')] })).toThrow('names no tray');
  });
});

test('law: whatever of an answer is changed, it is read, or refused in words', () => {
  const whole = encodeMessage(answerOf());
  const change = fc.oneof(
    fc.record({ at: fc.nat(whole.length - 1), byte: fc.nat(255) }),
    fc.record({ at: fc.nat(whole.length - 1), cut: fc.nat(40) }),
    fc.record({ at: fc.nat(whole.length - 1), put: fc.uint8Array({ maxLength: 40 }) }),
  );
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 4 }), (changes) => {
      const bytes = changes.reduce<number[]>(
        (now, one) => {
          const next = [...now];
          if ('byte' in one) next[one.at] = one.byte;
          else if ('cut' in one) next.splice(one.at, one.cut);
          else next.splice(one.at, 0, ...one.put);
          return next;
        },
        [...whole],
      );
      try {
        const { message } = decodeMessage(Uint8Array.from(bytes.map((byte) => byte ?? 0)));
        const { trays } = readProfile(groupOf(message, 'printer'));
        expect(trays.length).toBeGreaterThan(0);
      } catch (error) {
        if (error instanceof IppDecodeError) return;
        expect((error as Error).message).toMatch(/^the printer names /);
      }
    }),
    { numRuns: 20_000 },
  );
});

describe('times', () => {
  // The clock is the test's; what goes over the connection is not.
  beforeEach(() => {
    jest.useFakeTimers({ doNotFake: ['nextTick', 'setImmediate', 'queueMicrotask', 'performance', 'hrtime'] });
  });
  afterEach(() => {
    jest.useRealTimers();
  });

  interface Asked {
    why: string | null | undefined;
  }

  /** Asks, and tells why it came to nothing; null: it was answered; undefined: it has not ended yet. */
  function ask(uri: string, change: Partial<IppRequest> = {}): Asked {
    const asked: Asked = { why: undefined };
    void askPrinter(uri, { operation: OPERATIONS.getPrinterAttributes, ...change }).then(
      () => (asked.why = null),
      (error: unknown) => (asked.why = error instanceof IppError ? error.why : String(error)),
    );
    return asked;
  }

  /** Lets go through what is on its way, until something holds. */
  async function until(holds: () => boolean): Promise<void> {
    for (let turn = 0; !holds() && turn < 100_000; turn += 1) await new Promise<void>((next) => setImmediate(next));
    expect(holds()).toBe(true);
  }

  /** So much time goes by, a second after the other. */
  async function pass(seconds: number): Promise<void> {
    for (let second = 0; second < seconds; second += 1) {
      await jest.advanceTimersByTimeAsync(1_000);
      await new Promise<void>((next) => setImmediate(next));
    }
  }

  test('an answer has its whole time, however often a byte of it comes', async () => {
    const bytes = bytesOf(answerOf());
    let come = 0;
    let more = (): void => undefined;
    const uri = await answering((_request, response) => {
      response.writeHead(200, { 'Content-Length': bytes.length });
      more = () => void response.write(bytes.subarray(come, (come += 1)));
      more();
    });
    const asked = ask(uri);
    await until(() => come > 0);
    for (let third = 0; third < 4 && asked.why === undefined; third += 1) {
      await pass(3);
      more();
    }
    await until(() => asked.why !== undefined);
    expect([asked.why, come]).toEqual(['it takes too long to answer', 5]);
  });

  test('so has one that never comes', async () => {
    let isAsked = false;
    const uri = await answering(() => (isAsked = true));
    const asked = ask(uri);
    await until(() => isAsked);
    await pass(9);
    expect(asked.why).toBeUndefined();
    await pass(2);
    await until(() => asked.why !== undefined);
    expect(asked.why).toBe('it takes too long to answer');
  });

  const document = dataOf(new Uint8Array(8 * 1024 * 1024));

  test('a document of which nothing more is taken is waited for while the printer says that it is there', async () => {
    let paper: (() => void) | null = null;
    const uri = await answering((request, response) => {
      request.pause();
      paper = () => {
        request.resume();
        request.on('end', () => response.end(bytesOf(answerOf())));
      };
    });
    let times = 0;
    const goesOn = () => Promise.resolve((times += 1) > 0);
    const asked = ask(uri, { operation: OPERATIONS.sendDocument, document, goesOn });
    await until(() => paper !== null);
    await pass(5 * 60);
    expect([asked.why, times > 5]).toEqual([undefined, true]);
    paper!();
    await until(() => asked.why !== undefined);
    expect(asked.why).toBeNull();
  });

  test.each([
    ['says so no more', 31, () => false],
    ['says so for more than half an hour', 31 * 60, () => true],
  ])('where it %s, it is not', async (_what, seconds, says) => {
    let isAsked = false;
    const uri = await answering((request) => {
      isAsked = true;
      request.pause();
    });
    const goesOn = () => Promise.resolve(says());
    const asked = ask(uri, { operation: OPERATIONS.sendDocument, document, goesOn });
    await until(() => isAsked);
    await pass(25);
    expect(asked.why).toBeUndefined();
    await pass(seconds);
    await until(() => asked.why !== undefined);
    expect(asked.why).toBe('it takes no more of the document');
  });
});

describe('connections', () => {
  test('questions share one; one that the printer closed meanwhile is made anew', async () => {
    const sockets = new Set<unknown>();
    const uri = await answering((request, response) => {
      sockets.add(request.socket);
      response.end(bytesOf(answerOf()));
    });
    for (let round = 0; round < 4; round += 1) await askStatus(uri);
    expect(sockets.size).toBe(1);
    // Closed without a word, as a printer does that was off and on.
    for (const socket of sockets) (socket as { destroy(): void }).destroy();
    expect((await askStatus(uri)).profile.trays).toHaveLength(2);
    expect(sockets.size).toBe(2);
  });

  test('what changes something goes over one of its own, and is never sent twice', async () => {
    let asked = 0;
    const sockets = new Set<unknown>();
    const uri = await answering((request, response) => {
      sockets.add(request.socket);
      request.resume();
      const isQuestion = asked === 0;
      asked += 1;
      if (isQuestion) return void response.end(bytesOf(answerOf()));
      request.socket.destroy();
    });
    await askStatus(uri);
    const creating = askPrinter(uri, { operation: OPERATIONS.createJob });
    await expect(creating).rejects.toMatchObject({ name: 'IppError', reached: true, why: 'the connection broke off' });
    expect([asked, sockets.size]).toEqual([2, 2]);
  });

  test('one that never was is told from one that broke', async () => {
    const uri = await answering(() => undefined);
    close(server);
    const creating = askPrinter(uri, { operation: OPERATIONS.createJob });
    await expect(creating).rejects.toMatchObject({
      reached: false,
      why: 'nothing listens there; see that the printer is switched on and the address is right',
    });
  });
});

describe('answers that are not to be believed', () => {
  test('about another job than was asked for', async () => {
    const other = { 'job-id': [integer(8)], 'job-state': [{ tag: 'enum', value: 9 } as const] };
    const message = { ...answerOf(), groups: [{ tag: 'job', attributes: other } as const] };
    const uri = await answering((_request, response) => response.end(bytesOf(message)));
    await expect(askJob(uri, 7)).rejects.toMatchObject({ message: 'it tells of job 8, not of 7', status: null });
    expect(await askJob(uri, 8)).toMatchObject({ state: 'completed', sheetsCompleted: null });
  });

  test.each([
    [{ 'job-state': 3 }, 0],
    [{ 'job-state': 5 }, null],
    [{ 'job-state': 5, 'job-media-sheets-completed': 3 }, 3],
    [{ 'job-state': 8, 'job-impressions-completed': 0 }, 0],
    [{ 'job-state': 8, 'job-impressions-completed': 3 }, null],
  ])('sheets that are not told are not none: %j', async (told, sheets) => {
    const attributes = Object.fromEntries(Object.entries(told).map(([name, value]) => [name, [integer(value)]]));
    const message = { ...answerOf(), groups: [{ tag: 'job', attributes } as const] };
    const uri = await answering((_request, response) => response.end(bytesOf(message)));
    expect((await askJob(uri, 1)).sheetsCompleted).toBe(sheets);
  });

  test('an address to go on to is told and not followed', async () => {
    let asked = 0;
    const uri = await answering((_request, response) => {
      asked += 1;
      response.writeHead(301, { Location: 'http://example.invalid/' }).end();
    });
    await expect(askStatus(uri)).rejects.toThrow(/answers with HTTP status 301, not IPP, and sends on to http:/);
    expect(asked).toBe(1);
  });

  test('an answer of more than a megabyte is not read', async () => {
    const uri = await answering((_request, response) => response.end(Buffer.alloc(2_000_000)));
    await expect(askStatus(uri)).rejects.toMatchObject({
      why: 'its answer is longer than 1 MB, which no printer’s is',
    });
  });

  test('the words of a refusal are the printer’s own', async () => {
    const refusal = { ...answerOf(), code: STATUS.busy };
    const uri = await answering((_request, response) => response.end(bytesOf(refusal)));
    const refused = askPrinter(uri, { operation: OPERATIONS.createJob });
    await expect(refused).rejects.toThrow('the printer refuses: fine (status 0x0507)');
    expect(firstString(refusal.groups[0]!.attributes, 'status-message')).toBe('fine');
  });
});
