import { deflateSync } from 'node:zlib';
import { PDFName, PDFObject, PDFRef, PDFStream, type PDFContext } from '@cantoo/pdf-lib';
import type { WrittenObject } from './file-objects';
import { hasObject, objectOf } from './lazy-context';
import { copyValue, writeObject, type Rename } from './serialise';
import { WrittenBytes } from './written-bytes';

/** Where the references of some objects lead. */
export interface Space {
  readonly context: PDFContext;
  /** Objects of others that stand under a reference of this one. */
  readonly taken?: ReadonlyMap<PDFRef, Taken>;
}

/** An object of another space. */
export interface Taken {
  readonly space: Space;
  readonly ref: PDFRef;
}

/** Data of so many bytes are a piece of their own, and not copied. */
const HANDED_ON = 1 << 16;

/** Of objects that are packed together, in bytes: more are packed no better. */
const PACKED_AT_ONCE = 1 << 17;

const HEADER = '%PDF-1.7\n%\x81\x81\x81\x81\n';
const LENGTH = PDFName.of('Length');

/**
 * Writes what the trailer of a space leads to, and nothing else, as a file with object streams and without a lock. Objects of a
 * file that nobody touched are copied as they stand, under new numbers; of large streams the data are not even copied, but handed on.
 *
 * @returns the file in pieces
 */
export function writeFile(space: Space): Uint8Array[] {
  return new FileWriter().write(space);
}

type Entry = readonly [kind: number, second: number, third: number];

class FileWriter {
  private readonly pieces: Uint8Array[] = [];
  private at = 0;
  private readonly numbers = new Map<Space, Map<PDFRef, number>>();
  private readonly pending: Taken[] = [];
  /** Of each object by its number; 0 is the head of the free ones, of which there are none. */
  private readonly entries: Entry[] = [[0, 0, 65_535]];
  private readonly out = new WrittenBytes();
  private readonly dict = new WrittenBytes();
  private packing = { numbers: [] as number[], starts: [] as number[], bytes: new WrittenBytes() };

  write(space: Space): Uint8Array[] {
    const { Root, Info } = space.context.trailerInfo;
    const rename = this.renameIn(space);
    const [root, info] = [Root, Info].map((ref) => (ref instanceof PDFRef ? rename(ref) : null));
    this.out.text(HEADER);
    for (let index = 0; index < this.pending.length; index += 1) this.object(this.pending[index] as Taken);
    this.pack();
    this.crossReferences(`/Root ${root} 0 R${info === null ? '' : ` /Info ${info} 0 R`}`);
    return this.pieces;
  }

  /** Numbers are given as references are met, so what nothing leads to has none. */
  private renameIn(space: Space): Rename {
    const numbers = this.numbers.get(space) ?? new Map<PDFRef, number>();
    this.numbers.set(space, numbers);
    return (ref) => {
      const known = numbers.get(ref);
      if (known !== undefined) return known;
      const taken = space.taken?.get(ref);
      if (taken) return this.renameIn(taken.space)(taken.ref);
      if (!hasObject(space.context, ref)) return null;
      const number = this.newNumber();
      numbers.set(ref, number);
      this.pending.push({ space, ref });
      return number;
    };
  }

  private newNumber(): number {
    return this.entries.push([0, 0, 0]) - 1;
  }

  private object({ space, ref }: Taken): void {
    const rename = this.renameIn(space);
    const number = rename(ref) as number;
    const found = objectOf(space.context, ref);
    if (found === null) this.packed(number, (out) => out.text('null'));
    else if (found instanceof PDFStream) this.stream(number, found, rename);
    else if (found instanceof PDFObject) this.packed(number, (out) => writeObject(found, rename, out));
    else this.asItStands(number, found, { space, ref }, rename);
  }

  private asItStands(number: number, written: WrittenObject, { space, ref }: Taken, rename: Rename): void {
    const { bytes, start, end, data } = written;
    if (!data) {
      this.packed(number, (out) => copyValue(bytes, start, end, rename, out));
    } else if (data.isLengthRight) {
      copyValue(bytes, start, end, rename, this.begin(number));
      this.data(bytes.subarray(data.start, data.end));
    } else {
      const stream = space.context.lookup(ref);
      if (stream instanceof PDFStream) this.stream(number, stream, rename);
      else this.packed(number, (out) => out.text('null'));
    }
  }

