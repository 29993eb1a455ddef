import { FINISHINGS, OF_SHEET, type Finishing, type SheetSettings } from '@foglio/core';
import { collections, firstNumber, firstString, type Attributes } from '@foglio/ipp';

/** How one page of a received document is to be printed. */
interface PageSetting {
  readonly sides: string;
  /** What else is said of each sheet in a word, by the setting's name. */
  readonly told: SheetSettings;
  /** media-source keyword, or null: the printer chooses. */
  readonly source: string | null;
  /** Null where any will do. */
  readonly size: PageSize | null;
}

/** A document a job has got: what was said of it alone, and the size of each of its pages. */
export interface ReceivedDocument {
  readonly attributes: Attributes;
  readonly pages: readonly PageSize[];
}

/** Hundredths of a millimetre. */
export interface PageSize {
  readonly x: number;
  readonly y: number;
}

/** A sheet to be printed: pages are those of one received document; both are counted from 1. */
export interface SheetToPrint extends PageSetting {
  readonly set: number;
  readonly document: number;
  readonly front: number;
  readonly back: number | null;
}

type SheetOfSet = Omit<SheetToPrint, 'set'>;

/** The sheets a job comes to. Each is found when it is its turn: of many copies there are more than can be held. */
export interface SheetsOfJob {
  readonly count: number;
  /** @param index from 0, in the order of printing */
  readonly sheet: (index: number) => SheetToPrint;
}

/** What the finisher does to a job's sheets, and to which of them together. */
export interface Finished {
  readonly finishings: readonly Finishing[];
  readonly each: 'set' | 'document' | 'sheet';
}

/**
 * Documents that are separate are finished each by itself, and sheets that do not lie in sets too (RFC 8011, 5.2.4 and 5.2.6).
 * Null: nothing is done to them.
 */
export function finishedOf(attributes: Attributes): Finished | null {
  const numbers = (attributes['finishings'] ?? []).flatMap((one) => (one.tag === 'enum' ? [one.value] : []));
  const names = Object.keys(FINISHINGS) as Finishing[];
  const finishings = names.filter((name) => numbers.includes(FINISHINGS[name].number));
  if (finishings.length === 0) return null;
  if (firstString(attributes, 'sheet-collate') === 'uncollated') return { finishings, each: 'sheet' };
  const handling = firstString(attributes, 'multiple-document-handling') ?? 'separate-documents-collated-copies';
  return { finishings, each: handling.startsWith('separate-documents') ? 'document' : 'set' };
}

/**
 * The sheets a job's attributes come to, in the order they are printed: page by page, what is said of a document laid over
 * the job's own, `overrides` laid over that (PWG 5100.6), two pages of one setting to a two-sided sheet; then copies, in
 * sets or sheet by sheet. Several documents each begin on a sheet of their own and are gone through for every set, or each
 * is made as often as wanted before the next (RFC 8011, 5.2.4, multiple-document-handling).
 */
export function sheetsOfJob(attributes: Attributes, documents: readonly ReceivedDocument[]): SheetsOfJob {
  const copies = firstNumber(attributes, 'copies') ?? 1;
  const each = documents.map((document, index) => sheetsOfDocument(attributes, document, index + 1));
  if (firstString(attributes, 'multiple-document-handling') === 'separate-documents-uncollated-copies') {
    return oneAfterTheOther(each.map((sheets) => inSets(sheets, copies)));
  }
  const oneSet = each.flat();
  return firstString(attributes, 'sheet-collate') === 'uncollated'
    ? sheetBySheet(oneSet, copies)
    : inSets(oneSet, copies);
}

const inSets = (sheets: readonly SheetOfSet[], copies: number): SheetsOfJob => ({
  count: sheets.length * copies,
  sheet: (index) => ({ ...sheets[index % sheets.length]!, set: Math.floor(index / sheets.length) + 1 }),
});

const sheetBySheet = (sheets: readonly SheetOfSet[], copies: number): SheetsOfJob => ({
  count: sheets.length * copies,
  sheet: (index) => ({ ...sheets[Math.floor(index / copies)]!, set: (index % copies) + 1 }),
});

function oneAfterTheOther(parts: readonly SheetsOfJob[]): SheetsOfJob {
  return {
    count: parts.reduce((sum, { count }) => sum + count, 0),
    sheet: (index) => {
      let rest = index;
      for (const part of parts) {
        if (rest < part.count) return part.sheet(rest);
        rest -= part.count;
      }
      throw new RangeError(`there is no sheet ${index}`);
    },
  };
}

function sheetsOfDocument(job: Attributes, document: ReceivedDocument, number: number): SheetOfSet[] {
  const setting = settingFinder({ ...job, ...document.attributes }, document.pages);
  const { pages } = document;
  const sheets: SheetOfSet[] = [];
  for (let page = 1; page <= pages.length;) {
    const own = setting(page);
    const twoSided = own.sides !== 'one-sided';
    const next = page < pages.length ? setting(page + 1) : null;
    const shared = twoSided && next !== null && JSON.stringify(next) === JSON.stringify(own);
    sheets.push({ ...own, document: number, front: page, back: shared ? page + 1 : null });
    page += shared ? 2 : 1;
  }
  return sheets;
}

function settingFinder(attributes: Attributes, pages: readonly PageSize[]): (page: number) => PageSetting {
  const job = readSetting(attributes);
  const overrides = collections(attributes, 'overrides').map((override) => ({
    ranges: (override['pages'] ?? []).flatMap((value) => (value.tag === 'rangeOfInteger' ? [value.value] : [])),
    setting: readSetting(override),
  }));
  return (page) => {
    const override = overrides.find(({ ranges }) => ranges.some(({ lower, upper }) => page >= lower && page <= upper));
    const source = override?.setting.source ?? job.source ?? 'auto';
    const size = override?.setting.size ?? job.size ?? null;
    return {
      sides: override?.setting.sides ?? job.sides ?? 'one-sided',
      told: { ...job.told, ...override?.setting.told },
      source: source === 'auto' ? null : source,
      // Where nothing is said of tray or size, the page itself tells what paper it is for.
      size: size ?? (source === 'auto' ? (pages[page - 1] ?? null) : null),
    };
  };
}

function readSetting(attributes: Attributes): Partial<PageSetting> {
  const media = collections(attributes, 'media-col')[0];
  const measure = media && collections(media, 'media-size')[0];
  const x = measure && firstNumber(measure, 'x-dimension');
  const y = measure && firstNumber(measure, 'y-dimension');
  const sides = firstString(attributes, 'sides');
  const told = OF_SHEET.flatMap(({ name, attribute }) => {
    const value = firstString(attributes, attribute);
    return value === null ? [] : [[name, value]];
  });
  const source = media && firstString(media, 'media-source');
  return {
    told: Object.fromEntries(told) as PageSetting['told'],
    ...(sides ? { sides } : {}),
    ...(source ? { source } : {}),
    ...(x && y ? { size: { x, y } } : {}),
  };
}
