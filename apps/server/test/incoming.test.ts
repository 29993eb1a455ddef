import { gzipSync } from 'node:zlib';
import { setTimeout as wait } from 'node:timers/promises';
import { firstNumber, firstString, groupOf, OPERATIONS, STATUS, type Attributes } from '@foglio/ipp';
import { noRoom } from '@foglio/pdf';
import sharp from 'sharp';
import { pwgRaster, type Drawn } from '../../../packages/pdf/test/intake/pwg-raster';
import { embeddedPictures } from '../../../packages/pdf/test/poppler';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { mailFile } from '../../../packages/typeset/test/make-mail';
import { AskedDesk, format, integer, keyword, name } from './asked-desk';

/** What other programs print to the Desk, and what becomes of it. */

let desk: AskedDesk;

beforeAll(async () => {
  desk = await AskedDesk.open();
});
afterAll(() => desk.close());

test('what a program’s dialog asked for is the ticket of the job that lies on the Desk', async () => {
  const answer = await desk.execute('Print-Job', {
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
  const { ticket, came } = await desk.jobNamed('Season contract');
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
  const answer = await desk.post(
    desk.message(
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
  const { ticket, came } = await desk.jobNamed('Everything');
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
  await desk.post(desk.message(OPERATIONS.printJob, { 'job-name': name('Wide') }, asked), numberedPdf(2, 842, 595));
  expect((await desk.jobNamed('Wide')).ticket).toMatchObject({ sides: 'two-sided', bind: 'left' });
});

test('a job that insists is refused where something cannot be had, and nothing of it is there', async () => {
  const before = (await desk.jobs()).length;
  const insists: Attributes = { 'ipp-attribute-fidelity': [{ tag: 'boolean', value: true }] };
  const asked = { 'job-sheets': keyword('standard') };
  for (const code of [OPERATIONS.printJob, OPERATIONS.validateJob, OPERATIONS.createJob]) {
    const answer = await desk.post(
      desk.message(code, insists, asked),
      code === OPERATIONS.printJob ? numberedPdf(1) : new Uint8Array(),
    );
    expect(answer.code).toBe(STATUS.attributesOrValuesNotSupported);
  }
  expect((await desk.jobs()).length).toBe(before);
});

test('documents come one after the other, compressed or not, and are one job', async () => {
  const created = await desk.post(desk.message(OPERATIONS.createJob, { 'job-name': name('Two') }));
  const id = firstNumber(groupOf(created, 'job'), 'job-id')!;
  expect(firstNumber(groupOf(created, 'job'), 'job-state')).toBe(4);
  const target = { 'job-id': integer(id) };
  const send = (last: boolean, data: Uint8Array, more: Attributes = {}) =>
    desk.post(
      desk.message(OPERATIONS.sendDocument, { ...target, 'last-document': [{ tag: 'boolean', value: last }], ...more }),
      data,
    );
  await send(false, gzipSync(numberedPdf(2)), { compression: keyword('gzip'), 'document-name': name('letter.pdf') });
  // Nothing behind the message, and it is the last: no further document comes.
  await send(false, numberedPdf(3));
  const closed = await send(true, new Uint8Array());
  expect(firstNumber(groupOf(closed, 'job'), 'job-state')).toBe(9);
  expect(firstNumber(groupOf(closed, 'job'), 'number-of-documents')).toBe(2);
  const { ticket } = await desk.jobNamed('Two');
  expect(ticket.documents).toHaveLength(2);
  expect((await send(true, numberedPdf(1))).code).toBe(STATUS.notPossible);
  const broken = await desk.post(
    desk.message(OPERATIONS.printJob, { compression: keyword('gzip'), 'job-name': name('Not gzip') }),
    numberedPdf(1),
  );
  expect(broken.code).toBe(STATUS.compressionError);
});

test('a job is cancelled while its documents come, and lies nowhere then', async () => {
  const created = await desk.post(desk.message(OPERATIONS.createJob, { 'job-name': name('Never') }));
  const target = { 'job-id': integer(firstNumber(groupOf(created, 'job'), 'job-id')!) };
  expect((await desk.post(desk.message(OPERATIONS.cancelJob, target))).code).toBe(STATUS.ok);
  const last: Attributes = { 'last-document': [{ tag: 'boolean', value: true }] };
  expect((await desk.post(desk.message(OPERATIONS.sendDocument, { ...target, ...last }), numberedPdf(1))).code).toBe(
    STATUS.notPossible,
  );
  expect((await desk.post(desk.message(OPERATIONS.cancelJob, target))).code).toBe(STATUS.notPossible);
  expect((await desk.jobs()).some(({ came }) => came?.name === 'Never')).toBe(false);
});

test('pictures and texts are taken, by what they say they are or by what is in them; what is nothing is refused', async () => {
  for (const [said, data] of [
    ['text/plain', Buffer.from('Dear colleague,\n')],
    ['application/octet-stream', Buffer.from(numberedPdf(1))],
  ] as const) {
    const answer = await desk.post(desk.message(OPERATIONS.printJob, { 'document-format': format(said) }), data);
    expect(answer.code).toBe(STATUS.ok);
  }
  const nothing = Buffer.from([0, 1, 2, 3]);
  expect((await desk.post(desk.message(OPERATIONS.printJob, {}), nothing)).code).toBe(STATUS.documentFormatError);
  const unknown = { 'document-format': format('application/postscript') };
  expect((await desk.post(desk.message(OPERATIONS.printJob, unknown), numberedPdf(1))).code).toBe(
    STATUS.documentFormatNotSupported,
  );
});

test('where a disk is full it is told to come again later, and nothing of it lies on the Desk', async () => {
  const before = (await desk.jobs()).length;
  const full = jest.spyOn(desk.server.workers, 'takeIn').mockRejectedValue(noRoom('There is no room left in /tmp.'));
  const answer = await desk.post(
    desk.message(OPERATIONS.printJob, { 'job-name': name('Full') }),
    numberedPdf(1, 333, 444),
  );
  full.mockRestore();
  expect(answer.code).toBe(STATUS.temporaryError);
  expect(firstString(groupOf(answer, 'operation'), 'status-message')).toBe('There is no room left in /tmp.');
  expect(await desk.jobs()).toHaveLength(before);
});

test('a mail and what is attached to it are documents of one job', async () => {
  const mail = mailFile({ plain: 'see below' }, [
    { type: 'application/pdf', name: 'plan.pdf', bytes: numberedPdf(3) },
    { type: 'text/csv', name: 'seats.csv', bytes: Buffer.from('hall,seats') },
  ]);
  const { code } = await desk.post(
    desk.message(OPERATIONS.printJob, { 'job-name': name('Mail'), 'document-format': format('message/rfc822') }, {}),
    mail,
  );
  expect(code).toBe(STATUS.ok);
  const { ticket } = await desk.jobNamed('Mail');
  expect(ticket.documents.map(({ form }) => form)).toEqual([
    {},
    { attachment: 'plan.pdf' },
    { attachment: 'seats.csv' },
  ]);
  expect(new Set(ticket.documents.map(({ file }) => file)).size).toBe(3);
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
  const answer = await desk.post(desk.message(OPERATIONS.printJob, asked), gzipSync(pwgRaster(pages)));
  expect(answer.code).toBe(STATUS.ok);
  const { ticket } = await desk.jobNamed('Raster');
  const content = await fetch(`${desk.server.base}/api/files/${ticket.documents[0]!.file}/content`);
  const pictures = embeddedPictures(new Uint8Array(await content.arrayBuffer()));
  expect(pictures.map(({ dpi }) => dpi)).toEqual(pages.map(() => [300, 300]));
  for (const [at, { png }] of pictures.entries()) {
    const { data } = await sharp(png).toColourspace('b-w').removeAlpha().raw().toBuffer({ resolveWithObject: true });
    expect([at, data.equals(pages[at]!.pixels)]).toEqual([at, true]);
  }
});

test('asked which printer it is, it shows itself to whoever has Foglio open', async () => {
  const heard = new Promise<string>((resolve) =>
    desk.server.presence.on('news', (topic, key) => topic === 'identify' && resolve(key)),
  );
  expect((await desk.post(desk.message(OPERATIONS.identifyPrinter, {}))).code).toBe(STATUS.ok);
  expect(await heard).toBe('desk');
});

test('jobs are listed by where they are, whose they are, and how many', async () => {
  const listed = async (more: Attributes): Promise<number> =>
    (await desk.post(desk.message(OPERATIONS.getJobs, more))).groups.filter(({ tag }) => tag === 'job').length;
  const all = await listed({ 'which-jobs': keyword('completed') });
  expect(all).toBeGreaterThan(2);
  expect(await listed({ 'which-jobs': keyword('completed'), limit: integer(2) })).toBe(2);
  expect(await listed({ 'which-jobs': keyword('completed'), 'my-jobs': [{ tag: 'boolean', value: true }] })).toBe(all);
  expect(await listed({})).toBe(0);
});

test('200 jobs from 10 clients at once are all there, once', async () => {
  const pdf = numberedPdf(1);
  await Promise.all(
    Array.from({ length: 10 }, async (_, client) => {
      for (let number = 0; number < 20; number += 1) {
        const named = { 'job-name': name(`client ${client}, job ${number}`) };
        expect((await desk.post(desk.message(OPERATIONS.printJob, named), pdf)).code).toBe(STATUS.ok);
      }
    }),
  );
  const names = (await desk.jobs()).flatMap(({ came }) => (came?.name.startsWith('client ') ? [came.name] : []));
  expect([names.length, new Set(names).size]).toEqual([200, 200]);
});

test('a document that breaks off is nowhere', async () => {
  const { connect } = await import('node:net');
  const before = (await desk.jobs()).length;
  const port = Number(new URL(desk.url).port);
  const head = desk.message(OPERATIONS.printJob, { 'job-name': name('Cut off') });
  const socket = connect(port, '127.0.0.1');
  socket.on('error', () => undefined);
  socket.write(
    `POST /ipp/print/desk HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/ipp\r\nContent-Length: ${head.length + 5000}\r\n\r\n`,
  );
  socket.write(head);
  socket.write(numberedPdf(1).subarray(0, 300));
  for (let looks = 0; looks < 500; looks += 1) {
    const answer = await desk.post(desk.message(OPERATIONS.getJobs, { 'requested-attributes': keyword('job-name') }));
    if (JSON.stringify(answer).includes('Cut off')) break;
    await wait(10);
  }
  socket.destroy();
  for (let looks = 0; looks < 500; looks += 1) {
    const answer = await desk.post(
      desk.message(OPERATIONS.getJobs, { 'which-jobs': keyword('completed'), 'requested-attributes': keyword('all') }),
    );
    const job = answer.groups.find(({ attributes }) =>
      JSON.stringify(attributes['job-name'] ?? '').includes('Cut off'),
    );
    if (job) {
      expect(firstNumber(job.attributes, 'job-state')).toBe(8);
      expect((await desk.jobs()).length).toBe(before);
      return;
    }
    await wait(10);
  }
  throw new Error('it was never aborted');
});
