import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { PdfError, readDetails, type PageDetails } from '../src';
import { makePdf, stream } from './make-pdf';
import { wordPlaces } from './poppler';

async function detailsOf(bytes: Uint8Array, pages?: readonly number[]): Promise<PageDetails[]> {
  const all: PageDetails[] = [];
  await readDetails(bytes, pages ?? 'all', (_page, details) => void all.push(details));
  return all;
}

/** One page of 200 by 300 with this content, these resources and entries, and more objects. */
function page(content: string, resources = '', entries = '', more: Record<number, string> = {}): Uint8Array {
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Resources << /Font << /F1 9 0 R >> ${resources} >> ${entries} >>`,
    4: stream(content),
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    ...more,
  });
}
const only = async (...args: Parameters<typeof page>): Promise<PageDetails> => (await detailsOf(page(...args)))[0]!;

const ICC = (components: number): string => stream('', `/N ${components}`);
const IMAGE = (space: string, data: string, entries = ''): string =>
  stream(data, `/Type /XObject /Subtype /Image /Width 1 /Height 1 /BitsPerComponent 8 ${space} ${entries}`);
const SQUARE = '50 50 100 100 re f';

describe('colour: what is coded in colour, and what only looks grey (ISO 32000-1, 8.6)', () => {
  const NONE = { color: false, looksGray: false };
  const COLOUR = { color: true, looksGray: false };
  const GRAY = { color: true, looksGray: true };
  test.each<[string, Parameters<typeof page>, object]>([
    ['black', [`0 g ${SQUARE}`], NONE],
    ['a grey', [`0.5 g ${SQUARE}`], NONE],
    ['red', [`1 0 0 rg ${SQUARE}`], COLOUR],
    ['a red line', ['1 0 0 RG 50 50 m 150 150 l S'], COLOUR],
    ['a grey of equal red, green and blue', [`0.5 0.5 0.5 rg ${SQUARE}`], GRAY],
    ['black of red, green and blue, which is printed with black alone', [`0 0 0 rg ${SQUARE}`], NONE],
    ['white of red, green and blue', [`1 1 1 rg ${SQUARE}`], NONE],
    ['black ink', [`0 0 0 0.7 k ${SQUARE}`], NONE],
    ['black with other inks under it', [`0.1 0.1 0.1 0.9 k ${SQUARE}`], GRAY],
    ['a named device space', [`/DeviceRGB cs 0.4 0.4 0.4 sc ${SQUARE}`], GRAY],
    [
      'a profile of three',
      [`/C cs 0.4 0.4 0.4 scn ${SQUARE}`, '/ColorSpace << /C [/ICCBased 20 0 R] >>', '', { 20: ICC(3) }],
      GRAY,
    ],
    [
      'a profile of one',
      [`/C cs 0.4 scn ${SQUARE}`, '/ColorSpace << /C [/ICCBased 20 0 R] >>', '', { 20: ICC(1) }],
      NONE,
    ],
    ['a word that is no operator', ['(1 0 0 rg) pop % 1 0 0 rg\n0 g 50 50 100 100 re f'], NONE],
    [
      'a grey picture',
      ['q 99 0 0 99 9 9 cm /I Do Q', '/XObject << /I 20 0 R >>', '', { 20: IMAGE('/ColorSpace /DeviceGray', 'a') }],
      NONE,
    ],
    [
      'a grey picture coded in colour',
      ['q 99 0 0 99 9 9 cm /I Do Q', '/XObject << /I 20 0 R >>', '', { 20: IMAGE('/ColorSpace /DeviceRGB', 'aaa') }],
      GRAY,
    ],
    [
      'a mask',
      [
        '0 g q 99 0 0 99 9 9 cm /I Do Q',
        '/XObject << /I 20 0 R >>',
        '',
        {
          20: stream('\u0000', '/Type /XObject /Subtype /Image /Width 1 /Height 1 /BitsPerComponent 1 /ImageMask true'),
        },
      ],
      NONE,
    ],
    ['a picture within the content', ['q 99 0 0 99 9 9 cm BI /W 1 /H 1 /BPC 8 /CS /RGB ID aaa EI Q'], GRAY],
    [
      'within a form',
      [
        '/X Do',
        '/XObject << /X 20 0 R >>',
        '',
        { 20: stream(`0.5 0.5 0.5 rg ${SQUARE}`, '/Type /XObject /Subtype /Form /BBox [0 0 200 300]') },
      ],
      GRAY,
    ],
    [
      'a form that places itself',
      [
        '/X Do',
        '/XObject << /X 20 0 R >>',
        '',
        {
          20: stream(
            `0 g ${SQUARE} /X Do`,
            '/Type /XObject /Subtype /Form /BBox [0 0 200 300] /Resources << /XObject << /X 20 0 R >> >>',
          ),
        },
      ],
      NONE,
    ],
    [
      'a stamp',
      [
        '',
        '',
        '/Annots [<< /Type /Annot /Subtype /Stamp /F 4 /Rect [10 10 60 60] /AP << /N 20 0 R >> >>]',
        { 20: stream('0.5 0.5 0.5 rg 0 0 9 9 re f', '/Type /XObject /Subtype /Form /BBox [0 0 9 9]') },
      ],
      GRAY,
    ],
  ])('%s', async (_what, args, wanted) => {
    expect(await only(...args)).toMatchObject(wanted);
  });
});

describe('what is visible', () => {
  test('nothing of a layer that is off', async () => {
    const [found] = await detailsOf(
      makePdf({
        1: '<< /Type /Catalog /Pages 2 0 R /OCProperties << /OCGs [8 0 R] /D << /OFF [8 0 R] >> >> >>',
        2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
        3: '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Resources << /Properties << /L 8 0 R >> >> >>',
        4: stream('0 g 50 50 100 100 re f /OC /L BDC 1 0 0 rg 0 0 200 300 re f EMC'),
        8: '<< /Type /OCG /Name (off) >>',
      }),
    );
    expect(found!.content!.map(Math.round)).toEqual([50, 50, 100, 100]);
    expect(found).toMatchObject({ color: true, looksGray: true });
  });

  const near = (box: readonly number[]) => box.map((value) => expect.closeTo(value, -0.3) as number);

  test('a blank page, and one with something nobody sees', async () => {
    expect(await only('')).toMatchObject({ blank: true, content: null, smallestText: null, color: false });
    expect(await only(`1 g ${SQUARE}`)).toMatchObject({ blank: true, content: null });
  });

  test.each<[string, string, number[]]>([
    ['as it stands', '', [50, 50, 100, 100]],
    ['on a cropped page', '/CropBox [20 30 140 280]', [30, 20, 90, 100]],
    // Clockwise by a quarter, what was 50 from the bottom is 50 from the left.
    ['on a turned page', '/Rotate 90', [50, 50, 100, 100]],
    ['in larger units', '/UserUnit 2', [100, 100, 200, 200]],
  ])('its box, %s', async (_what, entries, box) => {
    expect((await only(`0 g ${SQUARE}`, '', entries)).content).toEqual(near(box));
  });

  test('a filled field counts', async () => {
    const field = '/Annots [<< /Type /Annot /Subtype /Widget /FT /Tx /F 4 /Rect [10 10 60 40] /AP << /N 20 0 R >> >>]';
    const { blank, content } = await only('', '', field, {
      20: stream('0 g 0 0 9 9 re f', '/Type /XObject /Subtype /Form /BBox [0 0 9 9]'),
    });
    expect([blank, content]).toEqual([false, near([10, 10, 50, 30])]);
  });
});

describe('the smallest text as it stands on the page, after the text matrix', () => {
  test.each<[string, string, string, number | null]>([
    ['as it is set', 'BT /F1 9 Tf 20 20 Td (words) Tj ET', '', 9],
    ['the smaller of two', 'BT /F1 9 Tf 20 20 Td (words) Tj /F1 7 Tf (small) Tj ET', '', 7],
    ['scaled by the text matrix', 'BT /F1 1 Tf 8 0 0 8 20 20 Tm (words) Tj ET', '', 8],
    ['scaled by the page', '0.5 0 0 0.5 0 0 cm BT /F1 20 Tf 20 20 Td (words) Tj ET', '', 10],
    ['turned', 'BT /F1 1 Tf 0 11 -11 0 90 20 Tm (words) Tj ET', '', 11],
    ['in larger units', 'BT /F1 9 Tf 20 20 Td (words) Tj ET', '/UserUnit 2', 18],
    ['spaces are not read', 'BT /F1 9 Tf 20 20 Td (words) Tj /F1 2 Tf (   ) Tj ET', '', 9],
    ['none', SQUARE, '', null],
  ])('%s', async (_what, content, entries, size) => {
    const { smallestText } = await only(content, '', entries);
    if (size === null) expect(smallestText).toBeNull();
    else expect(smallestText).toBeCloseTo(size, 2);
  });
});

describe('a manual that this project did not write', () => {
  // `npm run soak` looks through the whole of it.
  const path = `.foglio/manual/maint-guide.en${process.env['FOGLIO_TIMES'] ? '' : '-20'}.pdf`;
  const manual = readFileSync(path);
  const pages = Number(/^Pages: +(\d+)/m.exec(execFileSync('pdfinfo', [path], { encoding: 'utf8' }))?.[1]);

  test('its coloured pages are those on which poppler sees colour; every word is within the content box', async () => {
    const details = await detailsOf(manual);
    expect(details).toHaveLength(pages);
    const words = wordPlaces(manual);
    details.forEach(({ content }, index) => {
      const [x, y, width, height] = content!;
      // Some of its words run off the paper.
      const onPaper = words[index]!.filter((word) => word.x < 595);
      const outside = onPaper.filter((word) => word.x < x || word.x > x + width || word.y < y || word.y > y + height);
      expect(outside).toEqual([]);
    });
    // An independent count: a page's picture, written in red, green and blue, has pixels whose channels differ.
    const pictures = execFileSync('pdftoppm', ['-r', '36', path], {
      maxBuffer: 1 << 29,
    });
    expect(details.map(({ color, looksGray }) => color === true && !looksGray)).toEqual(inColour(pictures));
  });

  test('only the pages asked for; nothing is told of a file that cannot be read', async () => {
    const told: number[] = [];
    await readDetails(manual, [18, 7, 99], (page) => void told.push(page));
    expect(told).toEqual([18, 7]);
    await expect(detailsOf(new TextEncoder().encode('%PDF-1.7 nothing'))).rejects.toThrow(PdfError);
  });

  test('of a file so long that its readers are opened anew, every page is told once, and each its own', async () => {
    const pages = Array.from({ length: 1_010 }, (_, at) => at);
    const bytes = makePdf({
      1: '<< /Type /Catalog /Pages 2 0 R >>',
      2: `<< /Type /Pages /Kids [${pages.map((at) => `${10 + at} 0 R`).join(' ')}] /Count ${pages.length} >>`,
      9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
      ...Object.fromEntries(
        pages.map((at) => [
          10 + at,
          `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 40 40] /Contents ${2_000 + (at % 7)} 0 R /Resources << /Font << /F1 9 0 R >> >> >>`,
        ]),
      ),
      ...Object.fromEntries(
        [0, 1, 2, 3, 4, 5, 6].map((size) => [2_000 + size, stream(`BT /F1 ${4 + size} Tf 5 5 Td (Ax) Tj ET`)]),
      ),
    });
    const details = await detailsOf(bytes);
    expect(details.map(({ smallestText }) => smallestText)).toEqual(pages.map((at) => 4 + (at % 7)));
    expect(details.every(({ blank }) => blank === false)).toBe(true);
  });
});

/** Of a row of pictures in portable pixmap form (P6), whether each holds a hue. */
function inColour(pictures: Buffer): boolean[] {
  const found: boolean[] = [];
  for (let at = 0; at < pictures.length;) {
    const head = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(pictures.subarray(at, at + 40).toString('latin1'));
    if (!head) throw new Error('pdftoppm wrote no picture');
    const start = at + head[0].length;
    const end = start + Number(head[1]) * Number(head[2]) * 3;
    let hue = false;
    for (let pixel = start; pixel < end && !hue; pixel += 3) {
      const [r, g, b] = [pictures[pixel]!, pictures[pixel + 1]!, pictures[pixel + 2]!];
      hue = Math.max(r, g, b) - Math.min(r, g, b) > 8;
    }
    found.push(hue);
    at = end;
  }
  return found;
}
