import { groupSheets, indexesOf, pagesOn, type CheckRule } from './context';
import { mapRoutes } from './repair';

/** The printer has no such output. */
export const outputBinUnknown: CheckRule = ({ plan, printer, ticket }) => {
  const lost = groupSheets(plan.sheets, ({ outputBin = null }) =>
    outputBin === null || printer.outputBins.includes(outputBin) ? null : outputBin,
  );
  const there = printer.outputBins.length > 0 ? `It has ${printer.outputBins.join(', ')}.` : 'One cannot choose there.';
  return [...lost].map(([bin, sheets]) => {
    const routes = mapRoutes(ticket, ({ outputBin }) => (outputBin === bin ? { outputBin: 'auto' } : {}));
    const patch = {
      ...(ticket.outputBin === bin ? { outputBin: 'auto' } : {}),
      ...(routes.length > 0 ? { routes } : {}),
    };
    return {
      code: 'output-bin-unknown',
      level: 'stop',
      message: `${printer.name} has no output "${bin}". ${there}`,
      sheets: indexesOf(sheets),
      pages: pagesOn(sheets),
      repair: { label: 'Leave the output to the printer', patch },
    };
  });
};
