import type { Form, FormKind, LaidOut } from '@foglio/core';
import {
  collectOften,
  finish,
  newDocument,
  notKnown,
  takeIn,
  takeInMade,
  takeInPictures,
  tooMuch,
  unfitForm,
  type PdfError,
  type TakenIn,
} from '@foglio/pdf';
import { addressOf } from './browser/beside';
import type { LayInBrowser } from './browser/laying';
import type { ReadBeside } from './flow/beside-file';
import { documentKind } from './kind';
import type { LaidPages } from './laid-pages';
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
  /** What has a browser lay out flowing documents; left out, one is started for this document alone. */
  readonly lay?: LayInBrowser;
  /** What stands beside its file, by its path from there, where anything can. */
  readonly readBeside?: ReadBeside;
  /** Told the first pages of what takes long, before the whole. */
  readonly begun?: (beginning: TakenDocument) => Promise<void>;
  /** Told after that how many pages are laid out, of how many. */
  readonly progress?: (done: number, of: number) => void;
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
    case 'archive':
      return takeInArchive(bytes, how);
    case 'mail':
      if (how.form.attachment !== undefined) return takeInAttachment(bytes, how.form.attachment, how);
      break;
    case 'compound':
      return takeInDocument(await (await import('./office/compound')).unlockOffice(bytes, how.password), how);
    case 'pdf':
    case 'png':
    case 'jpeg':
    case 'tiff':
    case 'raster':
      return takeIn(bytes, how.password);
  }
  return takeInLaid(await layOut(bytes, kind, how));
}

const takeInLaid = async (made: LaidPages): Promise<TakenDocument> => ({
  ...(await takeInMade(made)),
  laid: made.laid,
});

/** A page with its pictures, or pictures alone. */
async function takeInArchive(bytes: Uint8Array, how: TakingIn): Promise<TakenDocument> {
  const archive = (await import('./archive/read-archive')).readArchive(bytes);
  if (!archive) throw notKnown();
  if (archive.kind === 'pictures') return takeInPictures(archive.pictures);
  const { kind, path, bytes: page, beside } = archive;
  const { layOutFlowing } = await import('./flow/lay-out');
  return takeInLaid(await layOutFlowing(page, kind, { ...how, name: path, beside, address: addressOf(path) }));
}

/** What is attached to a mail, as a document of its own; that it came so is part of its form. */
async function takeInAttachment(bytes: Uint8Array, attachment: string, how: TakingIn): Promise<TakenDocument> {
  const { attachments } = await (await import('./mail/read-mail')).readMail(bytes);
  const found = attachments.find(({ name }) => name === attachment);
  if (!found) throw unfitForm(`it has no attachment “${attachment}”`, 'Take the mail in again.');
  const { attachment: _, ...form } = how.form;
  const named = ({ laid, ...taken }: TakenDocument): TakenDocument => {
    const { kind = 'mail', form: own = {}, taken: guessed = {}, ...rest } = laid ?? {};
    return { ...taken, laid: { kind, form: { attachment, ...own }, taken: guessed, ...withoutOwn(rest) } };
  };
  const { begun } = how;
  const taking = begun ? { begun: (beginning: TakenDocument) => begun(named(beginning)) } : {};
  return named(await takeInDocument(found.bytes, { ...how, form, name: found.name, ...taking }));
}

/** Of a mail within a mail the attachments are not reached. */
const withoutOwn = ({ attachments: _, ...rest }: Partial<LaidOut>): Partial<LaidOut> => rest;

/** What lays out is loaded only when it is needed: most files are PDF. */
async function layOut(bytes: Uint8Array, kind: FormKind | 'saved-page', taking: TakingIn): Promise<LaidPages> {
  const { name, form, today } = taking;
  switch (kind) {
    case 'saved-page':
      return (await import('./mail/lay-out')).layOutSavedPage(bytes, taking);
    case 'mail':
      return (await import('./mail/lay-out')).layOutMail(bytes, taking);
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
  { name, begun, progress }: TakingIn,
  { outlined, empty }: { readonly outlined: boolean; readonly empty: PdfError },
): Promise<LaidPages> {
  const { layOutTables, TooManyPages } = await import('./table/lay-out');
  const first = begun ? await read(FIRST_ROWS) : null;
  if (first && begun && !first.isWhole) {
    const { tables, laid } = first;
    const beginning = await newDocument();
    layOutTables(beginning, tables, { file: name, outlined, most: FIRST_PAGES });
    const made = await takeInMade({ bytes: await finish(beginning), remarks: [] });
    await begun({ ...made, laid: { ...laid, unfinished: { trouble: null } } });
    collectOften();
  }
  const { tables, laid, remarks } = first?.isWhole ? first : await read(Infinity);
  const document = await newDocument();
  try {
    const told = begun && progress ? { progress } : {};
    const done = layOutTables(document, tables, { file: name, outlined, ...told });
    if (done.pages === 0) throw empty;
    return { bytes: await finish(document), remarks: [...remarks, ...done.remarks], laid };
  } catch (error) {
    if (error instanceof TooManyPages) throw tooMuch(`paper (${error.pages} pages)`);
    throw error;
  }
}
