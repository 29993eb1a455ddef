import type { Form, FormKind, LaidOut } from '@foglio/core';
import {
  finish,
  newDocument,
  notKnown,
  takeIn,
  takeInMade,
  tooMuch,
  unfitForm,
  type PdfError,
  type TakenIn,
} from '@foglio/pdf';
import type { LendBrowser } from './browser/chromium';
import { documentKind } from './kind';
import type { LaidPages } from './laid-pages';
import { layOutTables, TooManyPages } from './table/lay-out';
import type { Table } from './table/table';

/** A document as the rest of Foglio has it, whatever came in. */
export interface TakenDocument extends TakenIn {
  /** How it came to its pages, where it has none of its own. */
  readonly laid?: LaidOut;
}

/** What a document is taken in with. */
export interface TakingIn {
  /** Of its file. */
  readonly name: string;
  /** How it is laid out, where it has no pages of its own. */
  readonly form: Form;
  /** Where it needs one; never kept. */
  readonly password: string | null;
  /** For lines that tell the day: "2026-11-30". */
  readonly today: string;
  /** The browser that lays out flowing documents; left out, one is started for this document alone. */
  readonly lendBrowser?: LendBrowser;
  /** Told the first pages of what takes long, before the whole. */
  readonly begun?: (beginning: TakenDocument) => Promise<void>;
}

/** What is read and drawn of a long table for its beginning. */
const FIRST_ROWS = 300;
const FIRST_PAGES = 10;

/**
 * Takes a document in: one with pages of its own as it is, any other laid out as pages.
 *
 * @throws PdfError with the reason where it cannot be used, or not be laid out so
 */
export async function takeInDocument(bytes: Uint8Array, how: TakingIn): Promise<TakenDocument> {
  const kind = documentKind(bytes, how.name);
  switch (kind) {
    case null:
      throw notKnown();
    case 'compound':
      return takeInDocument(await (await import('./office/compound')).unlockOffice(bytes, how.password), how);
    case 'pdf':
    case 'png':
    case 'jpeg':
    case 'tiff':
    case 'raster':
      return takeIn(bytes, how.password);
    default: {
      const made = await layOut(bytes, kind, how);
      return { ...(await takeInMade(made)), laid: made.laid };
    }
  }
}

/** What lays out is loaded only when it is needed: most files are PDF. */
async function layOut(bytes: Uint8Array, kind: FormKind, taking: TakingIn): Promise<LaidPages> {
  const { name, form, today } = taking;
  switch (kind) {
    case 'web-page':
    case 'markdown':
      return (await import('./flow/lay-out')).layOutFlowing(bytes, kind, taking);
    case 'word-processing':
      return (await import('./word/lay-out')).layOutWord(bytes, taking);
    case 'workbook': {
      const { readWorkbook } = await import('./workbook/read-workbook');
      const empty = unfitForm('nothing stands in its sheets', 'Choose other sheets.');
      return layOutRead((most) => readWorkbook(bytes, form, today, most), taking, { outlined: true, empty });
    }
    case 'csv': {
      const { readCsv } = await import('./csv/csv-table');
      const empty = unfitForm('no field of it holds anything', 'Look at how its fields are parted.');
      return layOutRead((most) => readCsv(bytes, name, form, most), taking, { outlined: false, empty });
    }
    case 'text': {
      const document = await newDocument();
      const { laid, remarks } = (await import('./text/text-pages')).layOutText(document, bytes, form);
      return { bytes: await finish(document), remarks, laid };
    }
  }
}

/** What is read of a document of tables. */
interface ReadTables {
  readonly tables: readonly Table[];
  readonly laid: LaidOut;
  readonly remarks: readonly string[];
  /** Whether all rows were read. */
  readonly isWhole: boolean;
}

/** Lays tables out; of long ones the beginning first, where somebody waits for it. */
async function layOutRead(
  read: (most: number) => ReadTables | Promise<ReadTables>,
  { name, begun }: TakingIn,
  { outlined, empty }: { readonly outlined: boolean; readonly empty: PdfError },
): Promise<LaidPages> {
  const first = begun ? await read(FIRST_ROWS) : null;
  if (first && begun && !first.isWhole) {
    const { tables, laid } = first;
    const beginning = await newDocument();
    layOutTables(beginning, tables, { file: name, outlined, most: FIRST_PAGES });
    const made = await takeInMade({ bytes: await finish(beginning), remarks: [] });
    await begun({ ...made, laid: { ...laid, unfinished: { trouble: null } } });
  }
  const { tables, laid, remarks } = first?.isWhole ? first : await read(Infinity);
  const document = await newDocument();
  try {
    const done = layOutTables(document, tables, { file: name, outlined });
    if (done.pages === 0) throw empty;
    return { bytes: await finish(document), remarks: [...remarks, ...done.remarks], laid };
  } catch (error) {
    if (error instanceof TooManyPages) throw tooMuch(`paper (${error.pages} pages)`);
    throw error;
  }
}
