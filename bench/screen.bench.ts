import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { CDPSession, Page } from '@playwright/test';
import { expect, ROOT, test, type World } from '../tests/e2e/world';
import { median, report } from './figures';
import { manyPages } from './many-pages';
import { textDocument } from './text-document';

/** The Bench in Chromium: how soon it shows a document, answers a phrase, and how smoothly it scrolls. */

async function openLong(page: Page, world: World, settings: object): Promise<void> {
  const file = await world.upload(await manyPages(2_000), 'long.pdf');
  const ticket = { version: 1, title: 'Long', documents: [{ file }], tray: 'tray-1', ...settings };
  const { id } = await world.api<{ id: string }>('/jobs', { ticket });
  await page.goto(`${world.base}/jobs/${id}`);
  await expect(page.locator('fo-shelf fo-page-image[data-state="drawn"]').first()).toBeVisible({ timeout: 30_000 });
}

/** Drops a file on the Desk. @returns milliseconds until it is dropped, then until the Bench shows its first sheet, and its first thumbnail */
async function drop(
  page: Page,
  world: World,
  name: string,
  bytes: Uint8Array,
): Promise<{ from: number; sheet: number; thumbnail: number }> {
  const begun = performance.now();
  await page.goto(world.base);
  // The next worker gets ready, as it has in an office between two files.
  await page.waitForTimeout(4_000);
  const dropped = await page.evaluateHandle(
    ([called, base64]) => {
      const transfer = new DataTransfer();
      const file = Uint8Array.from(atob(base64!), (character) => character.charCodeAt(0));
      transfer.items.add(new File([file], called!));
      return transfer;
    },
    [name, Buffer.from(bytes).toString('base64')],
  );
  const start = performance.now();
  await page.locator('fo-file-drop button').first().dispatchEvent('drop', { dataTransfer: dropped });
  await page.waitForSelector('fo-lanes .sheet, fo-lanes .block');
  const sheet = performance.now() - start;
  await page.waitForSelector('fo-shelf fo-page-image[data-state="drawn"]');
  return { from: start - begun, sheet, thumbnail: performance.now() - start };
}

/** Three of them in the middle; each file is another one. */
async function reportDrops(
  what: string,
  each: (round: number) => Promise<{ sheet: number; thumbnail: number }>,
): Promise<void> {
  const taken = [await each(0), await each(1), await each(2)];
  report(`${what} dropped, until the first sheet`, median(taken.map((one) => one.sheet)) / 1000, 's', 'under 2 s');
  report('  until the first thumbnail', median(taken.map((one) => one.thumbnail)) / 1000, 's', 'under 2 s');
}

test('from a dropped file of 500 pages to its first thumbnail and its first sheet', async ({ page, world }) => {
  const pdf = await manyPages(500);
  await reportDrops('500 pages', (round) =>
    drop(page, world, 'long.pdf', Buffer.concat([pdf, Buffer.from(`\n% ${round}\n`)])),
  );
});

const MANUAL_PAGES = 1_158;

test('a manual of 1,158 pages: from its drop to the first sheet, to all facts, and saved', async ({ page, world }) => {
  const manual = readFileSync(join(ROOT, '.foglio/manual/octave.pdf'));
  const taken: { sheet: number; facts: number; saved: number }[] = [];
  for (let round = 0; round < 3; round += 1) {
    const start = performance.now();
    // Another file each time: what is known is not read again.
    const { sheet, from } = await drop(
      page,
      world,
      'manual.pdf',
      Buffer.concat([manual, Buffer.from(`\n% ${round}\n`)]),
    );
    const { ticket } = await world.api<{ ticket: { documents: { file: string }[] } }>(
      `/jobs/${page.url().split('/').at(-1)}`,
    );
    const file = ticket.documents[0]!.file;
    let read = 0;
    while (read < MANUAL_PAGES) {
      ({ read } = await world.api<{ read: number }>(`/files/${file}/facts?from=${read}`));
      await page.waitForTimeout(50);
    }
    const facts = performance.now() - start - from;
    // On paper that the printer has.
    const settings = { title: 'Manual', documents: [{ file }], paper: { size: 'iso_a4_210x297mm' } };
    const { id } = await world.api<{ id: string }>('/jobs', { ticket: { version: 1, ...settings } });
    await page.goto(`${world.base}/jobs/${id}`);
    await page.locator('fo-tally-bar').getByRole('button', { name: 'Save PDF' }).click();
    const saving = performance.now();
    const download = page.waitForEvent('download');
    await page.getByRole('dialog', { name: 'Save as a file' }).getByRole('button', { name: 'Save' }).click();
    await (await download).path();
    taken.push({ sheet, facts, saved: performance.now() - saving });
  }
  const middle = (what: 'sheet' | 'facts' | 'saved'): number => median(taken.map((one) => one[what])) / 1000;
  report('a manual of 1,158 pages dropped, until the first sheet', middle('sheet'), 's', 'under 1.5 s');
  report('  until all facts are known', middle('facts'), 's', 'under 8 s');
  report('  saved as PDF', middle('saved'), 's', 'under 4 s');
});

