import { PageRenderer, type PictureWish } from './page-renderer';

/** pdf.js as the renderer sees it: every drawing waits until the test lets it finish. */
const drawings: { page: number; width: number; finish: () => void }[] = [];
let opened = 0;

jest.mock('pdfjs-dist', () => ({
  GlobalWorkerOptions: {},
  getDocument: ({ url }: { url: string }) => {
    opened += 1;
    if (url === '/broken') return { promise: Promise.reject(new Error('no PDF')) };
    const getPage = (page: number) =>
      Promise.resolve({
        rotate: 90,
        getViewport: ({ scale, rotation }: { scale: number; rotation: number }) =>
          rotation % 180 === 0
            ? { width: 600 * scale, height: 800 * scale }
            : { width: 800 * scale, height: 600 * scale },
        render: ({ canvas }: { canvas: HTMLCanvasElement }) => ({
          promise: new Promise<void>((finish) => drawings.push({ page, width: canvas.width, finish })),
        }),
        cleanup: () => undefined,
      });
    return { promise: Promise.resolve({ getPage }) };
  },
}));

const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));
const wish = (page: number, more: Partial<PictureWish> = {}): PictureWish => ({
  url: '/a',
  page,
  turn: 0,
  width: 80,
  ...more,
});

/** What became of each image's address. */
const addresses: ('kept' | 'given back')[] = [];

let renderer: PageRenderer;
const signal = new AbortController().signal;

beforeEach(() => {
  drawings.splice(0);
  opened = 0;
  renderer = new PageRenderer();
  addresses.splice(0);
  HTMLCanvasElement.prototype.toBlob = (hand: BlobCallback) => hand(new Blob());
  URL.createObjectURL = () => `blob:${addresses.push('kept')}`;
  URL.revokeObjectURL = (address) => (addresses[Number(address.split(':')[1]) - 1] = 'given back');
});

test('a page is drawn once for all who wish for it, at the next larger of a few widths', async () => {
  const first = renderer.picture(wish(1), signal);
  const second = renderer.picture(wish(1, { width: 96 }), signal);
  await settle();
  expect(drawings.map(({ page, width }) => [page, width])).toEqual([[1, 96]]);
  drawings[0]!.finish();
  expect(await first).toBe(await second);
  expect(await renderer.picture(wish(1), signal)).toBe(await first);
  expect([drawings.length, opened]).toEqual([1, 1]);
});

test('the page’s own Rotate and the turn wished for add up', async () => {
  const upright = renderer.picture(wish(1), signal);
  const turned = renderer.picture(wish(1, { turn: 270 }), signal);
  await settle();
  drawings.forEach(({ finish }) => finish());
  const [a, b] = await Promise.all([upright, turned]);
  expect([a.width > a.height, b.width > b.height]).toEqual([true, false]);
});

test('two are drawn at once; a wish withdrawn before its turn is not drawn', async () => {
  const gone = new AbortController();
  const first = [1, 2].map((page) => renderer.picture(wish(page), signal));
  const withdrawn = renderer.picture(wish(3), gone.signal);
  const kept = renderer.picture(wish(4), signal);
  await settle();
  expect(drawings.map(({ page }) => page)).toEqual([1, 2]);
  gone.abort();
  drawings.forEach(({ finish }) => finish());
  await Promise.all(first);
  await expect(withdrawn).rejects.toThrow('nobody waits');
  await settle();
  expect(drawings.map(({ page }) => page)).toEqual([1, 2, 4]);
  drawings[2]!.finish();
  await kept;
});

test('a picture that one place gave up is still drawn for the other', async () => {
  const gone = new AbortController();
  const busy = [1, 2].map((page) => renderer.picture(wish(page), signal));
  const first = renderer.picture(wish(3), gone.signal);
  const second = renderer.picture(wish(3), signal);
  await settle();
  gone.abort();
  drawings.splice(0).forEach(({ finish }) => finish());
  await Promise.all(busy);
  await settle();
  expect(drawings.map(({ page }) => page)).toEqual([3]);
  drawings[0]!.finish();
  expect(await first).toBe(await second);
});

test('a document that cannot be opened is tried again at the next wish', async () => {
  for (const attempt of [1, 2]) {
    await expect(renderer.picture(wish(1, { url: '/broken' }), signal)).rejects.toThrow('no PDF');
    expect(opened).toBe(attempt);
  }
});

test('of hundreds of pictures the oldest are given back, and drawn again where they are wished for', async () => {
  const draw = async (page: number): Promise<string> => {
    const drawn = renderer.picture(wish(page), signal);
    await settle();
    drawings.splice(0).forEach(({ finish }) => finish());
    return (await drawn).address;
  };
  const first = await draw(1);
  for (let page = 2; page <= 401; page += 1) await draw(page);
  await settle();
  expect(addresses.map((one, index) => (one === 'given back' ? index + 1 : 0)).filter(Boolean)).toEqual([1]);
  expect(await draw(1)).not.toBe(first);
  expect(await draw(401)).toBe('blob:401');
});
