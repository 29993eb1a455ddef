import { execFileSync } from 'node:child_process';
import type { Download, Locator, Page, TestInfo } from '@playwright/test';
import { expect, type World } from './world';

/** The Bench as a person works at it: by the words on the screen. */
export class BenchPage {
  readonly sentence: Locator;
  readonly lanes: Locator;
  readonly panel: Locator;
  readonly tally: Locator;

  constructor(
    readonly page: Page,
    private readonly world: World,
  ) {
    this.sentence = page.locator('fo-sentence-bar');
    this.lanes = page.locator('fo-lanes');
    this.panel = page.locator('fo-sheet-panel');
    this.tally = page.locator('fo-tally-bar');
  }

  async open(job: string): Promise<void> {
    await this.page.goto(`${this.world.base}/jobs/${job}`);
    await expect(this.sentence).toContainText('Print');
    await expect(this.tally.getByRole('button', { name: /^Send \d+/ })).toBeVisible();
  }

  phrase(words: string | RegExp): Locator {
    return this.sentence.getByRole('button', { name: words, exact: true });
  }

  /** Presses a phrase and takes one of its choices. */
  async take(words: string | RegExp, choice: string | RegExp): Promise<void> {
    await this.phrase(words).click();
    await this.chooseInPopover(choice);
  }

  /** Presses a phrase and types a number. */
  async type(words: string, field: string, value: number): Promise<void> {
    await this.phrase(words).click();
    await this.page.getByRole('spinbutton', { name: field, exact: true }).fill(String(value));
    await this.page.getByRole('button', { name: 'Done' }).click();
  }

  /** Adds a rare option. */
  async also(offer: string, choice: string | RegExp): Promise<void> {
    await this.phrase('and also …').click();
    await this.page.getByRole('button', { name: offer }).click();
    await this.chooseInPopover(choice);
  }

  async typePages(text: string): Promise<void> {
    await this.page.getByLabel('Pages to print').fill(text);
  }

  private async chooseInPopover(choice: string | RegExp): Promise<void> {
    await this.page.getByRole('radio', { name: choice }).check();
    await this.page.getByRole('button', { name: 'Done' }).click();
    await expect(this.page.getByRole('dialog')).toHaveCount(0);
  }

  /** Sends, confirms what is to be confirmed, and waits until all has come out. */
  async send(sheets: number): Promise<void> {
    const said = sheets === 1 ? '1 sheet' : `${sheets} sheets`;
    await this.tally.getByRole('button', { name: `Send ${said}`, exact: true }).click();
    const confirm = this.page.getByRole('button', { name: `Send ${said} all the same` });
    await expect(confirm.or(this.page.locator('fo-queue'))).toBeVisible();
    if (await confirm.isVisible()) await confirm.click();
    await expect(this.page.getByText(`completed, ${sheets} of ${said}`)).toBeVisible();
  }

  /** What the printer's own record says of its first job: tray, sides, and pages of the file that was sent. */
  async delivered(): Promise<[string, number, number | null][]> {
    return (await this.world.delivered(1)).map(({ tray, front, back }) => [tray, front, back]);
  }

  /** Saves the imposed PDF. @returns its path */
  async save(info: TestInfo): Promise<string> {
    const download = await this.saveAs({});
    const path = info.outputPath('saved.pdf');
    await download.saveAs(path);
    return path;
  }

  /** Saves the job under a name, the one proposed if none is given, as what the dialog calls it: PDF if nothing is given. */
  async saveAs({ name, what }: { name?: string; what?: RegExp }): Promise<Download> {
    await this.tally.getByRole('button', { name: 'Save PDF' }).click();
    const dialog = this.page.getByRole('dialog', { name: 'Save as a file' });
    await expect(dialog.getByLabel('Name')).toBeFocused();
    if (name) await dialog.getByLabel('Name').fill(name);
    if (what) await dialog.getByRole('radio', { name: what }).check();
    const downloading = this.page.waitForEvent('download');
    await dialog.getByRole('button', { name: 'Save' }).click();
    return downloading;
  }
}

/** What poppler says of a file: its pages, and the text of one of them. */
export const countPages = (path: string): number =>
  Number(/^Pages: +(\d+)$/m.exec(execFileSync('pdfinfo', [path], { encoding: 'utf8' }))?.[1]);

export const textOf = (path: string, page: number): string =>
  execFileSync('pdftotext', ['-f', `${page}`, '-l', `${page}`, path, '-'], { encoding: 'utf8' });

/** The words of a page with the left and upper edges of their boxes, in points from the upper left corner. */
export function wordsOf(path: string, page: number): { word: string; x: number; y: number }[] {
  const html = execFileSync('pdftotext', ['-bbox', '-f', `${page}`, '-l', `${page}`, path, '-'], { encoding: 'utf8' });
  return [...html.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)"[^>]*>([^<]*)</g)].map(([, x, y, word]) => ({
    word: word ?? '',
    x: Number(x),
    y: Number(y),
  }));
}
