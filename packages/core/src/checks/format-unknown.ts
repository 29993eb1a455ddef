import { formatFor, takesOneSide } from '../printer/formats';
import { indexesOf, pagesOn, type CheckRule } from './context';
import { oneSidedThroughout, withRepair } from './repair';

/** The printer takes no kind of file that can be made of the sheets. */
export const formatUnknown: CheckRule = (context) => {
  const { printer, plan } = context;
  if (formatFor(printer) === null) {
    const message =
      `${printer.name} takes neither PDF nor pictures of pages (PWG Raster, JPEG), so nothing can be sent to it: ` +
      'write the sheets as a PDF, or choose another printer.';
    return [{ code: 'format-unknown', level: 'stop', message, sheets: [], pages: [] }];
  }
  const both = plan.sheets.filter(({ back }) => back !== null);
  if (!takesOneSide(printer) || both.length === 0 || plan.passes) return [];
  const message = `${printer.name} takes pictures of one side alone (JPEG), so it cannot be sent both sides of a sheet.`;
  const stop = {
    code: 'format-unknown',
    level: 'stop',
    message,
    sheets: indexesOf(both),
    pages: pagesOn(both),
  } as const;
  return [withRepair(stop, oneSidedThroughout(context))];
};
