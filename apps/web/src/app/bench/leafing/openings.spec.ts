import { plan, type Plan, type Ticket, type TicketInput } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { openingsOf, sayShown, type Opening } from './openings';

const PRINTER = readPrinter({
  name: 'P',
  duplex: true,
  trays: ['tray-1', 'tray-2'].map((id) => ({ id, size: 'iso_a4_210x297mm' })),
});

function openings(pages: number, settings: Partial<TicketInput>): Opening[] {
  const ticket: Ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], tray: 'tray-1', ...settings });
  const sheets = Array.from({ length: pages }, () => ({ width: 595.276, height: 841.89 }));
  const made: Plan = plan(ticket, [{ name: 'a.pdf', pages: sheets }], PRINTER);
  return openingsOf(made, PRINTER, ticket.bind);
}

/** The page numbers of each opening; "-" a blank back, nothing where there is no paper. */
const read = (all: readonly Opening[]): string[] =>
  all.map(({ first, second }) =>
    [first, second]
      .map((shown) => (shown === 'none' ? '' : shown === null ? '-' : shown.cells.map(({ page }) => page).join('+')))
      .join('|'),
  );

test('two-sided sheets open like a book', () => {
  expect(read(openings(4, { sides: 'two-sided' }))).toEqual(['|1', '2|3', '4|']);
});

test('read from the right, the later page lies on the left', () => {
  expect(read(openings(4, { sides: 'two-sided', bind: 'right' }))).toEqual(['1|', '3|2', '|4']);
});

test('held at the top, the back turned up lies above the next front', () => {
  const all = openings(4, { sides: 'two-sided', bind: 'top' });
  expect(read(all)).toEqual(['|1', '2|3', '4|']);
  expect(all.every(({ upward }) => upward)).toBe(true);
});

test('the back of a sheet printed on one side is blank, among two-sided ones too', () => {
  expect(read(openings(2, {}))).toEqual(['|1', '-|2', '-|']);
  const routes = [{ pages: '1', sides: 'one-sided' as const, tray: 'tray-2' }];
  expect(read(openings(3, { sides: 'two-sided', routes }))).toEqual(['|1', '-|2', '3|']);
});

test('a booklet reads in order once it is folded', () => {
  const booklet = openings(8, { layout: { kind: 'booklet' }, copies: 5 });
  expect(read(booklet)).toEqual(['|1', '2|3', '4|5', '6|7', '8|']);
});

test('a page in words', () => {
  const [first, second] = openings(3, { sides: 'two-sided' });
  const name = (id: string | null): string => id ?? 'no tray';
  expect(sayShown(first!.second, name)).toBe('Sheet 1, front, tray-1: page 1');
  expect(sayShown(second!.first, name)).toBe('Sheet 1, back, tray-1: page 2');
  expect(sayShown(null, name)).toBe('Back, not printed');
});
