import { gzipSync } from 'node:zlib';
import { setTimeout as wait } from 'node:timers/promises';
import type { Ticket } from '@foglio/core';
import {
  allStrings,
  decodeMessage,
  encodeMessage,
  firstNumber,
  groupOf,
  OPERATIONS,
  STATUS,
  type Attributes,
  type Value,
} from '@foglio/ipp';
import fc from 'fast-check';
import { enums, Printer, type Parsed } from 'ipp';
import sharp from 'sharp';
import request from 'supertest';
import { listen, type Listener } from '../../../packages/ipp/test/second-opinion';
import { declaredIn } from '../../../packages/ipp/test/standard-syntaxes';
import { pwgRaster, type Drawn } from '../../../packages/pdf/test/intake/pwg-raster';
import { embeddedPictures } from '../../../packages/pdf/test/poppler';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { startServer, type RunningServer } from './running-server';

/** Foglio as a printer, asked by other clients than its own. */

let server: RunningServer;
/** Reads along, with another package, all that passes. */
let wire: Listener;

beforeAll(async () => {
  server = await startServer({ reads: true });
  wire = await listen(server.queueAddress('desk'));
});
afterAll(async () => {
  // First, so that nothing runs on where the two readings differ.
  await server.stop();
  wire.close();
});

interface Job {
  readonly id: string;
  readonly ticket: Ticket;
  readonly came: {
    readonly name: string;
    readonly user: string;
    readonly queue: string;
    readonly remarks: string[];
  } | null;
}

const jobs = async (): Promise<Job[]> => (await request(server.base).get('/api/jobs')).body as Job[];
const jobNamed = async (name: string): Promise<Job> => {
  const found = (await jobs()).find(({ came }) => came?.name === name);
  return (await request(server.base).get(`/api/jobs/${found!.id}`)).body as Job;
};

/** Asks by the client of the package `ipp`. */
function execute(
  operation: string,
  groups: { readonly [group: string]: unknown } | null,
  uri = wire.uri,
): Promise<Parsed> {
  const printer = new Printer(uri.replace('ipp:', 'http:'));
  return new Promise((resolve, reject) =>
    printer.execute(operation, groups, (error, answer) => (error ? reject(error) : resolve(answer))),
  );
}

/** A message with a document behind it, as our own codec writes it. */
function message(code: number, operation: Attributes, job: Attributes | null = null): Uint8Array {
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
          'printer-uri': [{ tag: 'uri', value: server.queueAddress('desk') }],
          'requesting-user-name': [{ tag: 'name', value: 'anna' }],
          ...operation,
        },
      },
      ...(job ? [{ tag: 'job' as const, attributes: job }] : []),
    ],
  });
}

async function post(...parts: readonly Uint8Array[]): Promise<ReturnType<typeof decodeMessage>['message']> {
  const answer = await fetch(wire.uri.replace('ipp:', 'http:'), {
    method: 'POST',
    headers: { 'Content-Type': 'application/ipp' },
    body: Buffer.concat(parts),
  });
  expect(answer.status).toBe(200);
  return decodeMessage(new Uint8Array(await answer.arrayBuffer())).message;
}

const name = (value: string): Value[] => [{ tag: 'name', value }];
const format = (value: string): Value[] => [{ tag: 'mimeMediaType', value }];
const keyword = (value: string): Value[] => [{ tag: 'keyword', value }];
const integer = (value: number): Value[] => [{ tag: 'integer', value }];

test('what a program’s dialog asked for is the ticket of the job that lies on the Desk', async () => {
  const answer = await execute('Print-Job', {
    'operation-attributes-tag': {
      'requesting-user-name': 'anna',
      'job-name': 'Season contract',
      'document-format': 'application/pdf',
    },
    'job-attributes-tag': { copies: 3, sides: 'two-sided-long-edge', 'page-ranges': [[2, 5]] },
    data: Buffer.from(numberedPdf(8)),
  });
  expect(answer.statusCode).toBe('successful-ok');
  expect(answer['job-attributes-tag']).toMatchObject({ 'job-state': 'completed', 'job-name': 'Season contract' });
  const { ticket, came } = await jobNamed('Season contract');
  expect(ticket).toMatchObject({ title: 'Season contract', copies: 3, sides: 'two-sided', bind: 'left', routes: [] });
  expect(ticket.documents).toMatchObject([{ pages: '2-5' }]);
  expect(came).toMatchObject({ name: 'Season contract', user: 'anna', queue: 'the Desk', remarks: [] });
});

