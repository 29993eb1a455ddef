import type { Printer } from './printer';

/**
 * Whether a printer may be told of an attribute of a job (RFC 8011, 5.2), with this value where one is given. Of a printer
 * that does not say what it takes, everything is held to be taken.
 *
 * @param value a keyword, or an enum's number as text; of media-col the name of a member (PWG 5100.3, media-col-supported)
 */
export function takes({ jobs }: Pick<Printer, 'jobs'>, attribute: string, value?: string): boolean {
  if (!jobs.takes) return true;
  const values = jobs.takes[attribute];
  if (!values) return false;
  return value === undefined || values.length === 0 || values.includes(value);
}

/** Whether it may be told from which tray paper is to come; otherwise it chooses by the size of a page. */
export const takesTrays = (printer: Pick<Printer, 'jobs'>): boolean => takes(printer, 'media-col', 'media-source');
