import {
  isMarked,
  marksOfSheets,
  MarksError,
  minusMarks,
  parseMarks,
  plusMarks,
  writeMarks,
  writeTerms,
  type MarkedSheet,
  type Marks,
} from '@foglio/core';
import type { SheetsRecord } from '@foglio/api';

/** What a person marked to be printed again, and the line that says so, which may not be read yet. */
export interface SheetMarks {
  readonly marks: Marks;
  readonly text: string;
  /** Why the line cannot be read. */
  readonly trouble: string | null;
  /** The sheet that was marked last, from which Shift marks a stretch. */
  readonly from: MarkedSheet | null;
}

export const NOTHING_MARKED: SheetMarks = { marks: [], text: '', trouble: null, from: null };

export const markedAs = (marks: Marks, from: MarkedSheet | null = null): SheetMarks => ({
  marks,
  text: writeMarks(marks),
  trouble: null,
  from,
});

/** With a line that was written; while it cannot be read, what was marked before stays. */
export function written(before: SheetMarks, text: string, { sets, sheets }: SheetsRecord): SheetMarks {
  if (text.trim() === '') return { ...NOTHING_MARKED, text };
  try {
    return { marks: parseMarks(text, { sets, sheets: sheets.length }), text, trouble: null, from: null };
  } catch (error) {
    if (error instanceof MarksError) return { ...before, text, trouble: error.message };
    throw error;
  }
}

/** With a sheet marked, or not any more; with Shift the stretch from the one that was marked last, over the ends of sets. */
export function pressed(
  { marks, from }: SheetMarks,
  sheet: MarkedSheet,
  isStretch: boolean,
  { sheets }: Pick<SheetsRecord, 'sheets'>,
): SheetMarks {
  if (isStretch && from) {
    const placeOf = (one: MarkedSheet): number => (one.set - 1) * sheets.length + one.sheet - 1;
    const [first, last] = [placeOf(from), placeOf(sheet)].sort((a, b) => a - b) as [number, number];
    const stretch = Array.from({ length: last - first + 1 }, (_, index) => ({
      set: Math.floor((first + index) / sheets.length) + 1,
      sheet: ((first + index) % sheets.length) + 1,
    }));
    return markedAs(plusMarks(marks, marksOfSheets(stretch)), sheet);
  }
  const one = marksOfSheets([sheet]);
  return markedAs(isMarked(marks, sheet) ? minusMarks(marks, one) : plusMarks(marks, one), sheet);
}

/** The pages on marked sheets: "pages 10 to 13"; of several documents with their names. Empty where there is none. */
export function sayPages(marks: Marks, { sheets, documents }: Pick<SheetsRecord, 'sheets' | 'documents'>): string {
  const ranges = marks.flatMap((mark) => mark.sheets);
  const names = sheets
    .filter((_, place) => ranges.some(([first, last]) => place + 1 >= first && place + 1 <= last))
    .flatMap(({ front, back }) => [...front, ...(back ?? [])]);
  const said = documents.flatMap((name, index) => {
    const pages = [...new Set(names.filter(({ document }) => document === index + 1).map(({ page }) => page))];
    if (pages.length === 0) return [];
    const written = writeTerms(pages, Infinity).replaceAll('-', ' to ');
    return [`${pages.length === 1 ? 'page' : 'pages'} ${written}${documents.length > 1 ? ` of ${name}` : ''}`];
  });
  return said.join(', ');
}
