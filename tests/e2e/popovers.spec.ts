import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Locator, Page, Route } from '@playwright/test';
import { BenchPage } from './bench-page';
import { expect, ROOT, test } from './world';

/** What opens from the sentence lies inside the window, wherever in a line its phrase stands. */

/** Widths at which the lines of a sentence break differently, so that its last phrases stand everywhere in a line. */
const WIDTHS = [1024, 1064, 1104, 1152, 1200, 1240, 1280, 1920];
const HEIGHT = 768;

test.use({ printerOptions: { also: ['library', 'box-office'] } });

async function expectInside(page: Page, opened: Locator, what: string): Promise<void> {
  await expect(opened).toBeVisible();
  const { width, height } = page.viewportSize()!;
  const inside = async (): Promise<string> => {
    // What is opened from a popover takes its place; one that has gone is told of, and not waited for.
    const box = await opened.boundingBox({ timeout: 1_000 }).catch(() => null);
    if (!box) return 'not there yet';
    const [right, bottom] = [box.x + box.width, box.y + box.height];
    return box.x >= 0 && box.y >= 0 && right <= width && bottom <= height ? 'inside' : JSON.stringify(box);
  };
  await expect.poll(inside, { message: `${what} in a window of ${width} by ${height}` }).toBe('inside');
}

for (const kind of ['contract', 'flyer'] as const) {
  test(`${kind}: the printers, and what else there is to choose`, async ({ quietPage: page, world }) => {
    const bench = new BenchPage(page, world);
    const settings = kind === 'contract' ? { sides: 'two-sided', routes: [{ pages: '6, 9', tray: 'tray-3' }] } : {};
    await bench.open(await world.demoJob(kind, settings));
    for (const width of WIDTHS) {
      await page.setViewportSize({ width, height: HEIGHT });
      for (const phrase of ['Upper office', 'and also …']) {
        await bench.phrase(phrase).click();
        const opened = page.locator('.cdk-overlay-pane .popover');
        // Its printers come after it has opened.
        if (phrase === 'Upper office') await expect(opened.getByRole('radio').nth(1)).toBeVisible();
        await expectInside(page, opened, phrase);
        await page.keyboard.press('Escape');
        await expect(opened).toHaveCount(0);
      }
    }
  });
}

test('printers that answer late, or not at all: it stays inside the window, and says so', async ({ page, world }) => {
  const bench = new BenchPage(page, world);
  await page.setViewportSize({ width: 1024, height: HEIGHT });
  await bench.open(await world.demoJob('flyer'));
  const asked: Route[] = [];
  await page.route('**/api/printers', (route) => void asked.push(route));
  const opened = page.locator('.cdk-overlay-pane .popover');
  for (const [how, said] of [
    ['well', 'Box office'],
    ['not', 'does not answer'],
  ] as const) {
    // By keyboard: what opens has the focus, before there is anything to choose.
    await bench.phrase('Upper office').press('Enter');
    await expect(opened).toContainText('Asking the printers');
    await expect(opened.getByRole('heading')).toBeFocused();
    await expectInside(page, opened, 'while they are asked');
    await expect.poll(() => asked.length).toBe(1);
    const question = asked.pop()!;
    await (how === 'well' ? question.continue() : question.abort());
    await expect(opened).toContainText(said);
    await expectInside(page, opened, `once they answered: ${how}`);
    if (how === 'well') {
      await page.keyboard.press('Tab');
      await expect(opened.getByRole('radio', { name: 'Upper office' })).toBeFocused();
      // Arrows go through them, and nothing is taken before Enter.
      await page.keyboard.press('ArrowDown');
      await expect(opened.getByRole('button', { name: 'Print at Library' })).toBeVisible();
      await expect(bench.phrase('Upper office')).toBeVisible();
      await expectInside(page, opened, 'with one marked');
    }
    await page.keyboard.press('Escape');
    await expect(opened).toHaveCount(0);
    await expect(bench.phrase('Upper office')).toBeFocused();
  }
  await page.unrouteAll();
  await bench.phrase('Upper office').press('Enter');
  await expect(opened.getByRole('radio').nth(1)).toBeVisible();
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(bench.phrase('Library')).toBeFocused();
});

