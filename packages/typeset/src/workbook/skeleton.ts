import ExcelJS from 'exceljs';
import { zipSync } from 'fflate';
import { damagedDocument } from '@foglio/pdf';
import { textOf, type PackageParts } from '../office/package-parts';

/**
 * A workbook without what stands in its cells: its sheets with how each is printed, and every style.
 *
 *     the file > its rows taken out, one cell a style put in > read by the library
 *
 * The library reads all that a sheet says of itself, but takes twenty seconds and 600 MB for 100,000 rows; they are read by
 * `sheet-rows.ts`.
 */
export interface Skeleton {
  readonly workbook: ExcelJS.Workbook;
  /** By their indices. */
  readonly styles: readonly Partial<ExcelJS.Style>[];
}

const SHEETS = /^xl\/worksheets\/[^/]+\.xml$/;

/** What the library needs of a file; pictures, charts and whatever runs are not opened at all. */
export const isOfSkeleton = (name: string): boolean =>
  /^(\[Content_Types\]\.xml|_rels\/.*|docProps\/.*|xl\/(workbook|styles|sharedStrings)\.xml|xl\/_rels\/workbook\.xml\.rels|xl\/theme\/.*)$/.test(
    name,
  ) || SHEETS.test(name);

/** What the library is given of a file. @throws PdfError where it cannot be read */
export async function readSkeleton(parts: PackageParts): Promise<Skeleton> {
  const styles = countStyles(textOf(parts['xl/styles.xml']));
  let carriesStyles = true;
  const entries = Object.entries(parts).flatMap(([name, bytes]): [string, Uint8Array][] => {
    if (name === 'xl/sharedStrings.xml') return [];
    if (!SHEETS.test(name)) return [[name, name.endsWith('.rels') ? withoutMissing(bytes) : bytes]];
    const inside = carriesStyles ? stylesAsRows(styles) : '';
    carriesStyles = false;
    return [[name, withoutRows(bytes, inside)]];
  });
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(Buffer.from(zipSync(Object.fromEntries(entries), { level: 0 })) as never);
  } catch (error) {
    throw damagedDocument(`the workbook cannot be read (${(error as Error).message.split('\n')[0]})`);
  }
  const carrier = workbook.worksheets.find((sheet) => sheet.rowCount > 0);
  return {
    workbook,
    styles: Array.from({ length: styles }, (_, at) => carrier?.getCell(at + 1, 1).style ?? {}),
  };
}

const countStyles = (xml: string): number => {
  const formats = /<(?:\w+:)?cellXfs[^>]*>([\s\S]*?)<\/(?:\w+:)?cellXfs>/.exec(xml)?.[1] ?? '';
  return formats.match(/<(?:\w+:)?xf[\s/>]/g)?.length ?? 1;
};

const stylesAsRows = (count: number): string =>
  Array.from({ length: count }, (_, at) => `<row r="${at + 1}"><c r="A${at + 1}" s="${at}"><v>0</v></c></row>`).join(
    '',
  );

/** Found in bytes: as one text a long sheet would take twice its room. */
function withoutRows(sheet: Uint8Array, inside: string): Uint8Array {
  const bytes = Buffer.from(sheet.buffer, sheet.byteOffset, sheet.length);
  const from = bytes.indexOf('<sheetData');
  const to = bytes.lastIndexOf('</sheetData>');
  const begin = from < 0 ? -1 : bytes.indexOf('>', from);
  if (from < 0 || begin < 0) return sheet;
  const head = bytes.subarray(0, from).toString();
  const isEmpty = bytes[begin - 1] === 0x2f;
  const tail = bytes.subarray(isEmpty ? begin + 1 : to + '</sheetData>'.length).toString();
  return Buffer.from(`${head}<sheetData>${inside}</sheetData>${withoutParts(tail)}`);
}

/** What leads to parts that are not opened: the library would look for them. */
const withoutParts = (tail: string): string =>
  tail.replace(
    /<(drawing|legacyDrawing|legacyDrawingHF|picture|oleObjects|controls|tableParts|extLst)\b(?:[^>]*\/>|[\s\S]*?<\/\1>)/g,
    '',
  );

function withoutMissing(rels: Uint8Array): Uint8Array {
  return Buffer.from(
    textOf(rels).replace(
      /<Relationship\b[^>]*Type="[^"]*\/(?:vbaProject|externalLink|pivotCacheDefinition|customXml|chartsheet|sharedStrings)"[^>]*\/>/g,
      '',
    ),
  );
}
