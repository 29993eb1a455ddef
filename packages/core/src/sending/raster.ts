import type { Format } from '../printer/formats';
import type { Printer } from '../printer/printer';
import { isMonochrome, type Ticket } from '../ticket/ticket';

/** How pictures of sides are drawn. */
export interface Raster extends NonNullable<Printer['jobs']['raster']> {
  readonly format: Exclude<Format, 'application/pdf'>;
}

/** Fine enough to read what is on a side, in dots an inch (common practice), where a printer does not say. */
const USUAL = { dpi: 300, inColor: true, sheetBack: 'normal' } as const;

/** How pictures of a job's sides are drawn for a printer; null where it is sent the sides themselves. */
export function rasterFor(format: Format, ticket: Ticket, { color, jobs }: Printer): Raster | null {
  if (format === 'application/pdf') return null;
  const how = format === 'image/pwg-raster' ? (jobs.raster ?? USUAL) : { ...USUAL, inColor: color };
  return { ...how, format, inColor: how.inColor && !isMonochrome(ticket) };
}
