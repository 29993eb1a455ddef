import type { Printer } from './printer';

/** In which sheets are sent: as they are, or as pictures of their sides (PWG 5102.4), or of one side alone (ITU-T T.81). */
export type Format = 'application/pdf' | 'image/pwg-raster' | 'image/jpeg';

/** The format a printer is sent; PDF where it does not say; null where it takes none (RFC 8011, 5.4.22). */
export function formatFor({ jobs: { formats, raster } }: Pick<Printer, 'jobs'>): Format | null {
  if (formats.length === 0 || formats.includes('application/pdf')) return 'application/pdf';
  if (raster && formats.includes('image/pwg-raster')) return 'image/pwg-raster';
  return formats.includes('image/jpeg') ? 'image/jpeg' : null;
}

/** Whether a document is one side and no more. */
export const takesOneSide = (printer: Pick<Printer, 'jobs'>): boolean => formatFor(printer) === 'image/jpeg';
