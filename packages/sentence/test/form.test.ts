import { plainTicket, type Form, type LaidOut } from '@foglio/core';
import { readPrinter } from '@foglio/core/validate';
import { FORM_QUESTIONS, patchForm, sentence, type Situation } from '../src';

const printer = readPrinter({ name: 'Upper office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
const house = plainTicket(['*']);

function situation(laid: LaidOut | undefined, form: Form): Situation {
  const ticket = plainTicket(['budget.xlsx']);
  const documents = [{ name: 'budget.xlsx', pages: [{ width: 595, height: 842 }], ...(laid ? { laid } : {}) }];
  return { ticket: { ...ticket, documents: [{ ...ticket.documents[0]!, form }] }, documents, printer, at: 0, house };
}

const say = (laid: LaidOut | undefined, form: Form = {}) =>
  sentence(situation(laid, form)).find(({ control }) => control === 'form');

const book: LaidOut = {
  kind: 'workbook',
  form: {},
  taken: { sheets: ['A', 'B', 'C'], fit: 'actual', orientation: 'portrait' },
  sheets: ['A', 'B', 'C', 'D'].map((name) => ({ name, hidden: name === 'D' })),
};
const laidAs = (kind: LaidOut['kind'], taken: Form): LaidOut => ({ kind, form: {}, taken });

test.each<[LaidOut, Form, string, boolean]>([
  [book, {}, 'three sheets, at its own size', false],
  [book, { sheets: ['B'], fit: 'width' }, 'the sheet “B”, all columns on one page', true],
  [{ ...book, sheets: [book.sheets![0]!] }, { fit: 'readable' }, 'as large as can be read', true],
  [{ ...book, taken: { sheets: ['A', 'B', 'C'] } }, {}, 'three sheets, sized as the file says', false],
  [laidAs('csv', { header: true, fit: 'width' }), {}, 'a table with a header, all columns on one page', false],
  [laidAs('csv', { fit: 'width' }), { header: false, fit: 'page' }, 'a table without a header, all on one page', true],
  [laidAs('text', { typeSize: 10, columns: 1 }), {}, 'text of 10 pt', false],
  [
    laidAs('text', { typeSize: 10 }),
    { columns: 2, orientation: 'landscape' },
    'text of 10 pt, in two columns, sideways',
    true,
  ],
  [laidAs('markdown', { typeSize: 11 }), { paper: 'iso_a5_148x210mm' }, 'text of 11 pt, laid out for A5', true],
  [laidAs('web-page', { style: 'print', backgrounds: false }), {}, 'a web page as it is, without backgrounds', false],
  [
    laidAs('web-page', { typeSize: 11, links: false }),
    { style: 'reading', links: true, pictures: false },
    'the article alone, without pictures, with its links as notes, in 11 pt',
    true,
  ],
])('%#: %s', (laid, form, said, strong) => {
  expect(say(laid, form)).toMatchObject({ text: said, strong });
});

test('of what has pages of its own nothing is said', () => {
  expect(say(undefined, { fit: 'width' })).toBeUndefined();
});

test('of any file it is said as far as it is asked for', () => {
  const setup = { ...situation(undefined, { sheets: ['Costs'], fit: 'width' }), documents: [] };
  expect(sentence(setup).find(({ control }) => control === 'form')?.text).toBe(
    'the sheet “Costs”, all columns on one page',
  );
  expect(sentence({ ...setup, ticket: house }).find(({ control }) => control === 'form')).toBeUndefined();
});

test('every part of a form is asked for by some kind, and an answer is taken back by leaving it out', () => {
  const asked = new Set(Object.values(FORM_QUESTIONS).flatMap((questions) => questions.map(({ part }) => part)));
  expect(asked.size).toBe(19);
  const now = situation(book, { fit: 'width', gridLines: true });
  expect(patchForm(now, 'fit', undefined).documents?.[0]?.form).toEqual({ gridLines: true });
  expect(patchForm(now, 'fit', 'page').documents?.[0]?.form).toEqual({ gridLines: true, fit: 'page' });
});
