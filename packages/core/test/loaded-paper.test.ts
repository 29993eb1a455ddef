import { onLoadedPaper, plainTicket } from '../src';
import { readPrinter } from '../src/validate';
import { A4, documentOf, LETTER, OFFICE } from './jobs';

const PICTURE = { width: 512, height: 341 };
const printer = readPrinter(OFFICE);
const ticket = plainTicket(['a.png']);
const sizeFor = (documents: Parameters<typeof onLoadedPaper>[1], on = printer): string =>
  onLoadedPaper(ticket, documents, on).paper.size;

test('pictures are on what lies in the first tray', () => {
  expect(sizeFor([documentOf(1, PICTURE)])).toBe('iso_a4_210x297mm');
});

test('where a page has the size of a paper, loaded or not, a person says what stands in for it', () => {
  expect(sizeFor([documentOf(1, PICTURE), documentOf(1, A4)])).toBe('as-page');
  expect(sizeFor([documentOf(1, LETTER)])).toBe('as-page');
});

test('a size that a tray holds is that of a paper, known or not', () => {
  const own = readPrinter({ ...OFFICE, trays: [{ id: 'tray-1', name: 'Labels', size: 'custom_page_120.3x180.6mm' }] });
  expect(sizeFor([documentOf(1, PICTURE)], own)).toBe('as-page');
});

test('what was wished stays, and so does a ticket of nothing', () => {
  const wished = { ...ticket, paper: { ...ticket.paper, size: 'iso_a3_297x420mm' } };
  expect(onLoadedPaper(wished, [documentOf(1, PICTURE)], printer)).toBe(wished);
  expect(sizeFor([])).toBe('as-page');
});
