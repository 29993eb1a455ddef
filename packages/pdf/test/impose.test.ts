import { plan, profileForTicket, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts, type ImposeInput } from '../src';
import { pagesPdf } from './make-pdf';
import { attachments, lock, pageSizes, pageTexts, qpdfComplaints, render } from './poppler';

const A4 = '/MediaBox [0 0 595.276 841.89]';

async function imposed(
  sources: readonly Uint8Array[],
  settings: Omit<TicketInput, 'version' | 'documents'> = {},
  blanks: ImposeInput['blanks'] = 'every-sheet',
  sets: ImposeInput['sets'] = 'one',
): Promise<Uint8Array> {
  const documents = await Promise.all(
    sources.map(async (bytes, index) => ({ name: `${index}.pdf`, bytes, ...(await readFacts(bytes)) })),
  );
  const ticket = readTicket({ version: 1, documents: documents.map(({ name }) => ({ file: name })), ...settings });
  return impose({
    plan: plan(ticket, documents, profileForTicket(ticket, documents)),
    ticket,
    documents,
    blanks,
    sets,
  });
}

const fourPages = pagesPdf([1, 2, 3, 4].map(() => `${A4} /Contents 100 0 R`));

describe('the imposed PDF of one set (model, Command line)', () => {
  test('is a page a side in sheet order; a one-sided sheet among two-sided ones is followed by a blank page', async () => {
    const routes = [{ pages: '1', tray: 'tray-2', sides: 'one-sided' as const }];
    const settings = { sides: 'two-sided' as const, routes };
    const whole = await imposed([fourPages], settings);
    expect(pageTexts(whole).map((text) => text.includes('upright'))).toEqual([true, false, true, true, true, false]);
    const sent = await imposed([fourPages], settings, 'none');
    expect(pageTexts(sent).map((text) => text.includes('upright'))).toEqual([true, true, true, true, false]);
  });

  test('has each page at its paper’s size, turned as read', async () => {
    const source = pagesPdf([A4, '/MediaBox [0 0 1190.551 841.89]', '/MediaBox [0 0 612 792] /Rotate 90']);
    expect(pageSizes(await imposed([source]))).toEqual([
      { width: 595.276, height: 841.89, rotate: 0 },
      { width: 1190.55, height: 841.89, rotate: 0 },
      { width: 792, height: 612, rotate: 0 },
    ]);
  });

  test('every set on request, in sets or sheet by sheet; pages stand once however often they are placed', async () => {
    const numbered = pagesPdf([`${A4} /Contents 100 0 R`, `${A4} /Contents [101 0 R 102 0 R]`]);
    const words = async (collate: boolean): Promise<string[]> =>
      pageTexts(await imposed([numbered], { copies: 2, collate }, 'every-sheet', 'all')).map((text) => text.trim());
    expect(await words(true)).toEqual(['upright words', 'second part', 'upright words', 'second part']);
    expect(await words(false)).toEqual(['upright words', 'upright words', 'second part', 'second part']);
    const [one, hundred] = [await imposed([numbered]), await imposed([numbered], { copies: 100 }, 'none', 'all')];
    expect(hundred.length - one.length).toBeLessThan(198 * 200);
  });

  test('passes qpdf’s check and carries the ticket', async () => {
    const pdf = await imposed([fourPages], { title: 'Prüfung', copies: 3 });
    expect(qpdfComplaints(pdf)).toBe('');
    expect(JSON.parse(attachments(pdf)['ticket.json'] ?? '')).toMatchObject({
      version: 1,
      title: 'Prüfung',
      copies: 3,
    });
  });

  test('keeps nothing that is not printed: one page of many is small', async () => {
    const many = pagesPdf(Array.from({ length: 80 }, () => `${A4} /Contents 100 0 R`));
    const one = await imposed([many], { routes: [], title: '' });
    const first = await imposed([pagesPdf([`${A4} /Contents 100 0 R`])]);
    expect(first.length).toBeLessThan(one.length / 4);
  });

  test('takes pages of several documents, and one document twice', async () => {
    const other = pagesPdf([`${A4} /Contents [101 0 R 102 0 R]`]);
    const pdf = await imposed([other, fourPages, other]);
    const words = pageTexts(pdf).map((text) => text.trim());
    expect(words).toEqual([
      'second part',
      'upright words',
      'upright words',
      'upright words',
      'upright words',
      'second part',
    ]);
    expect(qpdfComplaints(pdf)).toBe('');
  });

  test.each([
    ['none', '', ''],
    ['what is not in the file', '/Contents 55 0 R', ''],
    ['an array that is not in the file', '/Contents [55 0 R 56 0 R]', ''],
    ['some that are not in the file', '/Contents [55 0 R 100 0 R 56 0 R]', 'upright words'],
    ['an array that stands in itself', '/Contents 103 0 R', 'upright words'],
  ])('of contents that name %s, what is there is drawn (ISO 32000-1, 7.3.10)', async (_, contents, text) => {
    const pdf = await imposed([pagesPdf([`${A4} ${contents}`])]);
    expect(pageTexts(pdf).map((one) => one.trim())).toEqual([text]);
    expect(qpdfComplaints(pdf)).toBe('');
  });

  test('a file locked against changes only is printed', async () => {
    const pdf = await imposed([lock(fourPages, '', 'owner')]);
    expect(pageTexts(pdf)[0]).toContain('upright words');
    expect(qpdfComplaints(pdf)).toBe('');
  });
});

