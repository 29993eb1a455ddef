import {
  PDFName,
  PDFObjectParser,
  PDFDict,
  PDFRawStream,
  PDFRef,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { damaged } from '../pdf-error';
import { numberOf } from '../pdf-object';
import {
  readCrossReferences,
  startOfObject,
  streamData,
  type CrossReferences,
  type Place,
  type StreamData,
} from './cross-references';
import { unpacked } from './flate';
import { endOfValue, readInteger, skipWhite, standsAt } from './tokens';

/** An object as it is written: from where to where in which bytes, and its data where it is a stream. */
export interface WrittenObject {
  readonly bytes: Uint8Array;
  readonly start: number;
  readonly end: number;
  readonly data: StreamData | null;
}

interface ObjectStream {
  readonly bytes: Uint8Array;
  /** Where each of its objects begins, by its number. */
  readonly starts: ReadonlyMap<number, number>;
}

/** The objects of a file, found by its cross references and each read only when it is asked for. */
export class FileObjects {
  private readonly streams = new Map<number, ObjectStream>();

  private readonly measuring = new Set<number>();

  private constructor(
    private readonly bytes: Uint8Array,
    private readonly context: PDFContext,
    private readonly places: ReadonlyMap<number, Place>,
    readonly trailer: PDFDict,
    readonly highest: number,
  ) {}

  /** Null where the file's cross references are not as they should be: one that is damaged, or written carelessly. */
  static of(bytes: Uint8Array, context: PDFContext): FileObjects | null {
    const references = readCrossReferences(bytes, context);
    if (!references || !leadToObjects(bytes, references)) return null;
    let highest = 0;
    for (const number of references.places.keys()) if (number > highest) highest = number;
    return new FileObjects(bytes, context, references.places, references.trailer, highest);
  }

  /**
   * An object as it stands in the file; null where there is none, or what cannot be told from what follows it.
   *
   * @throws PdfError `damaged`
   */
  written(ref: PDFRef): WrittenObject | null {
    const found = this.beginning(ref);
    if (!found) return null;
    const { bytes, start } = found;
    // Streams are never in a stream (ISO 32000-1, 7.5.7).
    const mayBeStream = bytes === this.bytes && standsAt(bytes, start, '<<');
    const data = mayBeStream ? streamData(bytes, start, (number) => this.numberOf(number)) : null;
    const end = data?.dictEnd ?? endOfValue(bytes, start);
    return end === null ? null : { bytes, start, end, data };
  }

  /** Where an object begins, in which bytes; null where there is none. @throws PdfError `damaged` */
  beginning({ objectNumber, generationNumber }: PDFRef): Pick<WrittenObject, 'bytes' | 'start'> | null {
    const place = this.places.get(objectNumber);
    if (!place) return null;
    if ('stream' in place) {
      const { bytes, starts } = this.objectStream(place.stream);
      const start = starts.get(objectNumber);
      return start === undefined || generationNumber !== 0 ? null : { bytes, start };
    }
    const start = place.generation === generationNumber ? startOfObject(this.bytes, place.at)?.at : undefined;
    return start === undefined ? null : { bytes: this.bytes, start };
  }

  /** Whether the file has an object of this name. */
  has({ objectNumber, generationNumber }: PDFRef): boolean {
    const place = this.places.get(objectNumber);
    return place !== undefined && ('stream' in place ? 0 : place.generation) === generationNumber;
  }

  /** The same as an object of the library; what cannot be read is none. @throws PdfError `damaged` */
  parsed(ref: PDFRef): PDFObject | undefined {
    const written = this.written(ref);
    if (!written) return undefined;
    const { bytes, start, end, data } = written;
    const object = parsedValue(bytes.subarray(start, end), this.context);
    return data && object instanceof PDFDict ? PDFRawStream.of(object, bytes.subarray(data.start, data.end)) : object;
  }

  /** The length of a stream may be told by an object of its own. One that stands in the very stream that it measures has none. */
  private numberOf(objectNumber: number): number | null {
    if (this.measuring.has(objectNumber)) return null;
    this.measuring.add(objectNumber);
    const written = this.written(PDFRef.of(objectNumber));
    this.measuring.delete(objectNumber);
    return written && (readInteger(written.bytes, written.start)?.value ?? null);
  }

  /** ISO 32000-1, 7.5.7. */
  private objectStream(number: number): ObjectStream {
    const known = this.streams.get(number);
    if (known) return known;
    const place = this.places.get(number);
    const found = place && 'at' in place ? this.parsed(PDFRef.of(number, place.generation)) : undefined;
    if (!(found instanceof PDFRawStream)) throw damaged('its objects cannot be read');
    const bytes = unpacked(found);
    const told = (name: string): number => numberOf(found.dict.get(PDFName.of(name)), this.context) ?? 0;
    const starts = new Map<number, number>();
    let at = 0;
    for (let index = told('N'); index > 0; index -= 1) {
      const inIt = readInteger(bytes, skipWhite(bytes, at));
      const offset = inIt && readInteger(bytes, skipWhite(bytes, inIt.end));
      if (!offset) break;
      starts.set(inIt.value, skipWhite(bytes, told('First') + offset.value));
      at = offset.end;
    }
    const stream = { bytes, starts };
    this.streams.set(number, stream);
    return stream;
  }
}

/** Whether at every place begins the object that is said to: otherwise somebody changed the file without telling it. */
function leadToObjects(bytes: Uint8Array, { places }: CrossReferences): boolean {
  for (const [number, place] of places) {
    if ('stream' in place) {
      const stream = places.get(place.stream);
      if (!stream || 'stream' in stream) return false;
    } else {
      const start = startOfObject(bytes, place.at);
      if (start?.objectNumber !== number || start.generation !== place.generation) return false;
    }
  }
  return true;
}

function parsedValue(bytes: Uint8Array, context: PDFContext): PDFObject | undefined {
  try {
    return PDFObjectParser.forBytes(bytes, context).parseObject();
  } catch {
    return undefined;
  }
}
