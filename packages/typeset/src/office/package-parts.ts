import { damagedDocument, tooMuch } from '@foglio/pdf';
import { unzipSync } from 'fflate';

/** More than any document of an office holds once it is unpacked, in bytes; a small file may unpack to far more. */
const MOST_UNPACKED = 600 * 1024 * 1024;

/** The parts of an Office Open XML file by their names (ECMA-376, part 2: a ZIP file). */
export type PackageParts = Readonly<Record<string, Uint8Array>>;

/**
 * Unpacks a file.
 *
 * @param wanted by name; the others are named, but not unpacked
 * @throws PdfError where it is damaged, or takes too much room
 */
export function unpack(bytes: Uint8Array, wanted: (name: string) => boolean): { parts: PackageParts; names: string[] } {
  const names: string[] = [];
  let sum = 0;
  try {
    const parts = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        names.push(name);
        if (!wanted(name)) return false;
        sum += originalSize;
        if (sum > MOST_UNPACKED) throw tooMuch('room');
        return true;
      },
    });
    return { parts, names };
  } catch (error) {
    if (error instanceof Error && error.name === 'PdfError') throw error;
    throw damagedDocument('it is not a whole ZIP file');
  }
}

/** The letters of a part, whole. */
export const textOf = (part: Uint8Array | undefined): string => new TextDecoder().decode(part);
