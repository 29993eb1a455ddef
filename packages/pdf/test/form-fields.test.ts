import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { makePdf, stream } from './make-pdf';
import { pageTexts, qpdfComplaints } from './poppler';

/** A page with these form fields, objects 20 and on. */
function withForm(fields: readonly string[], form = ''): Uint8Array {
  const refs = fields.map((_, index) => `${20 + index} 0 R`).join(' ');
  return makePdf({
    1: `<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [${refs}] /DA (/Helv 12 Tf 0 g) /DR << /Font << /Helv 9 0 R >> >> ${form} >> >>`,
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 400 400] /Annots [${refs}] >>`,
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    10: stream(
      'BT /Helv 12 Tf 2 5 Td (old words) Tj ET',
      '/Type /XObject /Subtype /Form /BBox [0 0 200 20] /Resources << /Font << /Helv 9 0 R >> >>',
    ),
    ...Object.fromEntries(
      fields.map((field, index) => [
        20 + index,
        `<< /Type /Annot /Subtype /Widget /F 4 /P 3 0 R /Rect [50 ${350 - 40 * index} 250 ${370 - 40 * index}] ${field} >>`,
      ]),
    ),
  });
}

async function wordsOf(source: Uint8Array): Promise<string> {
  const documents = [{ name: 'a.pdf', bytes: source, ...(await readFacts(source)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }] });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  const pdf = await impose({ plan: planned, ticket, documents, blanks: 'none' });
  expect(qpdfComplaints(pdf)).toBe('');
  return pageTexts(pdf).join(' ').replace(/\s+/g, ' ').trim();
}

const TEXT = '/FT /Tx /T (name) /V (Percival)';

describe('fields without an appearance are drawn with their value (ISO 32000-1, 12.7)', () => {
  test.each<[string, Uint8Array, string]>([
    ['a text field', withForm([TEXT]), 'Percival'],
    ['a choice', withForm(['/FT /Ch /Ff 131072 /T (seat) /Opt [(Stalls) (Balcony)] /V (Balcony)']), 'Balcony'],
    ['one with an appearance keeps it', withForm([`${TEXT} /AP << /N 10 0 R >>`]), 'old words'],
    [
      'unless the form says to make them anew',
      withForm([`${TEXT} /AP << /N 10 0 R >>`], '/NeedAppearances true'),
      'Percival',
    ],
    ['an empty one prints nothing', withForm(['/FT /Tx /T (name)']), ''],
    [
      'what cannot be drawn does not keep the others from it',
      withForm(['/FT /Tx /T (odd) /V <FEFF4E2D6587>', TEXT.replace('name', 'b')]),
      'Percival',
    ],
    ['a form of which nothing can be read', withForm(['/T (nothing)']), ''],
  ])('%s', async (_what, source, words) => {
    expect(await wordsOf(source)).toBe(words);
  });
});
