import { ParseSpeeds, PDFContext, PDFDict, PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { FileObjects } from './objects/file-objects';
import { findInFile } from './objects/lazy-context';
import { damaged, locked, notAPdf, PdfError } from './pdf-error';

/** An opened PDF at the level of its objects. */
export interface OpenPdf {
  /** The library's own view, for what it does better than we would: form fields. */
  readonly document: PDFDocument;
  readonly context: PDFContext;
  readonly catalog: PDFDict;
  /** Whether its objects were found where it says that they are, and not by searching for them. */
  readonly isAsTold: boolean;
}

/** A header may stand anywhere in the first 1024 bytes (ISO 32000-1, annex H, implementation note 13). */
const HEADER_WITHIN = 1024;

/** Whether a file says that it is a PDF. */
export const hasPdfHeader = (bytes: Uint8Array): boolean =>
  new TextDecoder('latin1').decode(bytes.subarray(0, HEADER_WITHIN)).includes('%PDF-');

/**
 * Opens a PDF without touching its metadata; the same bytes once.
 *
 * @throws PdfError `not-a-pdf`, `locked` or `damaged`
 */
export async function openPdf(bytes: Uint8Array): Promise<OpenPdf> {
  if (!hasPdfHeader(bytes)) throw notAPdf();
  if (opensAsTold(bytes)) return opened.get(bytes) as OpenPdf;
  const pdf = await openBySearching(bytes);
  opened.set(bytes, pdf);
  return pdf;
}

/** Whether a file opens by what it says of itself: it is not locked, and every object stands where it is said to. */
export function opensAsTold(bytes: Uint8Array): boolean {
  const before = opened.get(bytes);
  if (before) return before.isAsTold;
  const pdf = openAsTold(bytes);
  if (pdf) opened.set(bytes, pdf);
  return pdf !== null;
}

/** Taking in, looking through and imposing ask for the same bytes one after another, and go on with what is known of them. */
const opened = new WeakMap<Uint8Array, OpenPdf>();

/** By the file's own cross references; null where they are wrong, lead to no catalog, or the file is locked. */
function openAsTold(bytes: Uint8Array): OpenPdf | null {
  const context = PDFContext.create();
  const file = FileObjects.of(bytes, context);
  if (!file || file.trailer.has(PDFName.of('Encrypt'))) return null;
  findInFile(context, file);
  const catalog = context.lookup(context.trailerInfo.Root);
  if (!(catalog instanceof PDFDict) || !catalog.has(PDFName.of('Pages'))) return null;
  return { document: documentOver(context), context, catalog, isAsTold: true };
}

/** The library makes a document of a context, though it does not say so. */
const documentOver = (context: PDFContext): PDFDocument =>
  new (PDFDocument as unknown as new (context: PDFContext, ignoreEncryption: boolean, update: boolean) => PDFDocument)(
    context,
    false,
    false,
  );

async function openBySearching(bytes: Uint8Array): Promise<OpenPdf> {
  const document = await load(bytes);
  const { context } = document;
  const catalog = context.lookup(context.trailerInfo.Root);
  if (!(catalog instanceof PDFDict)) throw damaged('its catalog is missing');
  if (!catalog.has(PDFName.of('Pages'))) throw damaged('its page tree is missing');
  return { document, context, catalog, isAsTold: false };
}

async function load(bytes: Uint8Array): Promise<PDFDocument> {
  const options = { updateMetadata: false, parseSpeed: ParseSpeeds.Fastest };
  try {
    return await PDFDocument.load(bytes, options);
  } catch (error) {
    if (!isLocked(error)) throw asPdfError(error);
  }
  try {
    // Files locked against changes only are opened by the empty password (ISO 32000-1, 7.6.3.3).
    return await PDFDocument.load(bytes, { ...options, password: '' });
  } catch {
    throw locked();
  }
}

/** The library gives its errors no class that survives minifying, so they are told apart by message. */
const isLocked = (error: unknown): boolean => error instanceof Error && /encrypted/i.test(error.message);

function asPdfError(error: unknown): PdfError {
  if (error instanceof PdfError) return error;
  const reason = error instanceof Error ? (error.message.split('\n')[0] ?? '') : String(error);
  return damaged(reason === '' ? 'its objects cannot be read' : `its objects cannot be read (${reason.slice(0, 120)})`);
}
