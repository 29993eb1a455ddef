import { numberedPdf } from '../packages/pdf/test/make-pdf';
import { expect, test, type World } from '../tests/e2e/world';
import { report } from './figures';

const FILES = 300;
const PAGES = 10;
const AT_ONCE = 4;

/** Two sides, four pages a side, the first page from another tray: every step of planning has something to do. */
const SETUP = {
  version: 1,
  documents: [{ file: '*' }],
  sides: 'two-sided',
  layout: { kind: 'grid', pagesPerSide: 4 },
  routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided', layout: { kind: 'grid', pagesPerSide: 1 } }],
};

/** A series of files, each uploaded by itself; what is in them is the same, so that it is read once and need not be waited for. */
async function begin(world: World): Promise<string> {
  const pdf = Buffer.from(numberedPdf(PAGES));
  const files: { name: string; file: string }[] = [];
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < FILES) {
      const at = next++;
      const name = `file-${at + 1}.pdf`;
      files[at] = { name, file: await world.upload(pdf, name) };
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
  const body = { title: 'Long', setup: SETUP, printerId: 'upper-office' };
  const { id } = await world.api<{ id: string }>('/series', body);
  await world.api(`/series/${id}/rows`, { files });
  type Document = { read: number; pages: unknown[] };
  const isRead = async (): Promise<boolean> =>
    (await world.api<Document[]>(`/series/${id}/documents`)).every(({ read, pages }) => read === pages.length);
  await expect.poll(isRead, { timeout: 240_000, intervals: [1000] }).toBe(true);
  return id;
}

test('planning a series of 300 files of 10 pages', async ({ page, world }) => {
  test.setTimeout(600_000);
  const id = await begin(world);
  await page.addInitScript(() => {
    const seen = { longest: 0, shown: [] as string[] };
    (window as unknown as { seen: typeof seen }).seen = seen;
    let last = performance.now();
    const beat = (): void => {
      const now = performance.now();
      const hasFacts = performance.getEntriesByType('resource').some(({ name }) => name.endsWith('/documents'));
      if (hasFacts) seen.longest = Math.max(seen.longest, now - last);
      last = now;
      const why = document.querySelector('fo-series-totals .why')?.textContent ?? '';
      if (why.startsWith('Planning') && seen.shown.at(-1) !== why) seen.shown.push(why);
      setTimeout(beat, 4);
    };
    beat();
  });
  await page.goto(`${world.base}/series/${id}`);
  // Asked within the page and of one element: a question from outside reads the whole page each time, and holds it up.
  const isPlanned = (files: number): boolean =>
    [...document.querySelectorAll('fo-series-totals button')].some((one) =>
      one.textContent?.trim().startsWith(`Send ${files} files`),
    );
  await page.waitForFunction(isPlanned, FILES, { timeout: 60_000, polling: 50 });
  const { taken, longest, shown } = await page.evaluate(() => {
    const { seen } = window as unknown as { seen: { longest: number; shown: string[] } };
    const facts = performance.getEntriesByType('resource').find(({ name }) => name.endsWith('/documents'));
    const end = (facts as PerformanceResourceTiming).responseEnd;
    return { taken: performance.now() - end, longest: seen.longest, shown: seen.shown.length };
  });
  report(`${FILES} files of ${PAGES} pages, from their facts to all planned`, taken / 1000, 's', 'under 3 s');
  report('  the screen stood still for', longest, 'ms', 'under 100 ms');
  report('  times that progress was shown', shown, 'times', 'more than 1');
});
