import type { Printer } from './printer';

/** In which sheets are sent: as they are, or as pictures of their sides (PWG 5102.4). */
export type Format = 'application/pdf' | 'image/pwg-raster';

/** The format a printer is sent; PDF where it does not say; null where it takes none (RFC 8011, 5.4.22). */
export function formatFor({ jobs: { formats, raster } }: Pick<Printer, 'jobs'>): Format | null {
  if (formats.length === 0 || formats.includes('application/pdf')) return 'application/pdf';
  return raster && formats.includes('image/pwg-raster') ? 'image/pwg-raster' : null;
}
