import sharp from 'sharp';
import { pageSizes, pageTexts, qpdfComplaints, renderColour } from '../../pdf/test/poppler';
import { documentKind } from '../src/kind';
import { browserForAll } from './lend';
import { mailFile } from './make-mail';
import { rowsBook } from './make-workbook';
import { letters } from './take';

/** Mail as poppler reads what is made of it. */
const take = browserForAll();

const redPicture = (): Promise<Buffer> =>
  sharp({ create: { width: 40, height: 40, channels: 3, background: '#d02020' } })
    .png()
    .toBuffer();

const hasRed = (pdf: Uint8Array): boolean => {
  const { pixels } = renderColour(pdf, 1, 50);
  return Array.from({ length: pixels.length / 3 }, (_, at) => at * 3).some(
    (at) => pixels[at]! > 180 && pixels[at + 1]! < 80 && pixels[at + 2]! < 80,
  );
};

const wordsOf = (pdf: Uint8Array): string => pageTexts(pdf).join(' ').replace(/\s+/g, ' ').trim();

test('a message of plain text: who wrote it to whom, when and about what, and its lines', async () => {
  const mail = mailFile({ plain: 'Dear Bo,\n\n  indented <b>not bold</b>\nbest, Ada' });
  const { bytes, laid, remarks } = await take('plan.eml', mail);
  expect(qpdfComplaints(bytes)).toBe('');
  const [page] = pageSizes(bytes);
  expect([Math.round(page!.width), Math.round(page!.height)]).toEqual([595, 842]);
  expect(wordsOf(bytes)).toBe(
    'From: Ada Reed <ada@orchestra.example> To: Bo Lind <bo@hall.example>, office@hall.example ' +
      'Sent: Mon, 30 Nov 2026 10:15:00 +0100 Subject: Pläne für den Mai Dear Bo, indented <b>not bold</b> best, Ada',
  );
  expect(laid).toMatchObject({ kind: 'mail', form: {}, taken: { typeSize: 11 }, attachments: [] });
  expect(remarks).toEqual([]);
});

test('a message of HTML with a picture that came with it; nothing is fetched', async () => {
  const html =
    '<html><head><style>div{display:none}</style></head><body><p>Look <img src="cid:pic@x"><img src="https://spy.example/pixel.png"></body></html>';
  const mail = mailFile({ html }, [{ type: 'image/png', id: 'pic@x', bytes: await redPicture() }]);
  const { bytes, laid, remarks } = await take('a.eml', mail);
  // What its style hides is its own; who wrote it is shown whatever its style says.
  expect(wordsOf(bytes)).toMatch(/^From: Ada Reed.*Look/);
  expect(hasRed(bytes)).toBe(true);
  expect(laid?.attachments).toEqual([]);
  expect(remarks).toEqual(['Not with the file, and nothing is fetched for it: https://spy.example/pixel.png.']);
  const without = await take('a.eml', mail, { pictures: false });
  expect([hasRed(without.bytes), without.remarks]).toEqual([false, []]);
});

test('what is attached are documents of their own, each by its name; what is not known is told', async () => {
  const book = await rowsBook(Array.from({ length: 90 }, (_, row) => [row, `row ${row}`]));
  const mail = mailFile({ plain: 'see below' }, [
    { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', name: 'budget.xlsx', bytes: book },
    { type: 'text/csv', name: 'seats.csv', bytes: letters('hall,seats\nbig,900') },
    { type: 'text/csv', name: 'seats.csv', bytes: letters('hall,seats\nsmall,90') },
    { type: 'image/png', name: '../plan.png', bytes: await redPicture() },
    { type: 'application/octet-stream', name: 'setup.exe', bytes: new Uint8Array([0x4d, 0x5a, 0, 1, 2]) },
    {
      type: 'message/rfc822',
      bytes: mailFile({ plain: 'within' }, [{ type: 'text/plain', name: 'deep.txt', bytes: letters('deep') }]),
    },
  ]);
  const { bytes, laid, remarks } = await take('a.eml', mail);
  expect(laid?.attachments).toEqual(['budget.xlsx', 'seats.csv', 'seats (2).csv', 'plan.png', 'attachment 6.eml']);
  expect(wordsOf(bytes)).toContain('Attached: budget.xlsx, seats.csv, seats (2).csv, plan.png, setup.exe');
  expect(remarks).toEqual(['Attached, of a kind that is not known here, and not printed: setup.exe.']);
  const attached = (attachment: string, form = {}) => take('a.eml', mail, { attachment, ...form });
  const [budget, sideways] = [
    await attached('budget.xlsx'),
    await attached('budget.xlsx', { orientation: 'landscape' }),
  ];
  expect(budget.laid).toMatchObject({
    kind: 'workbook',
    form: { attachment: 'budget.xlsx' },
    sheets: [{ hidden: false }],
  });
  expect(budget.facts.pages.length).toBeGreaterThan(1);
  expect(sideways.laid?.form).toEqual({ attachment: 'budget.xlsx', orientation: 'landscape' });
  expect(wordsOf((await attached('seats (2).csv')).bytes)).toContain('small');
  const picture = await attached('plan.png');
  expect([hasRed(picture.bytes), picture.laid]).toEqual([
    true,
    { kind: 'mail', form: { attachment: 'plan.png' }, taken: {} },
  ]);
  const within = await attached('attachment 6.eml');
  expect([wordsOf(within.bytes).endsWith('within'), within.laid?.attachments]).toEqual([true, undefined]);
  await expect(attached('gone.pdf')).rejects.toThrow(
    'It cannot be laid out so: it has no attachment “gone.pdf”. Take the mail in again.',
  );
});

test.each<[string, string, string]>([
  ['a.eml', 'From: a@b.example\nSubject: hello\n\ntext', 'mail'],
  ['a.txt', 'From: a@b.example\nSubject: hello\n\ntext', 'text'],
  ['a.txt', 'Received: from x\nFrom: a@b.example\n\ntext', 'mail'],
  ['note.txt', 'Subject: what I think\nand so on', 'text'],
  ['a.mhtml', 'From: <Saved by Blink>\nMIME-Version: 1.0\n\n', 'saved-page'],
  ['a.eml', '{"from": "json"}', 'text'],
])('%s beginning %j is told by what is in it', (name, content, kind) => {
  expect(documentKind(letters(content), name)).toBe(kind);
});

test('a mail of ten thousand parts, of parts in parts and of nothing ends', async () => {
  const many = mailFile(
    { plain: 'x' },
    Array.from({ length: 10_000 }, (_, at) => ({ type: 'text/csv', name: `${at}.csv`, bytes: letters('1') })),
  );
  expect((await take('a.eml', many)).laid?.attachments).toHaveLength(500);
  const nested = `MIME-Version: 1.0\r\nFrom: a@b.example\r\n${Array.from({ length: 60 }, (_, at) => `Content-Type: multipart/mixed; boundary="b${at}"\r\n\r\n--b${at}\r\n`).join('')}`;
  await expect(take('a.eml', letters(nested))).rejects.toThrow(/This document is damaged: the mail cannot be read/);
  expect(wordsOf((await take('a.eml', letters('MIME-Version: 1.0\r\nFrom: a@b.example\r\n\r\n'))).bytes)).toBe(
    'From: a@b.example',
  );
});
