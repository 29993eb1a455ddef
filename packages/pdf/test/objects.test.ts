import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFContext, PDFObjectParser, type PDFRef } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { copyValue, writeObject } from '../src/objects/serialise';
import { endOfValue } from '../src/objects/tokens';
import { WrittenBytes } from '../src/objects/written-bytes';
import { opensAsTold } from '../src/open';
import { makePdf, numberedPdf, stream } from './make-pdf';
import { pageTexts, qpdfComplaints } from './poppler';

const latin1 = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
const bytesOf = (text: string): Uint8Array => new Uint8Array(Buffer.from(text, 'latin1'));

/** As qpdf writes a file with these options. */
function byQpdf(pdf: Uint8Array, ...options: string[]): Uint8Array {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-qpdf-'));
  try {
    writeFileSync(join(folder, 'in.pdf'), pdf);
    execFileSync('qpdf', [...options, join(folder, 'in.pdf'), join(folder, 'out.pdf')]);
    return new Uint8Array(readFileSync(join(folder, 'out.pdf')));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The same with a second page's content changed by what is put behind the file (ISO 32000-1, 7.5.6). */
function updated(pdf: Uint8Array): Uint8Array {
  const text = latin1(pdf);
  const before = /startxref\n(\d+)/.exec(text)![1]!;
  const at = text.length;
  const object = `13 0 obj\n${stream('BT /F1 30 Tf 50 700 Td (changed) Tj ET')}\nendobj\n`;
  const table = `xref\n13 1\n${String(at).padStart(10, '0')} 00000 n \n`;
  const start = at + object.length;
  return bytesOf(
    `${text}${object}${table}trailer\n<< /Size 20 /Root 1 0 R /Prev ${before} >>\nstartxref\n${start}\n%%EOF\n`,
  );
}

const THREE = numberedPdf(3);
const FROM_1_TO_3 = ['page1', 'page2', 'page3'];

/** Streams whose length is told by an object of its own, in the file or within an object stream. */
const MEASURED = makePdf({
  1: '<< /Type /Catalog /Pages 2 0 R >>',
  2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] /Resources << /Font << /F1 9 0 R >> >> >>',
  3: '<< /Type /Page /Parent 2 0 R /Contents 4 0 R >>',
  4: '<< /Length 5 0 R >>\nstream\nBT /F1 20 Tf 20 20 Td (endstream) Tj ET\nendstream',
  5: '39',
  9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
});

/** Its page is in an object stream of which only a stream of cross references tells, for readers that know these (7.5.8.4). */
function hybrid(): Uint8Array {
  const page = '<< /Type /Page /Parent 2 0 R /Contents 4 0 R >>';
  const packed = stream(`3 0 ${page}`, '/Type /ObjStm /N 1 /First 4');
  const table = latin1(
    makePdf({
      1: '<< /Type /Catalog /Pages 2 0 R >>',
      2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] /Resources << /Font << /F1 9 0 R >> >> >>',
      4: stream('BT /F1 20 Tf 20 20 Td (hidden) Tj ET'),
      6: packed,
      7: stream('\x02\x00\x06\x00', '/Type /XRef /Size 10 /W [1 2 1] /Index [3 1]'),
      9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    }),
  );
  return bytesOf(table.replace('/Root 1 0 R', `/Root 1 0 R /XRefStm ${table.indexOf('7 0 obj')}`));
}

const withWrongLength = bytesOf(latin1(MEASURED).replace('\n39\n', '\n12\n'));
const withWrongOffset = bytesOf(latin1(THREE).replace(/(\d{10}) 00000 n /, '0000000001 00000 n '));

