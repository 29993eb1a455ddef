import type { Page } from '@playwright/test';
import type { Chance } from './chance';

/** How long a thing that may not be there is looked for. */
const LOOK_MS = 1_000;

/** What a person does at a Bench, one thing after the other as chance has it. What is not to be had just now is left. */
export class Walker {
  private dropped = 0;
  /** How many acts could be done, and how many of the kinds that were tried were not to be had just then. */
  readonly tried = { done: 0, left: 0 };

  constructor(
    readonly page: Page,
    private readonly job: string,
    private readonly chance: Chance,
    private readonly file: Buffer,
  ) {}

  async act(): Promise<void> {
    const acts = [
      () => this.typePages(),
      () => this.typePages(),
      () => this.chooseSides(),
      () => this.typeCopies(),
      () => this.typeCopies(),
      () => this.route(),
      () => this.route(),
      () => this.changePrinter(),
      () => this.changePrinter(),
      () => this.undo(),
      () => this.drop(),
      () => this.leave(),
      () => this.reload(),
    ];
    try {
      await this.opened();
      await this.chance.one(acts)();
      this.tried.done += 1;
    } catch (error) {
      orNotThere(error);
      this.tried.left += 1;
    }
    await this.tidy();
  }

  /** The job is on the screen, or it is said why it is not. */
  private async opened(): Promise<void> {
    const opened = this.page.locator('fo-lanes .sheet').or(this.page.getByRole('alert'));
    await opened.first().waitFor({ timeout: 10 * LOOK_MS });
  }

  /** A change that is made in a moment, so that Send can follow before it is saved. */
  async changeQuickly(): Promise<void> {
    await (this.chance.below(2) === 0 ? this.route() : this.typePages()).catch(orNotThere);
  }

  /** Takes back whatever stands in the way: an open popover, a question, what could not be loaded or saved. */
  async tidy(): Promise<void> {
    const { page } = this;
    if (await page.locator('.cdk-overlay-backdrop').count()) await page.keyboard.press('Escape');
    for (const name of ['Try again', 'Show how it stands now']) {
      const button = page.getByRole('button', { name });
      if (await button.isVisible()) await button.click({ timeout: LOOK_MS }).catch(orNotThere);
    }
    if (!page.url().includes('/jobs/')) await this.comeBack();
  }

  async comeBack(): Promise<void> {
    const link = this.page.locator('header a.job');
    if ((await link.count()) > 0 && this.page.url() !== 'about:blank') await link.click();
    else await this.page.goto(this.job);
  }

  private async typePages(): Promise<void> {
    const pages = this.chance.one(['all', '1-3', '2-5', '1,4', '6,5,4', 'even', '2', '9', '3-']);
    await this.page.getByLabel('Pages to print').fill(pages, { timeout: LOOK_MS });
  }

  private async chooseSides(): Promise<void> {
    await this.press(/^(one side|both sides)$/);
    await this.page.getByRole('radio').nth(this.chance.below(2)).check({ timeout: LOOK_MS });
  }

  private async typeCopies(): Promise<void> {
    await this.press(/^(one copy|\d+ copies)$/);
    const field = this.page.getByRole('spinbutton').first();
    await field.fill(String(1 + this.chance.below(4)), { timeout: LOOK_MS });
  }

  private async press(words: RegExp): Promise<void> {
    const phrases = this.page.locator('fo-sentence-bar').getByRole('button', { name: words });
    await phrases.first().click({ timeout: LOOK_MS });
  }

  /** A sheet, perhaps with those up to another one, and the number of a tray. */
  private async route(): Promise<void> {
    const sheets = this.page.locator('fo-lanes .sheet');
    const count = await sheets.count();
    if (count === 0) return;
    await sheets.nth(this.chance.below(count)).click({ timeout: LOOK_MS });
    if (this.chance.below(2) === 0)
      await sheets.nth(this.chance.below(count)).click({ timeout: LOOK_MS, modifiers: ['Shift'] });
    await this.page.keyboard.press(String(this.chance.below(4)));
  }

  private async changePrinter(): Promise<void> {
    await this.press(/^(Upper office|Library|Box office)$/);
    const choice = this.page.getByRole('radio').nth(this.chance.below(3));
    await choice.check({ timeout: LOOK_MS });
  }

  private async undo(): Promise<void> {
    await this.page.locator('fo-lanes h2').click({ timeout: LOOK_MS });
    await this.page.keyboard.press(this.chance.below(3) === 0 ? 'Control+Shift+z' : 'Control+z');
  }

  private async drop(): Promise<void> {
    if (this.dropped > 0) return;
    this.dropped += 1;
    const file = { name: 'more.pdf', mimeType: 'application/pdf', buffer: this.file };
    await this.page.getByLabel('Add a document to this job').setInputFiles(file, { timeout: LOOK_MS });
  }

  /** To another screen, and back at once. */
  private async leave(): Promise<void> {
    await this.page
      .getByRole('link', { name: this.chance.one(['Desk', 'Queue', 'Set-ups']) })
      .click({ timeout: LOOK_MS });
    await this.comeBack();
  }

  private async reload(): Promise<void> {
    await this.page.reload({ timeout: 30 * LOOK_MS });
  }
}

/** What is not there just now is no fault: it may be loading, or out of the way. */
function orNotThere(error: unknown): void {
  if (!(error instanceof Error) || error.name !== 'TimeoutError') throw error;
}