test('from a dropped text document of 20 pages to its first sheet', async ({ page, world }) => {
  // The browser that lays out is kept once it runs; it is not started for each document.
  await drop(page, world, 'first.docx', await textDocument(1, 'first'));
  await reportDrops('.docx of 20 pages', async (round) =>
    drop(page, world, 'report.docx', await textDocument(20, `round ${round}`)),
  );
});

test('a phrase changed, until the lanes show it, 2,000 pages', async ({ page, world }) => {
  await openLong(page, world, { sides: 'two-sided' });
  const taken: number[] = [];
  for (let round = 0; round < 6; round += 1) {
    await page
      .locator('fo-sentence-bar')
      .getByRole('button', { name: /^(both sides|one side)$/ })
      .click();
    const choice = page.getByRole('radio', { name: round % 2 === 0 ? /^One side/ : /^Both sides/ });
    await expect(choice).toBeVisible();
    await page.waitForTimeout(300);
    taken.push(
      await choice.evaluate(async (radio: HTMLInputElement) => {
        const hint = document.querySelector('fo-lanes .hint')!;
        const before = hint.textContent;
        const start = performance.now();
        radio.click();
        while (hint.textContent === before) await new Promise((resolve) => requestAnimationFrame(resolve));
        return performance.now() - start;
      }),
    );
    await page.keyboard.press('Escape');
  }
  report('from a phrase taken to the lanes, 2,000 pages', median(taken), 'ms', 'under 50 ms');
  report('  the slowest of them', Math.max(...taken), 'ms', 'under 100 ms');
});

/** Frames that reached the screen while something scrolled, by the browser's own trace: how many a second, and the longest wait for one. */
async function framesWhile(client: CDPSession, work: () => Promise<void>): Promise<{ rate: number; longest: number }> {
  const events: { name: string; ts: number }[] = [];
  client.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as typeof events)));
  await client.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['disabled-by-default-devtools.timeline.frame', 'devtools.timeline.frame'] },
  });
  await work();
  const ended = new Promise<void>((resolve) => client.once('Tracing.tracingComplete', () => resolve()));
  await client.send('Tracing.end');
  await ended;
  const drawn = events.filter(({ name }) => name === 'DrawFrame').map(({ ts }) => ts / 1000);
  drawn.sort((a, b) => a - b);
  const waits = drawn.slice(1).map((at, index) => at - drawn[index]!);
  return { rate: (1000 * waits.length) / (drawn.at(-1)! - drawn[0]!), longest: Math.max(...waits) };
}

for (const [what, selector, way] of [
  ['the shelf', 'fo-shelf cdk-virtual-scroll-viewport', 'scrollTop'],
  ['the lanes', 'fo-lanes .scroller', 'scrollLeft'],
] as const) {
  test(`scrolling ${what} of 2,000 pages`, async ({ page, world }) => {
    // Routes by turns, so that nothing folds.
    const routes = [{ pages: 'all even', tray: 'tray-2' }];
    await openLong(page, world, { routes });
    const client = await page.context().newCDPSession(page);
    const { rate, longest } = await framesWhile(client, () =>
      page.locator(selector).evaluate(async (element, edge) => {
        const start = performance.now();
        while (performance.now() - start < 3_000) {
          element[edge] += 12;
          await new Promise((resolve) => requestAnimationFrame(resolve));
        }
      }, way),
    );
    report(`scrolling ${what}`, rate, 'frames a second', 'at least 58');
    report('  the longest wait for one', longest, 'ms', 'under 50 ms');
  });
}

test('JavaScript before anything is shown', () => {
  const folder = join(ROOT, 'apps/web/dist/browser');
  // What the page names, and what that imports before it runs.
  const scripts = readdirSync(folder).filter((name) => name.endsWith('.js'));
  const html = readFileSync(join(folder, 'index.html'), 'utf8');
  const named = new Set(scripts.filter((name) => html.includes(name)));
  for (const name of named) {
    const text = readFileSync(join(folder, name), 'utf8');
    for (const [, other] of text.matchAll(/(?:\bfrom|\bimport)\s*"\.\/([\w-]+\.js)"/g)) named.add(other!);
  }
  const bytes = [...named].reduce((sum, name) => sum + gzipSync(readFileSync(join(folder, name))).length, 0);
  report('initial JavaScript, gzip', bytes / 1024, 'kB', 'under 400 kB');
});
