import type { PageName } from '@foglio/core';
import type { Shipment } from './shipment';

/** What stands on a page of one of the files that are sent; nothing on one that is left blank. */
export interface PageSent {
  /** Which of the shipment's jobs, which document of it and which page of that; all counted from 1. */
  readonly job: number;
  readonly document: number;
  readonly page: number;
  readonly cells: readonly PageName[];
}

/** The pages of all files of a shipment, as `impose` writes them with blanks "none": a page for each side that is printed. */
export function pagesSent({ jobs }: Shipment): PageSent[] {
  return jobs.flatMap(({ documents }, job) =>
    documents.flatMap(({ sheets }, document) =>
      sheets
        .flatMap(({ front, back }) => (back ? [front, back] : [front]))
        .map(({ cells }, page) => ({
          job: job + 1,
          document: document + 1,
          page: page + 1,
          cells: cells.map((cell) => ({ document: cell.document, page: cell.page })),
        })),
    ),
  );
}
