import type { Locator, Page, Route } from '@playwright/test';
import { BenchPage } from './bench-page';
import { expect, test } from './world';

/** What opens from the sentence lies inside the window, wherever in a line its phrase stands. */

/** Widths at which the lines of a sentence break differently, so that its last phrases stand everywhere in a line. */
const WIDTHS = [1024, 1064, 1104, 1152, 1200, 1240, 1280, 1920];
const HEIGHT = 768;

test.use({ printerOptions: { also: ['library', 'box-office'] } });

async function expectInside(page: Page, opened: Locator, what: string): Promise<void> {
  await expect(opened).toBeVisible();
  const { width, height } = page.viewportSize()!;
  const inside = async (): Promise<string> => {
    const box = (await opened.boundingBox())!;
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
    }
    await page.keyboard.press('Escape');
    await expect(opened).toHaveCount(0);
    await expect(bench.phrase('Upper office')).toBeFocused();
  }
});
