import { plan, profileForTicket, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { convertToGrey } from '../src/grey';
import { inks } from './inks';
import { makePdf, stream } from './make-pdf';
import { attachments, navigationByQpdf, pageTexts, qpdfComplaints, renderColour, wordPlaces } from './poppler';

const PAGE =
  '<< /Type /Page /Parent 2 0 R /Contents 4 0 R /Resources << /Font << /F1 9 0 R >> /XObject << /I 5 0 R >> /Properties << /L 8 0 R >> >> >>';

/** Four pages with a coloured word, a coloured picture, and a layer that is off. */
const COLOURED = makePdf({
  1: '<< /Type /Catalog /Pages 2 0 R /OCProperties << /OCGs [8 0 R] /D << /OFF [8 0 R] >> >> >>',
  2: '<< /Type /Pages /Kids [20 0 R 21 0 R 22 0 R 23 0 R] /Count 4 /MediaBox [0 0 595.276 841.89] >>',
  ...Object.fromEntries([20, 21, 22, 23].map((page) => [page, PAGE])),
  4: stream(
    'BT 0.8 0.1 0.1 rg /F1 40 Tf 80 700 Td (coloured) Tj ET q 200 0 0 200 80 300 cm /I Do Q /OC /L BDC BT /F1 40 Tf 80 100 Td (hidden) Tj ET EMC',
  ),
  5: stream(
    'aZz zAa Aaz zzA',
    '/Type /XObject /Subtype /Image /Width 2 /Height 2 /BitsPerComponent 8 /ColorSpace /DeviceRGB',
  ),
  8: '<< /Type /OCG /Name (off) >>',
  9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
});

async function saved(
  settings: Omit<TicketInput, 'version' | 'documents'>,
  grey: boolean,
  bytes = COLOURED,
): Promise<Uint8Array> {
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, title: 'Grey', documents: [{ file: 'a.pdf' }], ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  return impose({ plan: planned, ticket, documents, blanks: 'every-sheet', grey });
}

/** Pixels with a hue in the left and the right half of a page. */
function coloured(pdf: Uint8Array, page: number): { left: number; right: number } {
  const { width, pixels } = renderColour(pdf, page, 36);
  const count = { left: 0, right: 0 };
  for (let at = 0; at < pixels.length; at += 3) {
    const [red, green, blue] = [pixels[at]!, pixels[at + 1]!, pixels[at + 2]!];
    if (Math.max(red, green, blue) - Math.min(red, green, blue) < 20) continue;
    count[(at / 3) % width < width / 2 ? 'left' : 'right'] += 1;
  }
  return count;
}

const settings = { color: 'monochrome', layout: { kind: 'grid', pagesPerSide: 2 }, sides: 'two-sided' } as const;

test('no colour is left, text stays text, and labels, attachment, title and hidden layers are as before', async () => {
  const [coloured, grey] = [await saved(settings, false), await saved(settings, true)];
  expect(inks(coloured).every(([cyan, magenta, yellow]) => cyan! + magenta! + yellow! > 0)).toBe(true);
  const greyInks = inks(grey);
  expect(greyInks).toHaveLength(2);
  for (const [cyan, magenta, yellow, black] of greyInks) {
    expect([cyan, magenta, yellow]).toEqual([0, 0, 0]);
    expect(black).toBeGreaterThan(0);
  }
  const words = (pdf: Uint8Array): string[] => pageTexts(pdf).map((text) => text.trim().split(/\s+/).sort().join(' '));
  expect(words(grey)).toEqual(['coloured coloured', 'coloured coloured']);
  expect(navigationByQpdf(grey).labels).toEqual(['Sheet 1 front', 'Sheet 1 back']);
  expect(JSON.parse(attachments(grey)['ticket.json'] ?? '')).toMatchObject({ title: 'Grey', ...settings });
  expect(qpdfComplaints(grey)).toBe('');
  const text = new TextDecoder('latin1').decode(grey);
  expect(text).toContain('/ObjStm');
});

test('where Ghostscript is missing, it is said what to install', async () => {
  await expect(convertToGrey(COLOURED, '/nowhere/gs')).rejects.toMatchObject({
    trouble: 'program-missing',
    message: expect.stringContaining('needs the Debian package ghostscript; install it') as string,
  });
});

test('what it cannot read is an error with its reason', async () => {
  await expect(convertToGrey(new TextEncoder().encode('no file at all'))).rejects.toMatchObject({
    trouble: 'damaged',
    message: expect.stringContaining('cannot be turned to grey') as string,
  });
});

test('where a route leaves a page in colour, it alone is; the greys lie beside it on the same side', async () => {
  const mixed = await saved({ ...settings, routes: [{ pages: '2', color: 'auto' }] }, true);
  const cover = inks(mixed).map(([cyan, magenta, yellow]) => cyan! + magenta! + yellow! > 0);
  expect(cover).toEqual([true, false]);
  expect(coloured(mixed, 1).left).toBe(0);
  expect(coloured(mixed, 1).right).toBeGreaterThan(0);
  expect(navigationByQpdf(mixed).labels).toEqual(['Sheet 1 front', 'Sheet 1 back']);
  expect(qpdfComplaints(mixed)).toBe('');
});

test('every word of a turned and cropped page stands where it stood in colour', async () => {
  const turned = makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [-50 -50 700 900] /CropBox [10 20 400 500] /Rotate 90 >>',
    3: '<< /Type /Page /Parent 2 0 R /UserUnit 1.5 /Contents 4 0 R /Resources << /Font << /F1 9 0 R >> >> >>',
    4: stream('BT 0.8 0.1 0.1 rg /F1 20 Tf 80 300 Td (turned) Tj ET'),
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  });
  const [before, after] = [await saved({}, true, turned), await saved({ color: 'monochrome' }, true, turned)].map(
    (pdf) => wordPlaces(pdf)[0]?.[0],
  );
  expect(before?.word).toBe('turned');
  expect(after?.word).toBe('turned');
  expect(after?.x).toBeCloseTo(before?.x ?? NaN, 0);
  expect(after?.y).toBeCloseTo(before?.y ?? NaN, 0);
});
