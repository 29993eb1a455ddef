import { collections, firstNumber, firstString, type Attributes } from '@foglio/ipp';

/** How one page of a received document is to be printed. */
interface PageSetting {
  readonly sides: string;
  /** media-source keyword, or null: the printer chooses. */
  readonly source: string | null;
  /** Hundredths of a millimetre, portrait frame; null where the job states none. */
  readonly size: { readonly x: number; readonly y: number } | null;
}

/** A sheet to be printed: pages are those of the received document, from 1. */
export interface SheetToPrint extends PageSetting {
  readonly set: number;
  readonly front: number;
  readonly back: number | null;
}

/**
 * The sheets a job's attributes come to, in the order they are printed: page by page, `overrides` laid over the job's
 * own attributes (PWG 5100.6), two pages of one setting to a two-sided sheet; then copies, in sets or sheet by sheet.
 */
export function sheetsOfJob(attributes: Attributes, pages: number): SheetToPrint[] {
  const setting = settingFinder(attributes);
  const oneSet: Omit<SheetToPrint, 'set'>[] = [];
  for (let page = 1; page <= pages;) {
    const own = setting(page);
    const twoSided = own.sides !== 'one-sided';
    const next = page < pages ? setting(page + 1) : null;
    const shared = twoSided && next !== null && JSON.stringify(next) === JSON.stringify(own);
    oneSet.push({ ...own, front: page, back: shared ? page + 1 : null });
    page += shared ? 2 : 1;
  }
  const copies = firstNumber(attributes, 'copies') ?? 1;
  const sets = Array.from({ length: copies }, (_, index) => index + 1);
  return firstString(attributes, 'sheet-collate') === 'uncollated'
    ? oneSet.flatMap((sheet) => sets.map((set) => ({ ...sheet, set })))
    : sets.flatMap((set) => oneSet.map((sheet) => ({ ...sheet, set })));
}

function settingFinder(attributes: Attributes): (page: number) => PageSetting {
  const job = readSetting(attributes);
  const overrides = collections(attributes, 'overrides').map((override) => ({
    ranges: (override['pages'] ?? []).flatMap((value) => (value.tag === 'rangeOfInteger' ? [value.value] : [])),
    setting: readSetting(override),
  }));
  return (page) => {
    const override = overrides.find(({ ranges }) => ranges.some(({ lower, upper }) => page >= lower && page <= upper));
    return {
      sides: override?.setting.sides ?? job.sides ?? 'one-sided',
      source: override?.setting.source ?? job.source ?? null,
      size: override?.setting.size ?? job.size ?? null,
    };
  };
}

function readSetting(attributes: Attributes): Partial<PageSetting> {
  const media = collections(attributes, 'media-col')[0];
  const measure = media && collections(media, 'media-size')[0];
  const x = measure && firstNumber(measure, 'x-dimension');
  const y = measure && firstNumber(measure, 'y-dimension');
  const sides = firstString(attributes, 'sides');
  const source = media && firstString(media, 'media-source');
  return {
    ...(sides ? { sides } : {}),
    ...(source ? { source } : {}),
    ...(x && y ? { size: { x, y } } : {}),
  };
}
