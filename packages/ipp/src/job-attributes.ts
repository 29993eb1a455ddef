import { isMonochrome, pointsToMm, type Plan, type Sheet, type Ticket } from '@foglio/core';
import { collection, enumeration, integer, keyword, rangeOf, type Attributes, type Value } from './message';

/** How pages of the sent file are printed; pages of one setting need no more than one override. */
interface Setting {
  readonly attributes: Attributes;
  /** Pages of the sent file, as closed ranges from 1. */
  readonly ranges: { lower: number; upper: number }[];
  sheets: number;
}

/** print-quality (RFC 8011, section 5.2.13). */
const QUALITIES = { draft: 3, normal: 4, high: 5 } as const;

/**
 * The job template attributes of a plan sent as one job: what most sheets have in common as attributes of the job, the
 * rest as `overrides` by pages (PWG 5100.6, overrides). Pages are those of the PDF that `impose` writes with blanks
 * "none": a one-sided sheet is one page, a two-sided sheet two.
 */
export function jobAttributes(plan: Plan, ticket: Ticket): Attributes {
  const settings = settingsOf(plan.sheets);
  const [main, ...others] = [...settings].sort((a, b) => b.sheets - a.sheets);
  return {
    copies: [integer(plan.sets)],
    'sheet-collate': [keyword(plan.collate ? 'collated' : 'uncollated')],
    ...main?.attributes,
    'print-quality': [enumeration(QUALITIES[ticket.quality])],
    // Where only some pages are wanted in grey, `impose` has turned them: the attribute is one for the whole job.
    'print-color-mode': [keyword(isMonochrome(ticket) ? 'monochrome' : 'auto')],
    // The file is imposed at the paper's size already: the printer must not shrink it again (PWG 5100.16, print-scaling).
    'print-scaling': [keyword('none')],
    ...(others.length > 0 ? { overrides: others.map(override) } : {}),
  };
}

/** Names of the attributes by which sheets of one plan differ: what a printer must take in `overrides`. */
export function overriddenNames(plan: Plan): string[] {
  const settings = settingsOf(plan.sheets);
  return ['media-col', 'sides'].filter((name) => {
    const values = new Set(settings.map(({ attributes }) => JSON.stringify(attributes[name])));
    return values.size > 1;
  });
}

function settingsOf(sheets: readonly Sheet[]): Setting[] {
  const settings = new Map<string, Setting>();
  let page = 1;
  for (const sheet of sheets) {
    const last = page + (sheet.back ? 1 : 0);
    const key = JSON.stringify([sheet.tray, sheet.paper.size, sheet.sides]);
    let setting = settings.get(key);
    if (!setting) settings.set(key, (setting = { attributes: sheetAttributes(sheet), ranges: [], sheets: 0 }));
    const range = setting.ranges.at(-1);
    if (range && range.upper === page - 1) range.upper = last;
    else setting.ranges.push({ lower: page, upper: last });
    setting.sheets += 1;
    page = last + 1;
  }
  return [...settings.values()];
}

function sheetAttributes(sheet: Sheet): Attributes {
  return { sides: [keyword(sheet.sides)], 'media-col': [mediaCol(sheet)] };
}

/** media-col with size in hundredths of a millimetre and source (PWG 5100.3, media-col). */
function mediaCol({ paper, tray }: Sheet): Value {
  const hundredths = (points: number): Value => integer(Math.round(pointsToMm(points) * 100));
  const size = { 'x-dimension': [hundredths(paper.width)], 'y-dimension': [hundredths(paper.height)] };
  const source: Attributes = tray === null ? {} : { 'media-source': [keyword(tray)] };
  return collection({ 'media-size': [collection(size)], ...source });
}

/** One member of `overrides`: the pages, and what is different for them (PWG 5100.6, overrides). */
function override({ ranges, attributes }: Setting): Value {
  return collection({ pages: ranges.map(({ lower, upper }) => rangeOf(lower, upper)), ...attributes });
}
