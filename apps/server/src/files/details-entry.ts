import type { PageFacts } from '@foglio/core';
import type { PageDetails } from '@foglio/pdf';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { onceDatabaseAnswers } from '../database/outage';
import { contents } from '../database/schema';
import type { StoredContent } from './content-store';

/** Time between two entries of what was found, in milliseconds. */
const ENTER_MS = 500;

/** An entry takes the longer the more pages there are, in milliseconds for each. */
const ENTER_EACH_PAGE_MS = 0.5;

/** Enters what is found of a content's pages as it comes, so that the first are known while the last are still being read. */
export class DetailsEntry {
  /** Of how many pages, from the first, all is known. */
  read: number;
  /** The same as it stands in the database. */
  private entered: number;
  private pages: PageFacts[];
  /** Known pages after the first that is not. */
  private readonly ahead = new Set<number>();
  /** What is not entered yet, by the page's number. */
  private found: Record<number, PageDetails> = {};
  private entering: Promise<unknown> = Promise.resolve();
  private readonly timer: NodeJS.Timeout;

  /** @param complain is told of an entry that failed; the next one makes it good */
  constructor(
    private readonly db: Database,
    private readonly content: StoredContent,
    complain: (error: unknown) => void,
  ) {
    this.pages = [...content.pages];
    this.read = this.entered = content.detailsRead;
    this.goOn();
    const every = Math.max(ENTER_MS, ENTER_EACH_PAGE_MS * content.pages.length);
    this.timer = setInterval(() => {
      this.entering = this.entering.then(() => this.enter()).catch(complain);
    }, every);
  }

  page(page: number, details: PageDetails): void {
    this.pages[page - 1] = { ...(this.pages[page - 1] as PageFacts), ...details };
    this.found[page] = details;
    this.ahead.add(page);
    this.goOn();
  }

  /** Whether all is known of a page, also of one that was looked at before its turn. */
  isKnown(page: number): boolean {
    const facts = this.pages[page - 1];
    return (
      page <= this.read || this.ahead.has(page) || facts?.smallestText !== undefined || facts?.content !== undefined
    );
  }

  private goOn(): void {
    while (this.read < this.pages.length && this.isKnown(this.read + 1)) this.read += 1;
  }

  /** Enters all that is known, and no more of it. */
  async end(): Promise<void> {
    clearInterval(this.timer);
    await this.entering;
    await this.enter();
  }

  /** Enters what is known, and that there will be no more. */
  async giveUp(): Promise<void> {
    await this.end();
    await this.update({ detailsRead: this.pages.length });
  }

  private async enter(): Promise<void> {
    const { found, read: detailsRead } = this;
    this.found = {};
    try {
      // Only what is new goes to the database, however many pages there are.
      if (Object.keys(found).length > 0) await this.update({ pages: merged(found), detailsRead });
      // Pages that were looked at before their turn may have been all that was left.
      else if (detailsRead > this.entered) await this.update({ detailsRead });
      this.entered = detailsRead;
    } catch (error) {
      this.found = { ...found, ...this.found };
      throw error;
    }
  }

  private update(change: Parameters<ReturnType<Database['update']>['set']>[0]): Promise<unknown> {
    return onceDatabaseAnswers(() => this.db.update(contents).set(change).where(eq(contents.id, this.content.id)));
  }
}

/** The pages as they are entered, and what was found of some of them. */
const merged = (found: Record<number, PageDetails>) => sql`(
  select jsonb_agg(page.value || coalesce(found.value, '{}'::jsonb) order by page.ordinality)
  from jsonb_array_elements(${contents.pages}) with ordinality as page
  left join jsonb_each(${JSON.stringify(found)}::jsonb) as found on found.key = page.ordinality::text)`;
