import { pagesInColor } from './colored-pages';
import type { CheckRule } from './context';
import { mapRoutes } from './repair';
import { countOf } from './words';

/** Pages with colour on a printer without it. */
export const colorOnMono: CheckRule = (context) => {
  const { printer, ticket } = context;
  if (printer.color) return [];
  const pages = pagesInColor(context, (facts) => facts.color === true && facts.looksGray !== true);
  if (pages.length === 0) return [];
  const holds = pages.length === 1 ? 'holds' : 'hold';
  const message = `${countOf(pages.length, 'page')} ${holds} colour; ${printer.name} prints in grey.`;
  const routes = mapRoutes(ticket, ({ color }) => (color ? { color: 'monochrome' } : {}));
  const patch = { color: 'monochrome', ...(routes.length > 0 ? { routes } : {}) } as const;
  return [
    { code: 'color-on-mono', level: 'note', message, sheets: [], pages, repair: { label: 'Print in grey', patch } },
  ];
};