  private stream(number: number, stream: PDFStream, rename: Rename): void {
    const data = stream.getContents();
    const out = this.begin(number);
    writeObject(stream.dict, rename, this.dict, LENGTH);
    out.copy(this.dict.take().subarray(0, -2)).text(`/Length ${data.length}>>`);
    this.data(data);
  }

  private begin(number: number): WrittenBytes {
    this.entries[number] = [1, this.at + this.out.length, 0];
    return this.out.text(`${number} 0 obj\n`);
  }

  /** Behind the dictionary of a stream. */
  private data(data: Uint8Array): void {
    this.out.text('\nstream\n');
    if (data.length < HANDED_ON) this.out.copy(data);
    else {
      this.piece(this.out.take());
      this.piece(data);
    }
    this.out.text('\nendstream\nendobj\n');
    if (this.out.length > HANDED_ON) this.piece(this.out.take());
  }

  private packed(number: number, write: (out: WrittenBytes) => void): void {
    const { numbers, starts, bytes } = this.packing;
    numbers.push(number);
    starts.push(bytes.length);
    write(bytes);
    bytes.text('\n');
    if (bytes.length >= PACKED_AT_ONCE) this.pack();
  }

  /** ISO 32000-1, 7.5.7. */
  private pack(): void {
    const { numbers, starts, bytes } = this.packing;
    if (numbers.length === 0) return;
    const stream = this.newNumber();
    numbers.forEach((number, index) => (this.entries[number] = [2, stream, index]));
    const head = new WrittenBytes()
      .text(`${numbers.map((number, index) => `${number} ${starts[index]}`).join(' ')}\n`)
      .take();
    const packed = deflateSync(Buffer.concat([head, bytes.take()]));
    this.begin(stream).text(
      `<</Type/ObjStm/N ${numbers.length}/First ${head.length}/Filter/FlateDecode/Length ${packed.length}>>`,
    );
    this.data(packed);
    this.packing = { numbers: [], starts: [], bytes };
  }

  /** Rows differ little from the one above, so what is packed is how much (ISO 32000-1, 7.5.8 and 7.4.4.4). */
  private crossReferences(trailer: string): void {
    const stream = this.newNumber();
    const start = this.at + this.out.length;
    this.entries[stream] = [1, start, 0];
    const wide = [1, 2, 3, 4].find((bytes) => Math.max(start, this.entries.length) < 256 ** bytes) ?? 5;
    const widths = [1, wide, 2] as const;
    const rows = predictedRows(this.entries, widths);
    const packed = deflateSync(rows);
    const columns = widths[0] + widths[1] + widths[2];
    this.begin(stream).text(
      `<</Type/XRef/Size ${this.entries.length}/W[${widths.join(' ')}] ${trailer}/Filter/FlateDecode` +
        `/DecodeParms<</Predictor 12/Columns ${columns}>>/Length ${packed.length}>>`,
    );
    this.data(packed);
    this.piece(this.out.text(`startxref\n${start}\n%%EOF\n`).take());
  }

  private piece(bytes: Uint8Array): void {
    this.pieces.push(bytes);
    this.at += bytes.length;
  }
}

function predictedRows(entries: readonly Entry[], widths: readonly [number, number, number]): Uint8Array {
  const columns = widths[0] + widths[1] + widths[2];
  const rows = new Uint8Array(entries.length * (columns + 1));
  let above = new Uint8Array(columns);
  entries.forEach((entry, index) => {
    const row = new Uint8Array(columns);
    let at = 0;
    entry.forEach((value, field) => {
      const width = widths[field] as number;
      for (let byte = 0; byte < width; byte += 1) row[at + byte] = Math.floor(value / 256 ** (width - 1 - byte)) % 256;
      at += width;
    });
    const start = index * (columns + 1);
    rows[start] = 2;
    for (let column = 0; column < columns; column += 1) {
      rows[start + 1 + column] = (row[column] as number) - (above[column] as number);
    }
    above = row;
  });
  return rows;
}
