import { constants, deflateSync, inflateSync } from 'node:zlib';
import {
  decodePDFRawStream,
  PDFArray,
  PDFDict,
  PDFName,
  PDFRawStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { tooMuch } from '../pdf-error';
import { numberOf } from '../pdf-object';

/** More than a stream of operators or objects ever holds. What inflates beyond it was made to fill the memory. */
const MOST_BYTES = 512 * 1024 * 1024;

/**
 * What a stream holds, unpacked. The common filter by the engine's own library, which takes a tenth of the time; its predictors too
 * (ISO 32000-1, 7.4.4.4), which the PDF library does not know.
 *
 * @throws PdfError `too-much`; Error where it cannot be unpacked
 */
export function unpacked(stream: PDFRawStream): Uint8Array {
  let { contents } = stream;
  const filters = filtersOf(stream.dict);
  for (const [index, { name, parameters }] of filters.entries()) {
    if (name !== 'FlateDecode') return decodedByLibrary(contents, filters.slice(index), stream.dict.context);
    contents = unpredicted(inflated(contents), parameters);
  }
  return contents;
}

/** A filter of a stream and what it is told. */
interface Filter {
  readonly name: string;
  readonly parameters: PDFDict | null;
}

function filtersOf(dict: PDFDict): Filter[] {
  const { context } = dict;
  const all = (name: string): (PDFObject | undefined)[] => {
    const found = context.lookup(dict.get(PDFName.of(name)));
    return found instanceof PDFArray ? found.asArray().map((one) => context.lookup(one)) : [found];
  };
  const parameters = all('DecodeParms');
  return all('Filter').flatMap((filter, index) => {
    const told = parameters[index];
    return filter instanceof PDFName
      ? [{ name: filter.decodeText(), parameters: told instanceof PDFDict ? told : null }]
      : [];
  });
}

function decodedByLibrary(bytes: Uint8Array, filters: readonly Filter[], context: PDFContext): Uint8Array {
  const dict = context.obj({
    Filter: filters.map(({ name }) => name),
    DecodeParms: filters.map(({ parameters }) => parameters),
  });
  return decodePDFRawStream(PDFRawStream.of(dict, bytes)).decode();
}

function inflated(packed: Uint8Array): Uint8Array {
  try {
    // What breaks off gives what it has, as readers do.
    return inflateSync(packed, { maxOutputLength: MOST_BYTES, finishFlush: constants.Z_SYNC_FLUSH });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE') throw tooMuch('memory');
    throw error;
  }
}

/** Undoes the predictors of PNG, each row with its own; those of TIFF are for pictures alone and left. */
function unpredicted(bytes: Uint8Array, parameters: PDFDict | null): Uint8Array {
  const told = (name: string, otherwise: number): number =>
    (parameters && numberOf(parameters.get(PDFName.of(name)), parameters.context)) ?? otherwise;
  if (told('Predictor', 1) < 10) return bytes;
  const pixel = Math.max(1, (told('Colors', 1) * told('BitsPerComponent', 8)) >> 3);
  const width = Math.ceil((told('Columns', 1) * told('Colors', 1) * told('BitsPerComponent', 8)) / 8);
  const rows = Math.ceil(bytes.length / (width + 1));
  const out = new Uint8Array(rows * width);
  for (let row = 0; row < rows; row += 1) {
    const kind = bytes[row * (width + 1)] as number;
    const [source, target] = [row * (width + 1) + 1, row * width];
    for (let at = 0; at < width && source + at < bytes.length; at += 1) {
      const left = at >= pixel ? (out[target + at - pixel] as number) : 0;
      const up = row > 0 ? (out[target + at - width] as number) : 0;
      const corner = row > 0 && at >= pixel ? (out[target + at - width - pixel] as number) : 0;
      out[target + at] = (bytes[source + at] as number) + predicted(kind, left, up, corner);
    }
  }
  return out;
}

/** PNG, 9.2 (ISO/IEC 15948). */
function predicted(kind: number, left: number, up: number, corner: number): number {
  switch (kind) {
    case 1:
      return left;
    case 2:
      return up;
    case 3:
      return (left + up) >> 1;
    case 4: {
      const guess = left + up - corner;
      const [byLeft, byUp, byCorner] = [Math.abs(guess - left), Math.abs(guess - up), Math.abs(guess - corner)];
      if (byLeft <= byUp && byLeft <= byCorner) return left;
      return byUp <= byCorner ? up : corner;
    }
    default:
      return 0;
  }
}

/** Entries of a dictionary, as the library takes them. */
export type Entries = Readonly<Record<string, unknown>>;

/** A stream of these bytes, packed where that makes them fewer. */
export function packedStream(bytes: Uint8Array, entries: Entries, context: PDFContext): PDFRawStream {
  const dict = context.obj(entries as Record<string, never>);
  const packed = deflateSync(bytes);
  if (packed.length + WORTH_IT > bytes.length) return PDFRawStream.of(dict, bytes);
  dict.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
  return PDFRawStream.of(dict, packed);
}

/** What it takes to name the filter. */
const WORTH_IT = 24;