test('paper, number up, colour, quality and sets are taken up too; what cannot be is said to both', async () => {
  const size: Attributes = { 'x-dimension': integer(14800), 'y-dimension': integer(21000) };
  const media: Attributes = {
    'media-size': [{ tag: 'collection', value: size }],
    'media-source': keyword('tray-2'),
  };
  const answer = await post(
    message(
      OPERATIONS.printJob,
      { 'job-name': name('Everything'), 'document-format': format('application/pdf') },
      {
        'media-col': [{ tag: 'collection', value: media }],
        'number-up': integer(4),
        'presentation-direction-number-up': keyword('tobottom-toright'),
        'print-color-mode': keyword('monochrome'),
        'print-quality': [{ tag: 'enum', value: 5 }],
        'multiple-document-handling': keyword('separate-documents-uncollated-copies'),
        'print-scaling': keyword('fill'),
        finishings: [{ tag: 'enum', value: 4 }],
        'job-sheets': keyword('standard'),
      },
    ),
    numberedPdf(3, 842, 595),
  );
  expect(answer.code).toBe(STATUS.okIgnoredOrSubstituted);
  // The attribute that is not known by itself, the value that is not taken by that (RFC 8011, 4.1.7).
  expect(groupOf(answer, 'unsupported')).toEqual({
    finishings: [{ tag: 'enum', value: 4 }],
    'job-sheets': [{ tag: 'unsupported' }],
  });
  const { ticket, came } = await jobNamed('Everything');
  expect(ticket).toMatchObject({
    paper: { size: 'iso_a5_148x210mm' },
    tray: 'tray-2',
    layout: { kind: 'grid', pagesPerSide: 4, flow: 'tobottom-toright' },
    color: 'monochrome',
    quality: 'high',
    collate: false,
    scale: { mode: 'fill' },
  });
  expect(came?.remarks).toEqual([
    'The program asked for staples, holes or folds, which was not taken up.',
    'The program asked for a cover page, which was not taken up.',
  ]);
});

test('landscape pages that turn on their short edge turn like a book', async () => {
  const asked = { sides: keyword('two-sided-short-edge') };
  await post(message(OPERATIONS.printJob, { 'job-name': name('Wide') }, asked), numberedPdf(2, 842, 595));
  expect((await jobNamed('Wide')).ticket).toMatchObject({ sides: 'two-sided', bind: 'left' });
});

test('a job that insists is refused where something cannot be had, and nothing of it is there', async () => {
  const before = (await jobs()).length;
  const insists: Attributes = { 'ipp-attribute-fidelity': [{ tag: 'boolean', value: true }] };
  const asked = { 'job-sheets': keyword('standard') };
  for (const code of [OPERATIONS.printJob, OPERATIONS.validateJob, OPERATIONS.createJob]) {
    const answer = await post(
      message(code, insists, asked),
      code === OPERATIONS.printJob ? numberedPdf(1) : new Uint8Array(),
    );
    expect(answer.code).toBe(STATUS.attributesOrValuesNotSupported);
  }
  expect((await jobs()).length).toBe(before);
});

