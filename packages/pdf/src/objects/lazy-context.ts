import { PDFDict, PDFName, type PDFObject, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import { nameOf } from '../pdf-object';
import type { FileObjects, WrittenObject } from './file-objects';
import { endOfToken, entryOf, standsAt } from './tokens';

/** Objects by their references, each made of what stands in the file when it is first asked for. */
class ObjectsOfFile extends Map<PDFRef, PDFObject> {
  private readonly gone = new Set<PDFRef>();

  constructor(readonly file: FileObjects) {
    super();
  }

  /** An object that was made or read by now. */
  made(ref: PDFRef): PDFObject | undefined {
    return super.get(ref);
  }

  isGone(ref: PDFRef): boolean {
    return this.gone.has(ref);
  }

  override get(ref: PDFRef): PDFObject | undefined {
    const known = super.get(ref);
    if (known !== undefined || this.gone.has(ref)) return known;
    const found = this.file.parsed(ref);
    if (found === undefined) this.gone.add(ref);
    else super.set(ref, found);
    return found;
  }

  override delete(ref: PDFRef): boolean {
    this.gone.add(ref);
    return super.delete(ref);
  }

  override set(ref: PDFRef, object: PDFObject): this {
    this.gone.delete(ref);
    return super.set(ref, object);
  }
}

/** The part of the library's context that is not public. */
interface Contents {
  indirectObjects: Map<PDFRef, PDFObject>;
}

/**
 * Has a context of the library find its objects in a file. The library itself reads every object of a file before it gives
 * the first, and makes objects of them all.
 */
export function findInFile(context: PDFContext, file: FileObjects): void {
  (context as unknown as Contents).indirectObjects = new ObjectsOfFile(file);
  context.largestObjectNumber = file.highest;
  const entries = file.trailer;
  for (const [name, value] of entries.entries()) {
    const key = name.decodeText();
    if (key === 'Root' || key === 'Info' || key === 'ID') context.trailerInfo[key] = value;
  }
}

/** An object of a context: as it stands in its file where nothing was made of it yet; null where there is none. */
export function objectOf(context: PDFContext, ref: PDFRef): PDFObject | WrittenObject | null {
  const objects = (context as unknown as Contents).indirectObjects;
  if (!(objects instanceof ObjectsOfFile)) return objects.get(ref) ?? null;
  const made = objects.made(ref);
  if (made !== undefined) return made;
  return objects.isGone(ref) ? null : objects.file.written(ref);
}

/** Whether there is one. */
export function hasObject(context: PDFContext, ref: PDFRef): boolean {
  const objects = (context as unknown as Contents).indirectObjects;
  if (!(objects instanceof ObjectsOfFile)) return objects.has(ref);
  return objects.made(ref) !== undefined || (!objects.isGone(ref) && objects.file.has(ref));
}

/** A name that a dictionary holds, found without making an object of it where none was made yet; null where it holds none. */
export function nameIn(context: PDFContext, ref: PDFRef, key: string): string | null {
  const objects = (context as unknown as Contents).indirectObjects;
  const made = objects instanceof ObjectsOfFile ? objects.made(ref) : objects.get(ref);
  if (made !== undefined || !(objects instanceof ObjectsOfFile)) {
    return made instanceof PDFDict ? nameOf(made.get(PDFName.of(key)), context) : null;
  }
  const found = objects.isGone(ref) ? null : objects.file.beginning(ref);
  const at = found && standsAt(found.bytes, found.start, '<<') ? entryOf(found.bytes, found.start, key) : null;
  if (!found || at === null || found.bytes[at] !== 0x2f) return null;
  return Buffer.from(found.bytes.subarray(at + 1, endOfToken(found.bytes, at + 1))).toString('latin1');
}
