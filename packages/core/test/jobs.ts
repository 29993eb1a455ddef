import {
  plan,
  type DocumentFacts,
  type Heading,
  type PageFacts,
  type Plan,
  type PrinterInput,
  type TicketInput,
} from '../src';
import { readPrinter, readTicket } from '../src/validate';

/** ISO 216 A4 and A3, US Letter, in points. */
export const A4 = { width: 595.276, height: 841.89 };
export const A3 = { width: 841.89, height: 1190.551 };
export const LETTER = { width: 612, height: 792 };

export const turned = ({ width, height }: { width: number; height: number }) => ({ width: height, height: width });

/** A document of so many pages of one size. */
export const documentOf = (count: number, size = A4, name = 'manual.pdf'): DocumentFacts => ({
  name,
  pages: Array.from({ length: count }, () => size),
});

export const OFFICE: PrinterInput = {
  name: 'Upper office',
  trays: [
    {
      id: 'tray-1',
      name: 'Tray 1',
      size: 'iso_a4_210x297mm',
      type: 'stationery',
      weight: 80,
      loaded: 500,
      price: 0.01,
    },
    { id: 'tray-2', name: 'Tray 2', size: 'iso_a4_210x297mm', type: 'stationery-letterhead', weight: 90, loaded: 220 },
    { id: 'tray-3', name: 'Tray 3', size: 'iso_a4_210x297mm', weight: 120, loaded: 40 },
    { id: 'tray-4', name: 'Tray 4', size: 'iso_a3_297x420mm', weight: 80, loaded: 250 },
  ],
  prices: { mono: 0.01, color: 0.05 },
  sidesPerMinute: 30,
  twoSidedFactor: 0.5,
  jobs: { overrides: ['media-col', 'sides'] },
};

/** What a test says of a ticket; `pages` is every document's selection. */
export type Settings = Omit<TicketInput, 'version' | 'documents'> & { pages?: string };

/** The plan of a ticket over these documents; documents of the ticket beyond their pages may be left out. */
export function planOf(ticket: Settings, documents: readonly DocumentFacts[], printer: PrinterInput = OFFICE): Plan {
  const { pages, ...rest } = ticket;
  const entries = documents.map(({ name }) => ({ file: name, ...(pages === undefined ? {} : { pages }) }));
  return plan(readTicket({ version: 1, documents: entries, ...rest }), documents, readPrinter(printer));
}

/** Each sheet as "tray: front | back", where a blank side is "-" and a side not printed is nothing. */
export const outline = ({ sheets }: Plan): string[] =>
  sheets.map(({ tray, front, back }) => {
    const say = (cells: typeof front.cells): string => cells.map(({ page }) => page).join(' ') || '-';
    return `${tray}: ${say(front.cells)}${back ? ` | ${say(back.cells)}` : ''}`;
  });

/** A document whose pages are as many as the facts given, A4 unless they say otherwise. */
export const documentWith = (
  pages: readonly Partial<PageFacts>[],
  outline: readonly Heading[] = [],
): DocumentFacts => ({
  name: 'manual.pdf',
  pages: pages.map((facts) => ({ ...A4, ...facts })),
  outline,
});

/** The season contract's routing: 1 and 6 from tray 2, 9 from tray 3, both on one side. */
export const CONTRACT: Settings & { pages: string } = {
  pages: '1-14',
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [
    { pages: '1, 6', tray: 'tray-2', sides: 'one-sided' },
    { pages: '9', tray: 'tray-3', sides: 'one-sided' },
  ],
};