test('documents come one after the other, compressed or not, and are one job', async () => {
  const created = await post(message(OPERATIONS.createJob, { 'job-name': name('Two') }));
  const id = firstNumber(groupOf(created, 'job'), 'job-id')!;
  expect(firstNumber(groupOf(created, 'job'), 'job-state')).toBe(4);
  const target = { 'job-id': integer(id) };
  const send = (last: boolean, data: Uint8Array, more: Attributes = {}) =>
    post(
      message(OPERATIONS.sendDocument, { ...target, 'last-document': [{ tag: 'boolean', value: last }], ...more }),
      data,
    );
  await send(false, gzipSync(numberedPdf(2)), { compression: keyword('gzip'), 'document-name': name('letter.pdf') });
  // Nothing behind the message, and it is the last: no further document comes.
  await send(false, numberedPdf(3));
  const closed = await send(true, new Uint8Array());
  expect(firstNumber(groupOf(closed, 'job'), 'job-state')).toBe(9);
  expect(firstNumber(groupOf(closed, 'job'), 'number-of-documents')).toBe(2);
  const { ticket } = await jobNamed('Two');
  expect(ticket.documents).toHaveLength(2);
  expect((await send(true, numberedPdf(1))).code).toBe(STATUS.notPossible);
  const broken = await post(
    message(OPERATIONS.printJob, { compression: keyword('gzip'), 'job-name': name('Not gzip') }),
    numberedPdf(1),
  );
  expect(broken.code).toBe(STATUS.compressionError);
});

test('a job is cancelled while its documents come, and lies nowhere then', async () => {
  const created = await post(message(OPERATIONS.createJob, { 'job-name': name('Never') }));
  const target = { 'job-id': integer(firstNumber(groupOf(created, 'job'), 'job-id')!) };
  expect((await post(message(OPERATIONS.cancelJob, target))).code).toBe(STATUS.ok);
  const last: Attributes = { 'last-document': [{ tag: 'boolean', value: true }] };
  expect((await post(message(OPERATIONS.sendDocument, { ...target, ...last }), numberedPdf(1))).code).toBe(
    STATUS.notPossible,
  );
  expect((await post(message(OPERATIONS.cancelJob, target))).code).toBe(STATUS.notPossible);
  expect((await jobs()).some(({ came }) => came?.name === 'Never')).toBe(false);
});

test('pictures and texts are taken, by what they say they are or by what is in them; what is nothing is refused', async () => {
  for (const [said, data] of [
    ['text/plain', Buffer.from('Dear colleague,\n')],
    ['application/octet-stream', Buffer.from(numberedPdf(1))],
  ] as const) {
    const answer = await post(message(OPERATIONS.printJob, { 'document-format': format(said) }), data);
    expect(answer.code).toBe(STATUS.ok);
  }
  const nothing = Buffer.from([0, 1, 2, 3]);
  expect((await post(message(OPERATIONS.printJob, {}), nothing)).code).toBe(STATUS.documentFormatError);
  const unknown = { 'document-format': format('application/postscript') };
  expect((await post(message(OPERATIONS.printJob, unknown), numberedPdf(1))).code).toBe(
    STATUS.documentFormatNotSupported,
  );
});

test('20 pages of PWG Raster, compressed, lie on the Desk pixel by pixel as they were sent', async () => {
  const pages = Array.from({ length: 20 }, (_, page): Drawn => ({
    kind: 'sgray_8',
    width: 120,
    height: 90,
    dpi: 300,
    pixels: Uint8Array.from({ length: 120 * 90 }, (__, at) => (at * (page + 1) + (at >> 5)) & 255),
  }));
  const asked = {
    'document-format': format('image/pwg-raster'),
    compression: keyword('gzip'),
    'job-name': name('Raster'),
  };
  const answer = await post(message(OPERATIONS.printJob, asked), gzipSync(pwgRaster(pages)));
  expect(answer.code).toBe(STATUS.ok);
  const { ticket } = await jobNamed('Raster');
  const content = await fetch(`${server.base}/api/files/${ticket.documents[0]!.file}/content`);
  const pictures = embeddedPictures(new Uint8Array(await content.arrayBuffer()));
  expect(pictures.map(({ dpi }) => dpi)).toEqual(pages.map(() => [300, 300]));
  for (const [at, { png }] of pictures.entries()) {
    const { data } = await sharp(png).toColourspace('b-w').removeAlpha().raw().toBuffer({ resolveWithObject: true });
    expect([at, data.equals(pages[at]!.pixels)]).toEqual([at, true]);
  }
});

