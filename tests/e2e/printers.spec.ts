import { pageTexts } from '../../packages/pdf/test/poppler';
import { BenchPage } from './bench-page';
import { expect, test } from './world';

/** What is on a page, whatever the white between its words. */
const words = (text: string | undefined): string => (text ?? '').split(/\s+/).join(' ').trim();

/** Printers of different ability, each the real simulated one: what the person sees, and what came out of it. */

test.describe('several printers', () => {
  test.use({ printerOptions: { also: ['library', 'box-office'] } });

  test('a job set up for one printer goes to another, by the way that one takes', async ({
    quietPage: page,
    world,
  }) => {
    const job = await world.demoJob('programme', { sides: 'two-sided', routes: [{ pages: '3', sides: 'one-sided' }] });
    await page.goto(`${world.base}/jobs/${job}`);
    await page.getByRole('button', { name: 'Upper office', exact: true }).click();
    const places = page.getByRole('dialog', { name: 'Printed at' });
    await expect(places).toContainText('A4 and US Letter; both sides; black only');
    await expect(places).toContainText('in two passes by hand');
    await places.getByRole('radio', { name: 'Library' }).click();
    await expect(page.getByRole('button', { name: 'Library', exact: true })).toBeFocused();
    await page.reload();
    await expect(page.getByRole('button', { name: 'Library', exact: true })).toBeVisible();
    await page.getByRole('button', { name: /^Send \d+ sheets/ }).click();
    const anyway = page.getByRole('dialog').getByRole('button', { name: /all the same/ });
    await anyway.or(page.getByText('completed, 5 of 5 sheets')).first().waitFor();
    if (await anyway.isVisible()) await anyway.click();
    await expect(page.getByText('completed, 5 of 5 sheets')).toBeVisible({ timeout: 30_000 });
    await expect(
      page.getByText('Library cannot mix one and both sides, so one-sided sheets get a blank'),
    ).toBeVisible();
    const sheets = await world.delivered(1, 'library');
    expect(sheets.map(({ sides, front, back }) => [sides, front, back])).toEqual(
      [1, 3, 5, 7, 9].map((front) => ['two-sided-long-edge', front, front + 1]),
    );
    expect(await world.delivered(1)).toEqual([]);
  });

  test('two passes, led by the hand: what the guide says is done at the printer, and the stack is in order', async ({
    quietPage: page,
    world,
  }) => {
    const job = await world.demoJob('contract', { sides: 'two-sided' });
    await page.goto(`${world.base}/jobs/${job}`);
    await page.getByRole('button', { name: 'Upper office', exact: true }).click();
    await page.getByRole('dialog', { name: 'Printed at' }).getByRole('radio', { name: 'Box office' }).click();
    await expect(page.getByText('2nd pass, the stack turned over, sheet 1 first')).toBeVisible();
    await page.getByRole('button', { name: 'Send 7 sheets' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Send 7 sheets all the same' }).click();
    const guide = page.locator('fo-turn-guide');
    await expect(guide.getByText('Take all 7 sheets from the output as one stack')).toBeVisible();
    const how = await guide.locator('.how').innerText();
    const drawn = (await guide.getByRole('img').getAttribute('aria-label')) ?? '';
    const turned = /^Turn the whole stack over/.test(how);
    // Words and drawing say the same.
    expect(/turned over/.test(drawn)).toBe(turned);
    // Nobody else's sheets may come onto the stack.
    const other = await world.demoJob('programme');
    await world.api(`/jobs/${other}/printer`, { printerId: 'box-office', revision: 1 }, 'PUT');
    const waiting = await world.api<{ id: string }>('/sendings', {
      jobId: other,
      revision: 2,
      sheets: 8,
      confirmed: ['outside-printable'],
    });
    const stateOf = async (): Promise<string> => (await world.api<{ state: string }>(`/sendings/${waiting.id}`)).state;
    await page.getByRole('link', { name: 'Printers' }).click();
    await page.getByRole('link', { name: /^Box office/ }).click();
    const back = turned ? 'Put it back turned over' : 'Put the last stack back as it lies';
    await page.getByRole('button', { name: back }).click();
    await page.getByRole('link', { name: 'Queue' }).click();
    await expect(page.getByText('It waits until the backs of “contract” are printed.')).toBeVisible();
    expect(await stateOf()).toBe('queued');
    await page.getByRole('link', { name: /^contract 7 sheets · fronts printed/ }).click();
    await guide.getByRole('button', { name: 'It is in: print the backs' }).click();
    await expect(page.getByText('completed, 7 of 7 sheets')).toBeVisible({ timeout: 30_000 });
    const sheets = await world.delivered(2, 'box-office');
    expect(sheets.every(({ spoilt }) => !spoilt)).toBe(true);
    const fronts = pageTexts(await world.document(1, 'box-office'));
    const backs = pageTexts(await world.document(2, 'box-office'));
    // Picked up and turned front side up: the first that came out lies on top, its front up.
    const leafed = sheets.flatMap(({ upper, lower }) => {
      expect([lower!.job, upper!.job]).toEqual([1, 2]);
      return [fronts[lower!.page - 1], backs[upper!.page - 1]];
    });
    const source = pageTexts(world.source('contract'));
    expect(leafed.map(words)).toEqual(source.map(words));
    await expect(page.getByText('Front, page 1', { exact: true })).toBeVisible();
    await expect(page.getByText('Back, page 2', { exact: true })).toBeVisible();
    await expect.poll(stateOf, { timeout: 60_000 }).toBe('completed');
  });

  test('what cannot be one job goes as several, in order, and is one stack', async ({ quietPage: page, world }) => {
    const routes = [{ pages: '1-4', layout: { kind: 'booklet' } }];
    const job = await world.demoJob('programme', { sides: 'two-sided', copies: 2, routes });
    const { revision } = await world.api<{ revision: number }>(
      `/jobs/${job}/printer`,
      { printerId: 'library', revision: 1 },
      'PUT',
    );
    const confirmed = ['separate-jobs', 'color-on-mono', 'outside-printable', 'text-too-small'];
    await world.api('/sendings', { jobId: job, revision, sheets: 6, confirmed });
    await page.goto(`${world.base}/queue`);
    await expect(page.getByText('completed, 6 of 6 sheets')).toBeVisible({ timeout: 30_000 });
    await expect(page.getByText('so this goes as 4 jobs, one after the other')).toBeVisible();
    await expect(page.getByText('of 6 delivered')).toBeVisible();
    const jobs = await Promise.all([1, 2, 3, 4].map((number) => world.delivered(number, 'library')));
    expect(jobs.map((sheets) => sheets.map(({ sides }) => sides.replace('two-sided-', '')))).toEqual([
      ['short-edge'],
      ['long-edge', 'long-edge'],
      ['short-edge'],
      ['long-edge', 'long-edge'],
    ]);
  });
});

test.describe('at the printer', () => {
  test.use({ printerOptions: { also: ['library'] } });

  test('a jam in the middle of a job is told in words, cleared at the panel, and every sheet comes out once', async ({
    quietPage: page,
    world,
  }) => {
    const job = await world.demoJob('contract', { copies: 2 });
    // It waits for paper in the middle, and jams when it gets some.
    await world.load('tray-1', 10);
    const confirmed = ['tray-short'];
    const { id } = await world.api<{ id: string }>('/sendings', { jobId: job, revision: 1, sheets: 28, confirmed });
    await page.goto(`${world.base}/queue/${id}`);
    await expect.poll(async () => (await world.delivered(1)).length).toBe(10);
    await world.api('/printers/upper-office/panel/fault', { fault: 'media-jam' }, 'PUT');
    await world.load('tray-1', 500);
    await expect(page.getByText('Paper is jammed: open the printer, take the sheet out and close it')).toBeVisible();
    expect(await world.delivered(1)).toHaveLength(10);
    await page.getByRole('link', { name: 'Printers' }).click();
    await expect(page.getByText('Paper is jammed').first()).toBeVisible();
    await page.getByRole('button', { name: 'Clear the jam' }).click();
    await page.getByRole('link', { name: 'Queue' }).click();
    await expect(page.getByText('completed, 28 of 28 sheets')).toBeVisible({ timeout: 30_000 });
    expect((await world.delivered(1)).map(({ set, front }) => [set, front])).toEqual(
      [1, 2].flatMap((set) => Array.from({ length: 14 }, (_, index) => [set, index + 1])),
    );
  });

  test('a job is held before it begins, and released', async ({ quietPage: page, world }) => {
    const first = await world.demoJob('contract');
    const second = await world.demoJob('programme');
    await world.api('/printers/upper-office/panel/paused', { paused: true }, 'PUT');
    await world.api('/sendings', { jobId: first, revision: 1, sheets: 14 });
    const { id } = await world.api<{ id: string }>('/sendings', {
      jobId: second,
      revision: 1,
      sheets: 8,
      confirmed: ['outside-printable'],
    });
    await page.goto(`${world.base}/queue/${id}`);
    await page.getByRole('button', { name: 'Hold' }).click();
    await expect(page.getByText('It is held at the printer until it is released.')).toBeVisible();
    const told = page.getByRole('table', { name: 'As the printer sees it' });
    await expect(told.getByRole('row')).toHaveCount(9);
    await expect(told.getByRole('row').nth(1)).toContainText(/1\s*Tray 1\s*one side\s*portrait\s*the job’s own/);
    await world.api('/printers/upper-office/panel/paused', { paused: false }, 'PUT');
    await expect.poll(async () => (await world.delivered(1)).length).toBe(14);
    expect(await world.delivered(2)).toEqual([]);
    await page.getByRole('button', { name: 'Release' }).click();
    await expect(page.getByText('completed, 8 of 8 sheets')).toBeVisible({ timeout: 30_000 });
    expect((await world.delivered(2)).map(({ front }) => front)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  });

  test('paper taken out while one confirms: what only the server knows of is confirmed too, before paper moves', async ({
    page,
    world,
  }) => {
    const bench = new BenchPage(page, world);
    await bench.open(await world.demoJob('programme', { tray: 'tray-1' }));
    await page.getByRole('button', { name: 'Send 8 sheets', exact: true }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText('Content of page 1 is cut off');
    await world.api('/printers/upper-office/panel/trays/tray-1', { loaded: 3 }, 'PUT');
    const sendAnyway = dialog.getByRole('button', { name: 'Send 8 sheets all the same' });
    await sendAnyway.click();
    await expect(dialog).toContainText('Tray 1 holds 3 of the 8 sheets needed; it runs out at sheet 4');
    await expect(dialog).not.toContainText('Content of page 1');
    expect(await world.delivered(1)).toEqual([]);
    await sendAnyway.click();
    await expect(page.locator('fo-queue')).toContainText('Tray 1');
    await world.api('/printers/upper-office/panel/trays/tray-1', { loaded: 500 }, 'PUT');
    await expect(page.getByText('completed, 8 of 8 sheets')).toBeVisible({ timeout: 30_000 });
  });

  test('Printers: what lies in the trays, a new price, and paper loaded at the panel', async ({
    quietPage: page,
    world,
  }) => {
    await page.goto(`${world.base}/printers`);
    const tray = page.locator('li[data-tray="tray-3"]');
    await expect(tray).toContainText('Tray 3: A4, cream 120 g/m²');
    await expect(tray).toContainText('40 of 250 sheets');
    await page.getByLabel('Tray', { exact: true }).selectOption('Tray 3');
    await page.getByRole('button', { name: 'Load it full' }).click();
    await expect(tray).toContainText('250 of 250 sheets');
    await page.getByRole('button', { name: 'Run it empty' }).click();
    await expect(tray).toContainText('empty');
    await tray.getByRole('button', { name: /^Change/ }).click();
    const paper = page.getByRole('group', { name: 'Paper in Tray 3' });
    const price = paper.getByLabel('Price');
    await price.fill('0.5');
    await price.press('Enter');
    await paper.getByLabel('Weight').fill('100');
    await paper.getByLabel('Weight').press('Enter');
    await paper.getByLabel('Paper').selectOption('labels');
    await expect(tray).toContainText('Tray 3: A4, labels 100 g/m²');
    await expect(tray).toContainText('€ 0.500 a sheet');
    await tray.getByRole('button', { name: /^Done/ }).click();
    await expect(paper).toBeHidden();
    // It goes before what the printer says, and outlives a start of the server.
    await page.goto('about:blank');
    await world.killServer();
    await world.startServer();
    const { profile } = await world.api<{ profile: { trays: object[] } }>('/printers/upper-office');
    expect(profile.trays[2]).toMatchObject({ price: 0.5, weight: 100, type: 'labels' });
    await page.goto(`${world.base}/printers`);
    await page.getByRole('link', { name: /^Library/ }).click();
    await expect(page.getByText('One paper a job, or each page from the tray with its size')).toBeVisible();
  });

  test('the output is leafed through at the printer, and taken away', async ({ quietPage: page, world }) => {
    const job = await world.demoJob('programme', { sides: 'two-sided' });
    await world.api('/sendings', { jobId: job, revision: 1, sheets: 4, confirmed: ['outside-printable'] });
    await page.goto(`${world.base}/printers`);
    await page.getByRole('button', { name: 'Output' }).click();
    const stack = page.locator('fo-stack-viewer');
    await expect(stack.getByText('Sheet 1 of 4 delivered')).toBeVisible();
    await stack.getByRole('button', { name: 'Next sheet' }).click();
    await expect(stack.getByText('Back, page 4 of the file sent')).toBeVisible();
    await expect(stack.locator('fo-page-image[data-state="drawn"]')).toHaveCount(2);
    await page.getByRole('button', { name: 'Take the stack away' }).click();
    await expect(stack.getByText('No sheet has come out yet.')).toBeVisible();
  });

  test('a printer is added by its address and taken off again; other addresses are refused in words', async ({
    page,
    world,
  }) => {
    await page.goto(`${world.base}/printers`);
    const address = page.getByLabel('Add a printer by its address');
    const refused = page.getByRole('alert');
    const add = async (uri: string): Promise<void> => {
      await address.fill(uri);
      await page.getByRole('button', { name: 'Add', exact: true }).click();
    };
    await add('http://127.0.0.1/print');
    await expect(refused).toContainText("is not a printer's address; write one like ipp://host:631/ipp/print");
    await add('ipp://169.254.169.254/ipp/print');
    await expect(refused).toContainText('169.254.169.254 is no address of a printer');
    await add('ipp://127.0.0.1:1/ipp/print');
    await expect(refused).toContainText('No printer answers at this address');
    await add(world.printerUri);
    await expect(refused).toHaveText('Upper office is at this address.');
    await add(world.printerUri.replace('127.0.0.1', 'localhost'));
    await expect(page).toHaveURL(/printers\/upper-office-2$/);
    await expect(page.getByText('Takes a job with several papers, one-sided and two-sided, as one job')).toBeVisible();
    await page.getByRole('button', { name: 'Take it off the list' }).click();
    await expect(page).toHaveURL(/printers$/);
    await expect(page.getByRole('link', { name: /^Upper office/ })).toHaveCount(1);
  });
});
