import { PDFName, PDFNumber, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import type { OpenPdf } from './open';
import { dictOf, nameOf, numberOf, textOf } from './pdf-object';
import { treePairs } from './tree-pairs';

/** How the pages from one on are labelled (ISO 32000-1, table 159). */
interface LabelRange {
  /** Of the first of them, from 0. */
  readonly page: number;
  readonly style: string | null;
  readonly prefix: string;
  readonly start: number;
}

/** The label of each page (ISO 32000-1, 12.4.2); null where the document labels none. @param count of its pages */
export function pageLabels({ catalog, context }: OpenPdf, count: number): string[] | null {
  const ranges = rangesOf(catalog.get(PDFName.of('PageLabels')), context);
  if (ranges.length === 0) return null;
  const labels: string[] = [];
  let range: LabelRange | null = null;
  let next = 0;
  for (let page = 0; page < count; page += 1) {
    while (ranges[next] && (ranges[next] as LabelRange).page <= page) {
      range = ranges[next] as LabelRange;
      next += 1;
    }
    // Pages before the first range have none to go by; readers count them from 1.
    const { style, prefix, start, page: first }: LabelRange = range ?? { style: 'D', prefix: '', start: 1, page: 0 };
    labels.push(prefix + numeral(style, start + page - first));
  }
  return labels;
}

/** By rising pages. */
function rangesOf(root: PDFObject | undefined, context: PDFContext): LabelRange[] {
  const ranges = treePairs(root, 'Nums', context).flatMap(([page, value]): LabelRange[] => {
    const label = dictOf(value, context);
    if (!(page instanceof PDFNumber) || !label) return [];
    const style = nameOf(label.get(PDFName.of('S')), context);
    const prefix = textOf(label.get(PDFName.of('P')), context) ?? '';
    const start = Math.max(1, numberOf(label.get(PDFName.of('St')), context) ?? 1);
    return [{ page: page.asNumber(), style, prefix, start }];
  });
  return ranges.sort((a, b) => a.page - b.page);
}

/** ISO 32000-1, table 159: decimal, Roman and letters, upper and lower case; without a style the prefix stands alone. */
function numeral(style: string | null, number: number): string {
  switch (style) {
    case 'D':
      return String(number);
    case 'R':
      return roman(number);
    case 'r':
      return roman(number).toLowerCase();
    case 'A':
      return letters(number);
    case 'a':
      return letters(number).toLowerCase();
    default:
      return '';
  }
}

const ROMAN = [
  [1000, 'M'],
  [900, 'CM'],
  [500, 'D'],
  [400, 'CD'],
  [100, 'C'],
  [90, 'XC'],
  [50, 'L'],
  [40, 'XL'],
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
] as const;

function roman(number: number): string {
  let [text, left] = ['', Math.min(number, 100_000)];
  for (const [value, sign] of ROMAN) {
    text += sign.repeat(Math.floor(left / value));
    left %= value;
  }
  return text;
}

/** A to Z, then AA to ZZ, each letter doubled, and so on. */
const letters = (number: number): string =>
  String.fromCharCode(0x41 + ((number - 1) % 26)).repeat(Math.min(100, Math.floor((number - 1) / 26) + 1));
