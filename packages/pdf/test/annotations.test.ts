import { plan, profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts } from '../src';
import { makePdf, stream } from './make-pdf';
import { qpdfComplaints, render } from './poppler';

/** A black square as an appearance: its box is 10 by 10, from the origin, with what else is given. */
const SQUARE = (entries = '', colour = '0 g'): string =>
  stream(`${colour} 0 0 10 10 re f`, `/Type /XObject /Subtype /Form /BBox [0 0 10 10] ${entries}`);

/** One page of 200 by 200 with these annotations, objects 20 and on, and a catalog with these entries. */
function annotated(
  annotations: readonly string[],
  more: Record<number, string> = {},
  page = '',
  catalog = '',
): Uint8Array {
  const refs = annotations.map((_, index) => `${20 + index} 0 R`).join(' ');
  return makePdf({
    1: `<< /Type /Catalog /Pages 2 0 R ${catalog} >>`,
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 200] /Annots [${refs}] ${page} >>`,
    10: SQUARE(),
    ...Object.fromEntries(annotations.map((annotation, index) => [20 + index, `<< /Type /Annot ${annotation} >>`])),
    ...more,
  });
}

async function imposed(source: Uint8Array): Promise<Uint8Array> {
  const documents = [{ name: 'a.pdf', bytes: source, ...(await readFacts(source)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }] });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  return impose({ plan: planned, ticket, documents, blanks: 'none' });
}

/** The bounding box of everything dark on the first page, in points from the lower left: left, bottom, right, top. */
async function darkBox(source: Uint8Array): Promise<number[] | null> {
  const pdf = await imposed(source);
  expect(qpdfComplaints(pdf)).toBe('');
  const { width, height, pixels } = render(pdf, 1, 72);
  let box: number[] | null = null;
  pixels.forEach((pixel, index) => {
    if (pixel > 200) return;
    const [x, y] = [index % width, height - 1 - Math.floor(index / width)];
    box = box
      ? [Math.min(box[0]!, x), Math.min(box[1]!, y), Math.max(box[2]!, x + 1), Math.max(box[3]!, y + 1)]
      : [x, y, x + 1, y + 1];
  });
  return box;
}

const near = (box: readonly number[]): number[] => box.map((value) => expect.closeTo(value, -0.2) as number);
const STAMP = '/Subtype /Stamp /Rect [40 60 80 120] /AP << /N 10 0 R >>';

describe('what is printed of a page’s annotations (ISO 32000-1, 12.5.3 and 12.5.5)', () => {
  test.each<[string, string, boolean]>([
    ['a stamp with the Print flag', `${STAMP} /F 4`, true],
    ['one without it', STAMP, false],
    ['one hidden', `${STAMP} /F 6`, false],
    ['one not shown on the screen, but printed', `${STAMP} /F 36`, true],
    ['a link', `${STAMP.replace('Stamp', 'Link')} /F 4`, false],
    ['a pop-up', `${STAMP.replace('Stamp', 'Popup')} /F 4`, false],
    ['a filled field', `${STAMP.replace('Stamp', 'Widget /FT /Tx')} /F 4`, true],
    ['a push button', `${STAMP.replace('Stamp', 'Widget /FT /Btn /Ff 65536')} /F 4`, false],
    ['a push button by its parent', `${STAMP.replace('Stamp', 'Widget /Parent 30 0 R')} /F 4`, false],
    ['one without appearance', '/Subtype /Stamp /Rect [40 60 80 120] /F 4', false],
    ['one whose appearance is missing from the file', STAMP.replace('10 0 R', '99 0 R'), false],
  ])('%s', async (_what, annotation, printed) => {
    const box = await darkBox(annotated([annotation], { 30: '<< /FT /Btn /Ff 65536 >>' }));
    expect(box).toEqual(printed ? near([40, 60, 80, 120]) : null);
  });

  test.each<[string, string, boolean]>([
    ['ticked', '/AS /Yes', true],
    ['not ticked', '/AS /Off', false],
    ['by its value', '/V /Yes', true],
    ['without a state', '', false],
  ])('a tick box %s', async (_what, state, printed) => {
    const box = '/Subtype /Widget /FT /Btn /F 4 /Rect [40 60 80 120] /AP << /N << /Yes 10 0 R >> >>';
    expect(await darkBox(annotated([`${box} ${state}`]))).toEqual(printed ? near([40, 60, 80, 120]) : null);
  });

  test.each<[string, string]>([
    ['scaled', ''],
    ['turned by its own matrix', '/Matrix [0 1 -1 0 0 0]'],
    ['moved and enlarged by its own matrix', '/Matrix [3 0 0 3 50 -20]'],
  ])('an appearance is fitted to its rectangle, %s', async (_what, matrix) => {
    expect(await darkBox(annotated([`${STAMP} /F 4`], { 10: SQUARE(matrix) }))).toEqual(near([40, 60, 80, 120]));
  });

  test('on a turned and cropped page it stays where it is on the page', async () => {
    const page = '/CropBox [20 20 180 180] /Rotate 90';
    // Clockwise by 90: what is 40 to 80 from the left, less 20 of crop, is 20 to 60 from the top of 160.
    expect(await darkBox(annotated([`${STAMP} /F 4`], {}, page))).toEqual(near([40, 100, 100, 140]));
  });

  test('a highlight multiplies with the text under it', async () => {
    const gs = '/Resources << /ExtGState << /M << /BM /Multiply >> >> >>';
    const highlight = stream('/M gs 1 1 0 rg 0 0 10 10 re f', `/Type /XObject /Subtype /Form /BBox [0 0 10 10] ${gs}`);
    const content = { 10: highlight, 11: stream('0 g 50 80 10 10 re f') };
    const pdf = await imposed(annotated([`${STAMP.replace('Stamp', 'Highlight')} /F 4`], content, '/Contents 11 0 R'));
    const { width, height, pixels } = render(pdf, 1, 72);
    const at = (x: number, y: number): number => pixels[(height - 1 - y) * width + x] as number;
    expect(at(55, 85)).toBeLessThan(30);
    expect(at(70, 110)).toBeGreaterThan(200);
    expect(at(70, 110)).toBeLessThan(250);
  });

  test('lies under a layer that is off, and is not printed; on another it is', async () => {
    const properties = '/OCProperties << /OCGs [40 0 R 41 0 R] /D << /OFF [41 0 R] >> >>';
    const layers = { 40: '<< /Type /OCG /Name (on) >>', 41: '<< /Type /OCG /Name (off) >>' };
    const on = annotated([`${STAMP} /F 4 /OC 40 0 R`], layers, '', properties);
    const off = annotated([`${STAMP} /F 4 /OC 41 0 R`], layers, '', properties);
    expect(await darkBox(on)).toEqual(near([40, 60, 80, 120]));
    expect(await darkBox(off)).toBeNull();
  });
});