describe('where objects stand (ISO 32000-1, 7.5)', () => {
  test.each<[string, Uint8Array, boolean, string[]]>([
    ['a table', THREE, true, FROM_1_TO_3],
    [
      'a stream, with predictors, and objects within streams',
      byQpdf(THREE, '--object-streams=generate'),
      true,
      FROM_1_TO_3,
    ],
    ['two of them, the first for the first page', byQpdf(THREE, '--linearize'), true, FROM_1_TO_3],
    ['a table behind a table, in which an object is another', updated(THREE), true, ['page1', 'changed', 'page3']],
    ['a table and a stream beside it', hybrid(), true, ['hidden']],
    ['a length of its own', MEASURED, true, ['endstream']],
    [
      'a length within an object stream',
      byQpdf(MEASURED, '--object-streams=generate', '--stream-data=preserve'),
      true,
      ['endstream'],
    ],
    ['a table that is wrong, so that the file is searched', withWrongOffset, false, FROM_1_TO_3],
    [
      'a number that leads nowhere',
      bytesOf(latin1(THREE).replace(/startxref\n\d+/, 'startxref\n99999')),
      false,
      FROM_1_TO_3,
    ],
    ['what was put before its beginning', Buffer.concat([Buffer.from('junk\n'), THREE]), false, FROM_1_TO_3],
  ])('are told by %s', async (_what, bytes, isAsTold, texts) => {
    expect(opensAsTold(new Uint8Array(bytes))).toBe(isAsTold);
    const source = new Uint8Array(bytes);
    const documents = [{ name: 'a.pdf', bytes: source, ...(await readFacts(source)) }];
    const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }] });
    const made = plan(ticket, documents, profileForTicket(ticket, documents));
    const pdf = await impose({ plan: made, ticket, documents, blanks: 'none' });
    expect(pageTexts(pdf).map((text) => text.trim())).toEqual(texts);
    expect(qpdfComplaints(pdf)).toBe('');
    expect(opensAsTold(pdf)).toBe(true);
  });

  test('a stream with a wrong length is written with the right one', async () => {
    expect(opensAsTold(withWrongLength)).toBe(true);
    const documents = [{ name: 'a.pdf', bytes: withWrongLength, ...(await readFacts(withWrongLength)) }];
    const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }] });
    const made = plan(ticket, documents, profileForTicket(ticket, documents));
    expect(qpdfComplaints(await impose({ plan: made, ticket, documents, blanks: 'none' }))).toBe('');
  });
});

/** Values as files have them, in all their spellings, and with references in them. */
const { value: VALUE } = fc.letrec<{ value: string }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.integer({ min: -99, max: 99 }).map(String),
    fc.constantFrom(
      '1.50',
      '-.002',
      '+7',
      'true',
      'null',
      '/Name',
      '/A#20B',
      '(a \\(string\\) (in) it)',
      '<0aFF 7>',
      '()',
    ),
    fc.integer({ min: 1, max: 500 }).map((number) => `${number} 0 R`),
    fc.array(tie('value'), { maxLength: 5 }).map((values) => `[${values.join(' ')}]`),
    fc
      .array(fc.tuple(fc.constantFrom('/K', '/Length', '/Z'), tie('value')), { maxLength: 4 })
      .map((entries) => `<<${entries.map(([key, value]) => `${key} ${value}`).join('%note\n')}>>`),
  ),
}));

test('a value is copied as it stands but for the numbers in it, which an object made of it says too', () => {
  const rename = ({ objectNumber }: PDFRef): number | null => (objectNumber % 7 === 0 ? null : objectNumber + 1_000);
  fc.assert(
    fc.property(VALUE, fc.constantFrom('', ' ', '\nendobj', ' 12 0 obj'), (value, behind) => {
      const bytes = bytesOf(value + behind);
      const end = endOfValue(bytes, 0);
      expect(end).toBe(value.length);
      const context = PDFContext.create();
      const [copied, made] = [new WrittenBytes(), new WrittenBytes()];
      copyValue(bytes, 0, end!, rename, copied);
      writeObject(PDFObjectParser.forBytes(bytesOf(value), context).parseObject(), rename, made);
      const again = (written: Uint8Array): string =>
        PDFObjectParser.forBytes(written, context).parseObject().toString();
      expect(again(copied.take())).toBe(again(made.take()));
    }),
  );
});

test.each(['', '<< /A 1', '[1 2', '>>', ']', '{', '<< /A [ >>'])('"%s" is no value', (text) => {
  expect(endOfValue(bytesOf(text), 0)).toBeNull();
});
