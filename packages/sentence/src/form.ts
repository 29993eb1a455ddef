import { saySize, type Form, type LaidOut } from '@foglio/core';
import type { Aspect } from './aspect';
import { valueAt } from './field';
import { FITS, formNow } from './form-questions';
import type { Situation } from './situation';

/** How a document without pages of its own is laid out. */

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

const sayCount = (count: number): string => NUMBERS[count] ?? String(count);

/** "three sheets", "the sheet “Costs”"; null where the workbook has but one. */
function saySheets({ sheets = [] }: Form, { sheets: all = [] }: LaidOut): string | null {
  if (all.length < 2) return null;
  return sheets.length === 1 ? `the sheet “${sheets[0]}”` : `${sayCount(sheets.length)} sheets`;
}

const STYLES: Readonly<Record<NonNullable<Form['style']>, string>> = {
  print: 'a web page as it is',
  screen: 'a web page as on a screen',
  reading: 'the article alone',
};

function sayParts(form: Form, laid: LaidOut): (string | null)[] {
  const { fit, typeSize, columns = 1, orientation, header } = form;
  const asked = laid.form;
  switch (laid.kind) {
    case 'workbook':
      return [saySheets(form, laid), fit ? FITS[fit] : 'sized as the file says', sayPaper(form, asked)];
    case 'csv':
      return [
        `a table ${header ? 'with' : 'without'} a header`,
        fit === 'page' ? 'all on one page' : fit ? FITS[fit] : null,
        sayPaper(form, asked),
      ];
    case 'web-page':
      return [
        STYLES[form.style ?? 'print'],
        form.pictures === false ? 'without pictures' : null,
        form.links ? 'with its links as notes' : null,
        form.style === 'reading' ? null : `${form.backgrounds ? 'with' : 'without'} backgrounds`,
        form.style === 'reading' ? `in ${typeSize} pt` : null,
        orientation === 'landscape' ? 'sideways' : null,
        sayPaper(form, asked),
      ];
    case 'markdown':
      return [`text of ${typeSize} pt`, orientation === 'landscape' ? 'sideways' : null, sayPaper(form, asked)];
    case 'mail':
      return [
        'the message of a mail',
        form.pictures === false ? 'without pictures' : null,
        orientation === 'landscape' ? 'sideways' : null,
        sayPaper(form, asked),
      ];
    case 'word-processing':
      return [
        form.changes ? 'a text with its changes marked' : 'a text in its final form',
        form.comments ? 'with its comments' : null,
        asked.orientation ? `laid out ${asked.orientation === 'landscape' ? 'sideways' : 'upright'}` : null,
        sayPaper(form, asked),
      ];
    case 'text':
      return [
        `text of ${typeSize} pt`,
        columns > 1 ? `in ${sayCount(columns)} columns` : null,
        orientation === 'landscape' ? 'sideways' : null,
        sayPaper(form, asked),
      ];
  }
}

/** Only what is asked for: on what paper it comes is said of the job. */
const sayPaper = ({ paper }: Form, asked: Form): string | null =>
  paper !== undefined && asked.paper !== undefined ? `laid out for ${saySize(paper)}` : null;

/** Of any file it is said as far as it is asked for. */
function sayOfAny({ fit, sheets, style, typeSize, columns, orientation }: Form): string | null {
  const said = [
    sheets ? `the ${sheets.length === 1 ? 'sheet' : 'sheets'} ${sheets.map((name) => `“${name}”`).join(', ')}` : null,
    fit ? FITS[fit] : null,
    style ? STYLES[style] : null,
    typeSize ? `text of ${typeSize} pt` : null,
    columns && columns > 1 ? `in ${sayCount(columns)} columns` : null,
    orientation ? `laid out ${orientation === 'landscape' ? 'sideways' : 'upright'}` : null,
  ].filter((one) => one !== null);
  return said.length > 0 ? said.join(', ') : null;
}

function sayForm(situation: Situation): string | null {
  const { documents, at } = situation;
  const asked = valueAt(situation, 'documents.form') ?? {};
  if (documents.length === 0) return sayOfAny(asked);
  const laid = documents[at]?.laid;
  if (!laid) return null;
  return sayParts(formNow(situation, laid), { ...laid, form: asked })
    .filter((one) => one !== null)
    .join(', ');
}

export const form: Aspect = {
  name: 'form',
  title: 'How it is laid out',
  offer: null,
  lead: ', ',
  say: sayForm,
  fields: ['documents.form'],
  // What came by mail with pages of its own was not laid out.
  fits: ({ documents, at }) => {
    const laid = documents[at]?.laid;
    return laid !== undefined && !(laid.kind === 'mail' && laid.form.attachment !== undefined);
  },
};
