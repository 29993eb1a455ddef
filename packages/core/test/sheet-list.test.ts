import { plan, readSizeName, sheetList, SHEET_LIST_HEAD } from '../src';
import { readPrinter, readTicket } from '../src/validate';

const A4 = readSizeName('iso_a4_210x297mm')!;
const printer = readPrinter({
  name: 'Office',
  trays: [
    { id: 'tray-1', name: 'Tray 1', size: 'iso_a4_210x297mm', loaded: 500 },
    { id: 'tray-2', size: 'iso_a4_210x297mm', type: 'stationery-letterhead', loaded: 500 },
  ],
});
const facts = (name: string, count: number) => ({ name, pages: Array.from({ length: count }, () => A4) });

const listOf = (settings: object, ...counts: number[]): string[][] => {
  const documents = counts.map((count, index) => facts(`d${index + 1}.pdf`, count));
  const ticket = readTicket({ version: 1, documents: documents.map(({ name }) => ({ file: name })), ...settings });
  return sheetList(plan(ticket, documents, printer), documents, printer);
};

test('a row a sheet: tray, paper, what is on either side and how large', () => {
  const rows = listOf(
    {
      sides: 'two-sided',
      tray: 'tray-1',
      layout: { kind: 'grid', pagesPerSide: 2 },
      routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided', layout: { kind: 'grid', pagesPerSide: 1 } }],
    },
    6,
  );
  const sides = 'two-sided, turned along the short edge';
  expect(rows).toEqual([
    ['1', 'tray-2', 'A4', 'stationery-letterhead', 'portrait', 'one-sided', '1', '', '100'],
    ['2', 'Tray 1', 'A4', '', 'landscape', sides, '2, 3', '4, 5', '71'],
    ['3', 'Tray 1', 'A4', '', 'landscape', sides, '6', '', '71'],
  ]);
  rows.forEach((row) => expect(row).toHaveLength(SHEET_LIST_HEAD.length));
});

test('of several documents each is named; a slip says that it is one', () => {
  const rows = listOf({ tray: 'tray-1', slips: { between: 'documents' } }, 1, 1);
  expect(rows.map(([index, , , , , , front]) => [index, front])).toEqual([
    ['1', 'd1.pdf 1'],
    ['2', 'blank slip'],
    ['3', 'd2.pdf 1'],
  ]);
});
