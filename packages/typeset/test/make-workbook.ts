import ExcelJS from 'exceljs';
import { unzipSync, zipSync } from 'fflate';

/** A workbook as the library writes it. */
export async function workbook(fill: (book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  fill(book);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** A workbook of one sheet with these rows. */
export const rowsBook = (
  rows: readonly (readonly unknown[])[],
  more: (sheet: ExcelJS.Worksheet) => void = () => undefined,
): Promise<Uint8Array> =>
  workbook((book) => {
    const sheet = book.addWorksheet('Sheet');
    for (const row of rows) sheet.addRow([...row]);
    more(sheet);
  });

/** A file with one of its parts changed, or one more. */
export function withPart(bytes: Uint8Array, name: string, change: (text: string) => string): Uint8Array {
  const parts = unzipSync(bytes);
  const text = new TextDecoder().decode(parts[name]);
  return zipSync({ ...parts, [name]: new TextEncoder().encode(change(text)) });
}
