import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PdfError, takeIn } from '../../src';
import { makePdf, numberedPdf, pagesPdf } from '../make-pdf';
import { pageTexts, qpdfComplaints } from '../poppler';

const MANUAL = new Uint8Array(readFileSync(join(__dirname, '../../../../.foglio/manual/maint-guide.en.pdf')));
const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
const bytes = (content: string): Uint8Array => new Uint8Array(Buffer.from(content, 'latin1'));

test('a sound file is taken as it is, byte by byte', async () => {
  const taken = await takeIn(MANUAL);
  expect(taken.bytes).toBe(MANUAL);
  expect(taken.remarks).toEqual([]);
});

test.each<[string, Uint8Array, number]>([
  [
    'a cross-reference table that points elsewhere',
    bytes(text(numberedPdf(5)).replace(/(\d{10}) 00000 n/g, '0000000777 00000 n')),
    5,
  ],
  ['no cross-reference table', bytes(text(numberedPdf(5)).replace(/xref[\s\S]*$/, '')), 5],
  ['a start that is not said', bytes(text(MANUAL).replace(/startxref\s+\d+/, 'startxref\n7')), 63],
])('%s: repaired, and said so', async (_what, damaged, count) => {
  const { bytes: saved, facts, remarks } = await takeIn(damaged);
  expect(facts.pages).toHaveLength(count);
  expect(remarks).toEqual([expect.stringMatching(/was damaged.*Look at each/)]);
  expect(qpdfComplaints(saved)).toBe('');
  expect(pageTexts(saved)).toHaveLength(count);
});

test.each<[string, Uint8Array]>([
  ['cut off in the middle', MANUAL.subarray(0, 100_000)],
  ['without a catalog', makePdf({ 1: '<< /Type /Nothing >>' })],
])('%s: an error with the reason', async (_what, damaged) => {
  await expect(takeIn(damaged)).rejects.toThrow(PdfError);
  await expect(takeIn(damaged)).rejects.toThrow(/damaged beyond reading: .*Save it as PDF again/);
});

test('what paper will not show is said: marks without a look, fields that cannot be drawn', async () => {
  const marked = makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [5 0 R] /DA (/Helv 10 Tf 0 g) >> >>',
    2: '<< /Type /Pages /Kids [3 0 R 6 0 R] /Count 2 /MediaBox [0 0 300 400] >>',
    3: '<< /Type /Page /Parent 2 0 R /Annots [4 0 R 5 0 R] >>',
    4: '<< /Type /Annot /Subtype /Stamp /F 4 /Rect [10 10 50 50] >>',
    5: '<< /Type /Annot /Subtype /Widget /FT /Tx /T (Town) /V <FEFF65E5672C> /F 4 /Rect [60 60 160 80] >>',
    6: '<< /Type /Page /Parent 2 0 R /Annots [7 0 R] >>',
    7: '<< /Type /Annot /Subtype /Text /F 0 /Rect [10 10 50 50] >>',
  });
  expect((await takeIn(marked)).remarks).toEqual([
    'The form field “Town” cannot be drawn and prints blank.',
    'Notes or marks on page 1 do not say how they look and are not printed.',
  ]);
});

test('what a file says of itself, and how its pages are turned', async () => {
  const titled = makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 300 400] >>',
    3: '<< /Type /Page /Parent 2 0 R /Rotate -90 >>',
    4: '<< /Type /Page /Parent 2 0 R >>',
    5: "<< /Title <FEFF00DC00620065007200730069006300680074> /Author (A. Clerk) /CreationDate (D:20261103091500+01'00') /ModDate (yesterday) >>",
  });
  const withInfo = bytes(text(titled).replace('/Root 1 0 R', '/Root 1 0 R /Info 5 0 R'));
  const { facts } = await takeIn(withInfo);
  expect(facts.about).toEqual({ title: 'Übersicht', author: 'A. Clerk', created: '2026-11-03T08:15:00.000Z' });
  expect(facts.pages).toEqual([
    { width: 400, height: 300, rotate: 270 },
    { width: 300, height: 400 },
  ]);
  expect((await takeIn(pagesPdf(['/MediaBox [0 0 9 9]']))).facts.about).toEqual({});
});
