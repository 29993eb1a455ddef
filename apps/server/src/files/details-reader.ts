import type { PageFacts } from '@foglio/core';
import { inScratchFolder, withNavigation } from '@foglio/pdf';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { onceDatabaseAnswers } from '../database/outage';
import { messageOf } from '../database/query-error';
import { contents } from '../database/schema';
import { WorkersClosed, type DetailsListener, type PdfWorkers, type WorkerLimits } from '../pdf/pdf-workers';
import { fileContent } from './content-store';

/** Time between two entries of what was found, in milliseconds. */
const ENTER_MS = 500;

/**
 * Reads what of a document is not known yet, labels and outline before the details of pages in their order, and enters it
 * as it comes, so that the first pages are known while the last are still being read. A file that cannot be read, or takes
 * too much, is given up for good: its pages are then printed without these facts. One that is ended with the server goes on at the next start.
 */
export async function readContentDetails(
  db: Database,
  id: string,
  workers: Pick<PdfWorkers, 'readDetails'>,
  limits?: WorkerLimits,
): Promise<void> {
  const content = await onceDatabaseAnswers(() => db.query.contents.findFirst({ where: eq(contents.id, id) }));
  if (!content || content.detailsRead >= content.pages.length) return;
  let pages: PageFacts[] = [...content.pages];
  let outline = content.outline;
  let read = content.detailsRead;
  let entered = read;
  let isNavigationNew = false;
  const enter = async (known: number): Promise<void> => {
    entered = known;
    isNavigationNew = false;
    await onceDatabaseAnswers(() =>
      db.update(contents).set({ pages, outline, detailsRead: known }).where(eq(contents.id, id)),
    );
  };
  const complain = (error: unknown): void =>
    console.error(`details of content ${id}, from page ${read + 1}: ${messageOf(error)}`);
  const wanted = pages.map((_, index) => index + 1).slice(read);
  let settled = pages.length;
  let entering = Promise.resolve();
  const timer = setInterval(() => {
    // An entry that fails is made good by the next one; unheard, it would end the server.
    if (read > entered || isNavigationNew) entering = entering.then(() => enter(read)).catch(complain);
  }, ENTER_MS);
  try {
    const hear: DetailsListener = {
      page: (page, details) => {
        pages[page - 1] = { ...(pages[page - 1] as PageFacts), ...details };
        read = page;
      },
      ...(outline
        ? {}
        : {
            navigation: (found) => {
              ({ pages, outline } = withNavigation({ pages }, found));
              isNavigationNew = true;
            },
          }),
    };
    await inScratchFolder(async (path) => {
      await onceDatabaseAnswers(() => fileContent(db, id, path('content.pdf')));
      await workers.readDetails(path('content.pdf'), wanted, hear, limits);
    });
  } catch (error) {
    if (error instanceof WorkersClosed) settled = read;
    else complain(error);
  } finally {
    clearInterval(timer);
    await entering;
    if (outline) await enter(settled);
    else if (settled > 0) await giveUp(db, id, settled);
  }
}

/** Nothing was read: what taking in may have entered of labels and outline meanwhile stays, and there will be no more. */
const giveUp = (db: Database, id: string, settled: number): Promise<unknown> =>
  onceDatabaseAnswers(() =>
    db
      .update(contents)
      .set({ detailsRead: settled, outline: sql`coalesce(${contents.outline}, '[]'::jsonb)` })
      .where(eq(contents.id, id)),
  );