test('asked which printer it is, it shows itself to whoever has Foglio open', async () => {
  const heard = new Promise<string>((resolve) =>
    server.presence.on('news', (topic, key) => topic === 'identify' && resolve(key)),
  );
  expect((await post(message(OPERATIONS.identifyPrinter, {}))).code).toBe(STATUS.ok);
  expect(await heard).toBe('desk');
});

test('jobs are listed by where they are, whose they are, and how many', async () => {
  const listed = async (more: Attributes): Promise<number> =>
    (await post(message(OPERATIONS.getJobs, more))).groups.filter(({ tag }) => tag === 'job').length;
  const all = await listed({ 'which-jobs': keyword('completed') });
  expect(all).toBeGreaterThan(2);
  expect(await listed({ 'which-jobs': keyword('completed'), limit: integer(2) })).toBe(2);
  expect(await listed({ 'which-jobs': keyword('completed'), 'my-jobs': [{ tag: 'boolean', value: true }] })).toBe(all);
  expect(await listed({})).toBe(0);
});

// What PWG 5100.14-2020 requires (5.1 operations, 5.3 to 5.5 attributes), each with where it is declared; from memory.
const REQUIRED_OPERATIONS = [
  ['printJob', 'RFC 8011, 4.2.1'],
  ['validateJob', 'RFC 8011, 4.2.3'],
  ['createJob', 'RFC 8011, 4.2.4'],
  ['sendDocument', 'RFC 8011, 4.3.1'],
  ['cancelJob', 'RFC 8011, 4.3.3'],
  ['getJobAttributes', 'RFC 8011, 4.3.4'],
  ['getJobs', 'RFC 8011, 4.2.6'],
  ['getPrinterAttributes', 'RFC 8011, 4.2.5'],
  ['cancelMyJobs', 'PWG 5100.11, 4.2'],
  ['closeJob', 'PWG 5100.7, 5.1'],
  ['identifyPrinter', 'PWG 5100.13, 4.1'],
] as const;

const REQUIRED_ATTRIBUTES = `charset-configured charset-supported color-supported compression-supported copies-default
copies-supported document-format-default document-format-supported finishings-default finishings-supported
generated-natural-language-supported identify-actions-default identify-actions-supported ipp-features-supported
ipp-versions-supported job-creation-attributes-supported job-ids-supported media-bottom-margin-supported media-col-database
media-col-default media-col-ready media-col-supported media-default media-left-margin-supported media-ready
media-right-margin-supported media-size-supported media-source-supported media-supported media-top-margin-supported
media-type-supported multiple-document-jobs-supported multiple-operation-time-out multiple-operation-time-out-action
natural-language-configured operations-supported orientation-requested-default orientation-requested-supported
output-bin-default output-bin-supported overrides-supported page-ranges-supported pdl-override-supported
preferred-attributes-supported print-color-mode-default print-color-mode-supported print-content-optimize-default
print-content-optimize-supported print-quality-default print-quality-supported print-rendering-intent-default
print-rendering-intent-supported print-scaling-supported printer-alert printer-alert-description printer-config-change-date-time
printer-config-change-time printer-current-time printer-device-id printer-geo-location printer-get-attributes-supported
printer-icons printer-info printer-input-tray printer-is-accepting-jobs printer-location printer-make-and-model
printer-more-info printer-name printer-organization printer-organizational-unit printer-output-tray
printer-resolution-default printer-resolution-supported printer-state printer-state-change-date-time
printer-state-change-time printer-state-message printer-state-reasons printer-supply printer-supply-description
printer-supply-info-uri printer-up-time printer-uri-supported printer-uuid pwg-raster-document-resolution-supported
pwg-raster-document-sheet-back pwg-raster-document-type-supported queued-job-count sides-default sides-supported
uri-authentication-supported uri-security-supported which-jobs-supported`.split(/\s+/);

