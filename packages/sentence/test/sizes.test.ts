import type { Printer } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { sentence } from '../src/sentence';

/** How large the pages come out, as the sentence says it. */

const PRINTER: Printer = readPrinter({ name: 'Upper office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const HOUSE = readTicket({ version: 1, documents: [{ file: '*' }] });
const A6 = [{ name: 'cards.pdf', pages: Array.from({ length: 8 }, () => ({ width: 297.64, height: 419.53 })) }];

// Half of A4 is A5, and half of that A6 (ISO 216); what is free of print at the edges is taken from all of them.
test.each<[string, object, Partial<Printer>, string | null]>([
  [
    'four A6 on an A4, to its edges',
    { layout: { kind: 'grid', pagesPerSide: 4 }, paper: { size: 'iso_a4_210x297mm' } },
    {},
    null,
  ],
  [
    'the same where 4 mm stay free of print',
    { layout: { kind: 'grid', pagesPerSide: 4 }, paper: { size: 'iso_a4_210x297mm' } },
    { margin: 4 },
    'made smaller only where needed (96 %)',
  ],
  [
    'a cut so small that no whole percent tells it',
    { layout: { kind: 'grid', pagesPerSide: 4 }, paper: { size: 'iso_a4_210x297mm' } },
    { margin: 0.5 },
    'made smaller only where needed (99.5 %)',
  ],
  [
    'another size by route',
    { paper: { size: 'iso_a6_105x148mm' }, routes: [{ pages: '8', paper: { size: 'iso_a7_74x105mm' } }] },
    {},
    'on A7 (70 %); all else',
  ],
  [
    'a percentage by route, said already',
    { paper: { size: 'iso_a6_105x148mm' }, routes: [{ pages: '8', scale: { mode: 'percent', percent: 70 } }] },
    {},
    null,
  ],
])('%s: how large the pages come out', (_, settings, printer, expected) => {
  const ticket = readTicket({ version: 1, title: 'Cards', documents: [{ file: 'cards.pdf' }], ...settings });
  const said = sentence({ ticket, documents: A6, printer: { ...PRINTER, ...printer }, at: 0, house: HOUSE })
    .map(({ text }) => text)
    .join('');
  if (expected === null) expect(said).not.toContain('(');
  else expect(said).toContain(expected);
});
