import { formatFor } from '../printer/formats';
import type { CheckRule } from './context';

/** The printer takes no kind of file that can be made of the sheets. */
export const formatUnknown: CheckRule = ({ printer }) => {
  if (formatFor(printer) !== null) return [];
  const message = `${printer.name} takes neither PDF nor pictures of pages (PWG Raster), so nothing can be sent to it: write the sheets as a PDF, or choose another printer.`;
  return [{ code: 'format-unknown', level: 'stop', message, sheets: [], pages: [] }];
};