test.each(REQUIRED_ATTRIBUTES.map((name) => [name, declaredIn(name)] as const))(
  '%s is told (%s)',
  async (attribute, section) => {
    expect(section).toMatch(/^(RFC|PWG) \d+/);
    const asked = { 'requested-attributes': keyword(attribute) };
    const { code, groups } = await post(message(OPERATIONS.getPrinterAttributes, asked));
    expect(code).toBe(STATUS.ok);
    const told = groups.find(({ tag }) => tag === 'printer')?.attributes ?? {};
    expect(Object.keys(told)).toEqual([attribute]);
    expect(told[attribute]!.length).toBeGreaterThan(0);
  },
);

test.each(REQUIRED_OPERATIONS)('%s is done (%s)', async (operation) => {
  const answer = await post(message(OPERATIONS[operation], { 'job-id': integer(2 ** 30) }));
  expect([STATUS.operationNotSupported, STATUS.internalError]).not.toContain(answer.code);
});

test('its icons are pictures of the size they are named by, where it is asked (PWG 5100.13, 5.6.9)', async () => {
  const asked = { 'requested-attributes': keyword('printer-icons') };
  const { groups } = await post(message(OPERATIONS.getPrinterAttributes, asked));
  const icons = allStrings(groups.at(-1)!.attributes, 'printer-icons');
  const widths = icons.map(async (icon) => {
    const answer = await fetch(
      icon.replace(/:\d+\//, `:${new URL(server.queueAddress('desk').replace('ipp:', 'http:')).port}/`),
    );
    expect(answer.headers.get('content-type')).toBe('image/png');
    // ISO/IEC 15948, 11.2.2: the width is the first of IHDR.
    return Buffer.from(await answer.arrayBuffer()).readUInt32BE(16);
  });
  expect(await Promise.all(widths)).toEqual([48, 128, 512]);
  expect((await fetch(icons[0]!.replace('icon-48', 'icon-49'))).status).toBe(404);
});

test('nothing is fetched from elsewhere: Print-URI and Send-URI are no operations of it', async () => {
  // 0x0003 and 0x0007 (RFC 8011, 5.4.15).
  for (const code of [0x0003, 0x0007]) {
    const answer = await post(message(code, { 'document-uri': [{ tag: 'uri', value: 'http://127.0.0.1:1/x.pdf' }] }));
    expect(answer.code).toBe(STATUS.operationNotSupported);
  }
});

test('a request of RFC 8010, appendix A.1, byte by byte, is understood', async () => {
  const parts: number[] = [0x02, 0x00, 0x00, 0x02, 0x00, 0x00, 0x00, 0x01, 0x01];
  const put = (tag: number, attribute: string, value: string): void => {
    parts.push(tag, 0, attribute.length, ...Buffer.from(attribute), 0, value.length, ...Buffer.from(value));
  };
  put(0x47, 'attributes-charset', 'utf-8');
  put(0x48, 'attributes-natural-language', 'en-us');
  put(0x45, 'printer-uri', 'ipp://printer.example.com/ipp/print/pinetree');
  put(0x42, 'job-name', 'foobar');
  parts.push(0x22, 0, 22, ...Buffer.from('ipp-attribute-fidelity'), 0, 1, 1);
  parts.push(0x02);
  parts.push(0x21, 0, 6, ...Buffer.from('copies'), 0, 4, 0, 0, 0, 20);
  put(0x44, 'sides', 'two-sided-long-edge');
  parts.push(0x03);
  const answer = await post(Uint8Array.from(parts), numberedPdf(2));
  expect(answer.code).toBe(STATUS.ok);
  expect((await jobNamed('foobar')).ticket).toMatchObject({ copies: 20, sides: 'two-sided' });
});

test('what makes no sense is refused with the standard’s status (RFC 8011, 4.1)', async () => {
  const statusOf = async (bytes: Uint8Array): Promise<number> => (await post(bytes)).code;
  const good = message(OPERATIONS.getPrinterAttributes, {});
  const changed = (at: number, ...bytes: number[]): Uint8Array => {
    const copy = Uint8Array.from(good);
    copy.set(bytes, at);
    return copy;
  };
  expect(await statusOf(changed(0, 9, 9))).toBe(STATUS.versionNotSupported);
  expect(await statusOf(changed(4, 0, 0, 0, 0))).toBe(STATUS.badRequest);
  expect(await statusOf(good.subarray(0, 30))).toBe(STATUS.badRequest);
  const latin = Buffer.from(Buffer.from(good).toString('latin1').replace('utf-8', 'latin'), 'latin1');
  expect(await statusOf(latin)).toBe(STATUS.charsetNotSupported);
  const url = server.queueAddress('desk').replace('ipp:', 'http:');
  expect((await fetch(url)).status).toBe(405);
  expect((await fetch(url, { method: 'POST', body: 'x' })).status).toBe(415);
  const headers = { 'Content-Type': 'application/ipp' };
  expect((await fetch(url.replace('/desk', '/nobody'), { method: 'POST', headers, body: good })).status).toBe(404);
});

test('whatever comes, it is answered in IPP and the next request too', async () => {
  const base = message(OPERATIONS.printJob, { 'job-name': name('Fuzz') }, { copies: integer(2) });
  const url = server.queueAddress('desk').replace('ipp:', 'http:');
  const mutated = fc
    .array(fc.tuple(fc.nat(base.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 })
    .map((changes) => {
      const copy = Uint8Array.from(base);
      for (const [at, value] of changes) copy[at] = value;
      return copy;
    });
  await fc.assert(
    fc.asyncProperty(fc.oneof(mutated, fc.uint8Array({ maxLength: 200 })), async (body) => {
      const answer = await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/ipp' }, body });
      const { code } = decodeMessage(new Uint8Array(await answer.arrayBuffer())).message;
      expect(Object.values<number>(STATUS)).toContain(code);
      expect(code).not.toBe(STATUS.internalError);
    }),
    { numRuns: 200 },
  );
  expect((await post(message(OPERATIONS.getPrinterAttributes, {}))).code).toBe(STATUS.ok);
});

test('200 jobs from 10 clients at once are all there, once', async () => {
  const pdf = numberedPdf(1);
  await Promise.all(
    Array.from({ length: 10 }, async (_, client) => {
      for (let number = 0; number < 20; number += 1) {
        const named = { 'job-name': name(`client ${client}, job ${number}`) };
        expect((await post(message(OPERATIONS.printJob, named), pdf)).code).toBe(STATUS.ok);
      }
    }),
  );
  const names = (await jobs()).flatMap(({ came }) => (came?.name.startsWith('client ') ? [came.name] : []));
  expect([names.length, new Set(names).size]).toEqual([200, 200]);
});

test('a document that breaks off is nowhere', async () => {
  const { connect } = await import('node:net');
  const before = (await jobs()).length;
  const port = Number(new URL(server.queueAddress('desk').replace('ipp:', 'http:')).port);
  const head = message(OPERATIONS.printJob, { 'job-name': name('Cut off') });
  const socket = connect(port, '127.0.0.1');
  socket.on('error', () => undefined);
  socket.write(
    `POST /ipp/print/desk HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/ipp\r\nContent-Length: ${head.length + 5000}\r\n\r\n`,
  );
  socket.write(head);
  socket.write(numberedPdf(1).subarray(0, 300));
  for (let looks = 0; looks < 500; looks += 1) {
    const answer = await post(message(OPERATIONS.getJobs, { 'requested-attributes': keyword('job-name') }));
    if (JSON.stringify(answer).includes('Cut off')) break;
    await wait(10);
  }
  socket.destroy();
  for (let looks = 0; looks < 500; looks += 1) {
    const answer = await post(
      message(OPERATIONS.getJobs, { 'which-jobs': keyword('completed'), 'requested-attributes': keyword('all') }),
    );
    const job = answer.groups.find(({ attributes }) =>
      JSON.stringify(attributes['job-name'] ?? '').includes('Cut off'),
    );
    if (job) {
      expect(firstNumber(job.attributes, 'job-state')).toBe(8);
      expect((await jobs()).length).toBe(before);
      return;
    }
    await wait(10);
  }
  throw new Error('it was never aborted');
});

test('the other package knows by name what it is told', () => {
  expect(enums['job-state']?.lookup?.[9]).toBe('completed');
});
