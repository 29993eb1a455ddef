import {
  isMonochrome,
  OF_SHEET,
  onMedium,
  pointsToMm,
  SAYS_COLLATED,
  SAYS_UNCOLLATED,
  takes,
  takesTrays,
  TOLD,
  type Plan,
  type Printer,
  type Sheet,
  type Ticket,
} from '@foglio/core';
import { collection, enumeration, integer, keyword, rangeOf, type Attributes, type Value } from './message';

/** How pages of the sent file are printed; pages of one setting need no more than one override. */
interface Setting {
  readonly attributes: Attributes;
  /** Pages of the sent file, as closed ranges from 1. */
  readonly ranges: { lower: number; upper: number }[];
  sheets: number;
}

/** Sheets that are sent together, in order. */
export type SentSheets = Pick<Plan, 'sheets' | 'sets' | 'collate' | 'finishing'>;

/**
 * How the paper of each sheet is said: by its size and tray, or left to the printer, which then takes each page from the
 * tray that holds the page's own size (PWG 5100.3, media-source "auto").
 */
export type MediaWay = 'by-tray' | 'by-size';

/**
 * The job template attributes of sheets sent as one document: what most of them have in common as attributes of the job,
 * the rest as `overrides` by pages (PWG 5100.6, overrides). Pages are those of the PDF that `impose` writes with blanks
 * "none": a one-sided sheet is one page, a two-sided sheet two.
 */
export function jobAttributes(
  sent: SentSheets,
  ticket: Ticket,
  printer: Printer,
  media: MediaWay = 'by-tray',
): Attributes {
  const way = takesTrays(printer) ? media : 'by-size';
  const settings = settingsOf(sent.sheets, printer, way).sort((a, b) => b.sheets - a.sheets);
  const [main, ...others] = settings;
  // What is said of some sheets and left to the printer for others can only be said of those: the job's would hold for all.
  const some = OF_SHEET.map(({ attribute }) => attribute).filter((name) =>
    settings.some((one) => !one.attributes[name]),
  );
  const [common, own] = parted(main?.attributes ?? {}, some);
  const overrides = [...(main && Object.keys(own).length > 0 ? [{ ...main, attributes: own }] : []), ...others];
  return {
    ...wholeJob(sent, ticket, printer),
    ...common,
    ...(overrides.length > 0 ? { overrides: overrides.map(override) } : {}),
  };
}

/** Attributes without those of these names, and these. */
function parted(attributes: Attributes, names: readonly string[]): readonly [Attributes, Attributes] {
  const entries = Object.entries(attributes);
  return [
    Object.fromEntries(entries.filter(([name]) => !names.includes(name))),
    Object.fromEntries(entries.filter(([name]) => names.includes(name))),
  ];
}

/**
 * What is said once for a job, whatever its sheets. What the printer does not take is left out: where it mattered to the
 * result, the sheets themselves are made so that it does not (`makesSets`, `isGreyByItself`), or a check has stopped it.
 */
export function wholeJob(sent: SentSheets, ticket: Ticket, printer: Printer): Attributes {
  const { sets, collate, finishing } = sent;
  // The standard's places are those of the medium (RFC 8011, 5.2.6).
  const finishings = finishing?.finishings.map((name) => onMedium(name, finishing.held)) ?? [];
  const color = isMonochrome(ticket) ? 'monochrome' : 'auto';
  // The file is imposed at the paper's size already.
  const told = toldOf('job', { ...ticket, copies: sets, collate, color, scale: 'none', finishings }, printer);
  const says = collate ? SAYS_COLLATED : SAYS_UNCOLLATED;
  const [attribute, value] = says.find(([name, word]) => takes(printer, name, word)) ?? [];
  const isNeeded = sets > 1 && attribute && !told[attribute];
  return isNeeded ? { ...told, [attribute]: [keyword(value)] } : told;
}

/** What a printer is told for a job or for a sheet, of the settings that are told by plain values. */
function toldOf(of: 'job' | 'sheet', values: Readonly<Record<string, unknown>>, printer: Printer): Attributes {
  const told = TOLD.filter((one) => one.of === of && one.syntax !== 'collection' && values[one.name] !== undefined);
  return Object.fromEntries(
    told.flatMap(({ name, attribute, syntax, values: words }) => {
      if (syntax === 'enums') {
        const numbers = (values[name] as readonly string[]).map((one) => words?.[one] as number);
        const taken = numbers.filter((number) => takes(printer, attribute, String(number)));
        return taken.length > 0 ? [[attribute, taken.map(enumeration)]] : [];
      }
      const value = words ? words[String(values[name])] : values[name];
      if (!takes(printer, attribute, syntax === 'integer' ? undefined : String(value))) return [];
      const said =
        syntax === 'keyword' ? keyword(value as string) : NUMBERS[syntax as 'integer' | 'enum'](value as number);
      return [[attribute, [said]]];
    }),
  );
}

const NUMBERS = { integer, enum: enumeration } as const;

/** Sheets that follow each other and differ in nothing a printer is told: each stretch can be a document or a job. */
export function alikeStretches(sheets: readonly Sheet[]): Sheet[][] {
  const stretches: Sheet[][] = [];
  let last: string | null = null;
  for (const sheet of sheets) {
    const key = keyOf(sheet);
    if (key === last) stretches.at(-1)?.push(sheet);
    else stretches.push([sheet]);
    last = key;
  }
  return stretches;
}

/** All that can be told of a sheet, whatever its printer takes. */
type Told = Pick<Sheet, 'sides' | (typeof OF_SHEET)[number]['name']> & {
  readonly tray: string | null;
  readonly paper: { readonly size: string };
};

const ANY_MEDIA = { tray: null, paper: { size: '' } } as const;

const keyOf = ({ tray, paper, ...sheet }: Told): string =>
  JSON.stringify([tray, paper.size, sheet.sides, OF_SHEET.map(({ name }) => sheet[name] ?? null)]);

function settingsOf(sheets: readonly Sheet[], printer: Printer, media: MediaWay): Setting[] {
  const settings = new Map<string, Setting>();
  let page = 1;
  for (const sheet of sheets) {
    const last = page + (sheet.back ? 1 : 0);
    const key = keyOf(media === 'by-size' && takesTrays(printer) ? { ...sheet, ...ANY_MEDIA } : sheet);
    let setting = settings.get(key);
    if (!setting) {
      setting = { attributes: sheetAttributes(sheet, printer, media), ranges: [], sheets: 0 };
      settings.set(key, setting);
    }
    const range = setting.ranges.at(-1);
    if (range && range.upper === page - 1) range.upper = last;
    else setting.ranges.push({ lower: page, upper: last });
    setting.sheets += 1;
    page = last + 1;
  }
  return [...settings.values()];
}

/** What a printer is told of a sheet. */
export function sheetAttributes(sheet: Sheet, printer: Printer, media: MediaWay): Attributes {
  return { ...toldOf('sheet', { ...sheet }, printer), ...mediaOf(sheet, printer, media) };
}

function mediaOf(sheet: Sheet, printer: Printer, media: MediaWay): Attributes {
  const { size } = sheet.paper;
  if (!takesTrays(printer)) return takes(printer, 'media', size) ? { media: [keyword(size)] } : {};
  const col = media === 'by-size' ? collection({ 'media-source': [keyword('auto')] }) : mediaCol(sheet);
  return { 'media-col': [col] };
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
