import { stringify } from 'csv-stringify/sync';
import type { Response } from 'express';

/** What no file system takes in a name, and what is not seen (common practice). */
const NOT_IN_NAMES = /[\\/:*?"<>|\p{Cc}]/gu;

/** The answer is saved under a name of the person's choice (RFC 6266, 4.3). @param kind as a name ends: ".pdf" */
export function saveAs(response: Response, name: string, kind: string): void {
  const bare = name.toLowerCase().endsWith(kind) ? name.slice(0, -kind.length) : name;
  const file = encodeURIComponent(`${bare.replace(NOT_IN_NAMES, ' ').trim() || 'job'}${kind}`);
  response.set('Content-Disposition', `attachment; filename*=UTF-8''${file}`).type(kind);
}

/** RFC 4180 with a mark that it is UTF-8, without which spreadsheets misread accents; no cell is taken for a formula. */
export const writeCsv = (rows: readonly (readonly (string | number)[])[]): string =>
  stringify([...rows], { bom: true, record_delimiter: 'windows', escape_formulas: true });
