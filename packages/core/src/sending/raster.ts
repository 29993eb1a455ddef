import type { Format } from '../printer/formats';
import type { Printer } from '../printer/printer';
import { isMonochrome, type Ticket } from '../ticket/ticket';

/** How pictures of a job's sides are drawn for a printer; null where it is sent the sides themselves. */
export function rasterFor(format: Format, ticket: Ticket, { jobs: { raster } }: Printer): Printer['jobs']['raster'] {
  if (format !== 'image/pwg-raster' || !raster) return null;
  return { ...raster, inColor: raster.inColor && !isMonochrome(ticket) };
}