/** The sizes of a small, a usual and a large screen. Where little room is, most sticks out; `npm run soak` takes all. */
const SIZES = [
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
  { width: 1920, height: 1080 },
].slice(0, process.env['FOGLIO_TIMES'] ? 3 : 1);

/** Opens something, finds it inside the window, and closes it again. */
async function tryOne(page: Page, open: () => Promise<void>, opened: Locator, what: string): Promise<void> {
  await open();
  await expectInside(page, opened, what);
  await page.keyboard.press('Escape');
  await expect(opened).toHaveCount(0);
}

const JOBS = 10;

/** Parts of the demo jobs that one test takes, from and up to: on a slow machine a long one may come to its end too late. */
const PARTS = [
  [0, 3],
  [3, 6],
  [6, JOBS],
] as const;

for (const [size, [from, to]] of SIZES.flatMap((one) => PARTS.map((part) => [one, part] as const))) {
  const [{ width, height }, which] = [size, `${from + 1} to ${to}`];
  test(`every popover, menu and dialog of the demo jobs ${which} lies inside a window of ${width} by ${height}`, async ({
    quietPage: page,
    world,
  }) => {
    // Not waited for by standing still: a connection that the server closes meanwhile would be used again.
    await promisify(execFile)('node', [join(ROOT, 'demo/dist/main.js'), world.base]);
    const jobs = await world.jobs();
    expect(jobs).toHaveLength(JOBS);
    const bench = new BenchPage(page, world);
    const popover = page.locator('.cdk-overlay-pane .popover');
    const dialog = page.getByRole('dialog');
    const also = bench.phrase('and also …');
    const offers = popover.getByRole('button');
    const checks = bench.tally.locator('button.summary');
    const send = bench.tally.getByRole('button', { name: /^Send \d+/ });
    let opened = 0;

    const tryAll = async (title: string): Promise<void> => {
      const phrases = bench.sentence.locator('button[aria-expanded]');
      for (let at = 0; at < (await phrases.count()); at += 1) {
        const open = async (): Promise<void> => {
          await phrases.nth(at).click();
          await expect(popover.getByText('Asking the printers')).toHaveCount(0);
        };
        await tryOne(page, open, popover, `${title}: ${await phrases.nth(at).textContent()}`);
        opened += 1;
      }
      if (await checks.isEnabled()) await tryOne(page, () => checks.click(), popover, `${title}: checks`);
      if ((await checks.getAttribute('data-level')) !== 'caution') return;
      await tryOne(page, () => send.click(), dialog, `${title}: what is to be confirmed`);
    };

    await page.setViewportSize(size);
    for (const { id, ticket } of jobs.slice(from, to)) {
      if (opened === 0) await bench.open(id);
      else {
        await page.getByRole('link', { name: 'Desk', exact: true }).click();
        await page.locator(`fo-desk a[href="/jobs/${id}"]`).first().click();
        await expect(page.getByRole('banner').getByRole('link', { name: ticket.title })).toHaveClass(/here/);
        await expect(send).toBeVisible();
      }
      await tryAll(ticket.title);
    }
    expect(opened).toBeGreaterThan(7 * (to - from));
    // What is the same for all jobs, at the last one.
    if (to !== JOBS) return;
    const more = page.locator('fo-document-list button.more').first();
    await tryOne(page, () => more.click(), page.getByRole('menu'), 'what to do with a document');
    const save = bench.tally.getByRole('button', { name: 'Save PDF' });
    await tryOne(page, () => save.click(), dialog, 'saving');
    for (const key of ['?', 'p']) await tryOne(page, () => page.keyboard.press(key), dialog, `the key ${key}`);
    const setups = (): Promise<void> => bench.sentence.getByRole('button', { name: 'set-ups …' }).click();
    await tryOne(page, setups, dialog, 'set-ups');
    await also.click();
    await expect(offers.first()).toBeVisible();
    const names = await offers.allTextContents();
    await page.keyboard.press('Escape');
    for (const [at, name] of names.entries()) {
      const open = async (): Promise<void> => {
        await also.click();
        await offers.nth(at).click();
      };
      await tryOne(page, open, popover, name);
    }
    expect(names.length).toBeGreaterThan(5);
  });
}