describe('looks as the source looks (poppler renders both)', () => {
  /** The part of pixels that differ between a source page and the imposed page that carries it at actual size. */
  async function difference(entries: string, rotate: 0 | 90 | 180 | 270 = 0): Promise<number> {
    const source = pagesPdf([`${entries} /Contents 100 0 R`]);
    const turnedSource = pagesPdf([
      `${entries.replace(/\/Rotate -?\d+/, '')} /Rotate ${rotationIn(entries) + rotate} /Contents 100 0 R`,
    ]);
    const documents = [{ name: 'a.pdf', bytes: source, ...(await readFacts(source)) }];
    const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf', rotate }] });
    const made = plan(ticket, documents, profileForTicket(ticket, documents));
    const pdf = await impose({ plan: made, ticket, documents, blanks: 'none' });
    const [a, b] = [render(turnedSource, 1, 72), render(pdf, 1, 72)];
    expect([b.width, b.height]).toEqual([a.width, a.height]);
    let different = 0;
    a.pixels.forEach((pixel, index) => {
      if (Math.abs(pixel - (b.pixels[index] ?? 0)) > 32) different += 1;
    });
    return different / a.pixels.length;
  }

  const rotationIn = (entries: string): number => Number(/\/Rotate (-?\d+)/.exec(entries)?.[1] ?? 0);

  test.each([
    ['plain', '/MediaBox [0 0 300 400]', 0],
    ['an origin elsewhere', '/MediaBox [-40 -30 260 370]', 0],
    ['cropped', '/MediaBox [0 0 300 400] /CropBox [40 40 240 340]', 0],
    ['turned by 90', '/MediaBox [0 0 300 400] /Rotate 90', 0],
    ['turned by 180 and cropped', '/MediaBox [0 0 300 400] /CropBox [40 40 240 340] /Rotate 180', 0],
    ['turned by -90', '/MediaBox [0 0 300 400] /Rotate -90', 0],
    ['turned by the ticket', '/MediaBox [0 0 300 400]', 90],
    ['turned by both', '/MediaBox [0 0 300 400] /CropBox [40 40 240 340] /Rotate 90', 270],
  ] as const)('%s', async (_what, entries, rotate) => {
    expect(await difference(entries, rotate)).toBeLessThan(0.005);
  });

  test('the comparison can fail: a page turned the wrong way differs', () => {
    const [a, b] = [
      render(pagesPdf(['/MediaBox [0 0 300 300] /Contents 100 0 R']), 1, 72),
      render(pagesPdf(['/MediaBox [0 0 300 300] /Rotate 180 /Contents 100 0 R']), 1, 72),
    ];
    const different = a.pixels.filter((pixel, index) => Math.abs(pixel - (b.pixels[index] ?? 0)) > 32).length;
    expect(different / a.pixels.length).toBeGreaterThan(0.02);
  });
});
