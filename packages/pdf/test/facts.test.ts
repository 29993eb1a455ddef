import { pageSizes as readSizes, PdfError, readFacts, type PdfTrouble } from '../src';
import { makePdf, pagesPdf } from './make-pdf';
import { lock, pageSizes } from './poppler';

const sizesOf = async (pages: readonly string[], tree = ''): Promise<[number, number][]> =>
  (await readFacts(pagesPdf(pages, tree))).pages.map(({ width, height }) => [width, height]);

describe('page sizes as read (ISO 32000-1, 7.7.3.3 and 14.11.2)', () => {
  test.each<[string, string, string, [number, number]]>([
    ['its own media box', '/MediaBox [0 0 300 400]', '', [300, 400]],
    ['an inherited media box', '', '/MediaBox [0 0 300 400]', [300, 400]],
    ['its own instead of the inherited', '/MediaBox [0 0 100 200]', '/MediaBox [0 0 300 400]', [100, 200]],
    ['corners given the other way round', '/MediaBox [300 400 0 0]', '', [300, 400]],
    ['a crop box', '/MediaBox [0 0 300 400] /CropBox [10 20 110 220]', '', [100, 200]],
    ['a crop box cut to the media box', '/MediaBox [0 0 300 400] /CropBox [-50 -50 150 500]', '', [150, 400]],
    ['a crop box outside counts as none', '/MediaBox [0 0 300 400] /CropBox [500 500 600 600]', '', [300, 400]],
    ['an empty crop box counts as none', '/MediaBox [0 0 300 400] /CropBox [0 0 0 0]', '', [300, 400]],
    ['a quarter turn', '/MediaBox [0 0 300 400] /Rotate 90', '', [400, 300]],
    ['turned backwards', '/MediaBox [0 0 300 400] /Rotate -90', '', [400, 300]],
    ['turned more than once', '/MediaBox [0 0 300 400] /Rotate 450', '', [400, 300]],
    ['an inherited turn', '/MediaBox [0 0 300 400]', '/Rotate 270', [400, 300]],
    ['upside down', '/MediaBox [0 0 300 400] /Rotate 180', '', [300, 400]],
    ['a user unit', '/MediaBox [0 0 300 400] /UserUnit 2.5', '', [750, 1000]],
    ['no box at all, as viewers do', '', '', [612, 792]],
  ])('%s', async (_what, page, tree, size) => {
    expect(await sizesOf([page], tree)).toEqual([size]);
  });

  test('poppler sees the same sizes (it shows them before Rotate, and ignores UserUnit)', async () => {
    const pdf = pagesPdf([
      '/MediaBox [5 5 305 405]',
      '/MediaBox [0 0 300 400] /CropBox [10 20 110 220] /Rotate 90',
      '/MediaBox [0 0 842 595]',
    ]);
    const { pages } = await readFacts(pdf);
    const seen = pageSizes(pdf).map(({ width, height, rotate }) =>
      rotate === 0 ? { width, height } : { width: height, height: width, rotate },
    );
    expect(pages).toEqual(seen);
  });
});

describe('files that cannot be read say which trouble it is', () => {
  const troubleOf = async (bytes: Uint8Array): Promise<PdfTrouble> => {
    const error: unknown = await readFacts(bytes).then(
      () => new Error('it was read'),
      (thrown: unknown) => thrown,
    );
    if (!(error instanceof PdfError)) throw error;
    return error.trouble;
  };
  const whole = pagesPdf(['/MediaBox [0 0 300 400]']);

  test('not a PDF', async () => {
    expect(await troubleOf(new TextEncoder().encode('PK\u0003\u0004 a letter'))).toBe('not-a-pdf');
    expect(await troubleOf(new Uint8Array())).toBe('not-a-pdf');
  });

  test('damaged: cut off, without catalog, with a page that is not there', async () => {
    expect(await troubleOf(whole.subarray(0, 40))).toBe('damaged');
    expect(await troubleOf(makePdf({ 1: '<< /Type /Catalog >>' }))).toBe('damaged');
    const missing = makePdf({ 1: '<< /Type /Catalog /Pages 2 0 R >>', 2: '<< /Type /Pages /Kids [7 0 R] /Count 1 >>' });
    expect(await troubleOf(missing)).toBe('damaged');
  });

  test('damaged: a page tree that leads back to itself', async () => {
    const cyclic = makePdf({ 1: '<< /Type /Catalog /Pages 2 0 R >>', 2: '<< /Type /Pages /Kids [2 0 R] /Count 1 >>' });
    expect(await troubleOf(cyclic)).toBe('damaged');
  });

  test('damaged: a page tree thousands of levels deep', async () => {
    const objects: Record<number, string> = { 1: '<< /Type /Catalog /Pages 2 0 R >>' };
    for (let level = 2; level < 3000; level += 1)
      objects[level] = `<< /Type /Pages /Kids [${level + 1} 0 R] /Count 1 >>`;
    objects[3000] = '<< /Type /Page /MediaBox [0 0 10 10] >>';
    expect(await troubleOf(makePdf(objects))).toBe('damaged');
  });

  test('no pages', async () => {
    const empty = makePdf({ 1: '<< /Type /Catalog /Pages 2 0 R >>', 2: '<< /Type /Pages /Kids [] /Count 0 >>' });
    expect(await troubleOf(empty)).toBe('no-pages');
  });

  test('locked with a password; one locked against changes only is read', async () => {
    expect(await troubleOf(lock(whole, 'secret', 'owner'))).toBe('locked');
    expect((await readFacts(lock(whole, '', 'owner'))).pages).toEqual([{ width: 300, height: 400 }]);
  });

  test('a broken cross-reference table is no trouble', async () => {
    const broken = new TextDecoder().decode(whole).replace(/startxref\n\d+/, 'startxref\n7');
    expect((await readFacts(new TextEncoder().encode(broken))).pages).toHaveLength(1);
    expect(await readSizes(new TextEncoder().encode(broken))).toEqual([{ width: 300, height: 400 }]);
  });
});

test('content that is named and not in the file is told, by its pages (ISO 32000-1, 7.3.10)', async () => {
  const { remarks } = await readFacts(
    pagesPdf(['/Contents 100 0 R', '/Contents [55 0 R 100 0 R]', '', '/Contents 55 0 R']),
  );
  expect(remarks).toEqual(['Some of what pages 2 and 4 should show is not in the file; the rest is printed.']);
});
