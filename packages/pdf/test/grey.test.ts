import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plan, profileForTicket, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { convertToGrey } from '../src/grey';
import { makePdf, stream } from './make-pdf';
import { attachments, navigationByQpdf, pageTexts, qpdfComplaints } from './poppler';

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

async function saved(settings: Omit<TicketInput, 'version' | 'documents'>, grey: boolean): Promise<Uint8Array> {
  const documents = [{ name: 'a.pdf', bytes: COLOURED, ...(await readFacts(COLOURED)) }];
  const ticket = readTicket({ version: 1, title: 'Grey', documents: [{ file: 'a.pdf' }], ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  return impose({ plan: planned, ticket, documents, blanks: 'every-sheet', grey });
}

/** How much of each page is covered by cyan, magenta, yellow and black, by Ghostscript's inkcov. */
function inks(pdf: Uint8Array): number[][] {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-inks-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const told = execFileSync('gs', ['-q', '-o', '-', '-sDEVICE=inkcov', join(folder, 'a.pdf')], { encoding: 'utf8' });
    return [...told.matchAll(/^ *([\d.]+) +([\d.]+) +([\d.]+) +([\d.]+) +CMYK/gm)].map((row) =>
      row.slice(1, 5).map(Number),
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
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
    message: expect.stringContaining('install the Debian package ghostscript') as string,
  });
});

test('what it cannot read is an error with its reason', async () => {
  await expect(convertToGrey(new TextEncoder().encode('no file at all'))).rejects.toMatchObject({
    trouble: 'damaged',
    message: expect.stringContaining('cannot be turned to grey') as string,
  });
});
