import { formFor, KNOWN_SIZES, saySize, type Form, type FormKind, type LaidOut, type Ticket } from '@foglio/core';
import { valueAt, patchOf } from './field';
import type { Situation } from './situation';

type Part = keyof Form;

/** One thing that can be asked of how a document is laid out, as a form asks it. */
export type FormQuestion = { readonly part: Part; readonly label: string } & (
  | { readonly kind: 'choice'; readonly choices: readonly (readonly [value: string, label: string])[] }
  | { readonly kind: 'yes-no' }
  | {
      readonly kind: 'number';
      readonly unit: string;
      readonly least: number;
      readonly most: number;
      readonly step: number;
    }
  | { readonly kind: 'sheets' }
);

const paper: FormQuestion = {
  part: 'paper',
  label: 'Pages of',
  kind: 'choice',
  choices: KNOWN_SIZES.map(({ name }) => [name, saySize(name)]),
};

const orientation: FormQuestion = {
  part: 'orientation',
  label: 'Which way',
  kind: 'choice',
  choices: [
    ['portrait', 'Upright'],
    ['landscape', 'Sideways'],
  ],
};

export const FITS: Readonly<Record<NonNullable<Form['fit']>, string>> = {
  actual: 'at its own size',
  width: 'all columns on one page',
  page: 'each sheet on one page',
  readable: 'as large as can be read',
};

const fit: FormQuestion = {
  part: 'fit',
  label: 'How large',
  kind: 'choice',
  choices: [
    ['actual', 'At its own size'],
    ['width', 'All columns on one page'],
    ['page', 'All of a sheet on one page'],
    ['readable', 'On the fewest pages with text of 7 pt or more'],
  ],
};

const gridLines: FormQuestion = { part: 'gridLines', label: 'Lines between all cells', kind: 'yes-no' };
const headings: FormQuestion = { part: 'headings', label: 'Letters of columns and numbers of rows', kind: 'yes-no' };

const typeSize: FormQuestion = {
  part: 'typeSize',
  label: 'Type size',
  kind: 'number',
  unit: 'pt',
  least: 5,
  most: 24,
  step: 1,
};

const encoding: FormQuestion = {
  part: 'encoding',
  label: 'Letters written as',
  kind: 'choice',
  choices: [
    ['utf-8', 'UTF-8'],
    ['windows-1252', 'Windows, western Europe'],
    ['windows-1251', 'Windows, Cyrillic'],
    ['iso-8859-15', 'ISO 8859-15, western Europe'],
    ['macintosh', 'Macintosh, western Europe'],
    ['utf-16le', 'UTF-16, low byte first'],
    ['utf-16be', 'UTF-16, high byte first'],
  ],
};

/** What can be asked of each kind of document, in the order in which one would ask. */
export const FORM_QUESTIONS: Readonly<Record<FormKind, readonly FormQuestion[]>> = {
  workbook: [
    { part: 'sheets', label: 'Sheets', kind: 'sheets' },
    fit,
    orientation,
    paper,
    gridLines,
    headings,
    { part: 'wholeSheet', label: 'All of each sheet, whatever print area it has', kind: 'yes-no' },
    { part: 'hidden', label: 'Hidden rows and columns too', kind: 'yes-no' },
  ],
  csv: [
    fit,
    orientation,
    paper,
    {
      part: 'delimiter',
      label: 'Between the fields',
      kind: 'choice',
      choices: [
        [',', 'A comma'],
        [';', 'A semicolon'],
        ['\t', 'A tab'],
        ['|', 'A vertical bar'],
      ],
    },
    encoding,
    { part: 'header', label: 'The first line heads the columns, on every page', kind: 'yes-no' },
    gridLines,
    headings,
  ],
  'web-page': [
    {
      part: 'style',
      label: 'Printed',
      kind: 'choice',
      choices: [
        ['print', 'As it is, for paper'],
        ['screen', 'As it is on a screen'],
        ['reading', 'The article alone, to be read'],
      ],
    },
    { part: 'pictures', label: 'Pictures', kind: 'yes-no' },
    { part: 'links', label: 'Where its links lead, as notes at the end', kind: 'yes-no' },
    { part: 'backgrounds', label: 'Backgrounds', kind: 'yes-no' },
    typeSize,
    orientation,
    paper,
  ],
  markdown: [typeSize, orientation, paper],
  'word-processing': [
    { part: 'changes', label: 'Tracked changes marked, not as if taken over', kind: 'yes-no' },
    { part: 'comments', label: 'Comments, at the end', kind: 'yes-no' },
    orientation,
    paper,
  ],
  mail: [
    { part: 'pictures', label: 'Pictures', kind: 'yes-no' },
    { part: 'backgrounds', label: 'Backgrounds', kind: 'yes-no' },
    typeSize,
    orientation,
    paper,
  ],
  text: [
    typeSize,
    { part: 'columns', label: 'Columns', kind: 'number', unit: 'on a page', least: 1, most: 4, step: 1 },
    orientation,
    paper,
    encoding,
  ],
};

/** How the document in question is laid out, or will be: what is asked for, and all else as it was taken. */
export function formNow(situation: Situation, laid: LaidOut): Form {
  return { ...laid.taken, ...formFor(laid.kind, valueAt(situation, 'documents.form') ?? {}) };
}

/** The change that asks something of how the document in question is laid out; undefined: as the document itself has it. */
export function patchForm(situation: Situation, part: Part, value: Form[Part]): Partial<Ticket> {
  const { [part]: _, ...others } = valueAt(situation, 'documents.form') ?? {};
  return patchOf(situation, 'documents.form', value === undefined ? others : { ...others, [part]: value });
}
