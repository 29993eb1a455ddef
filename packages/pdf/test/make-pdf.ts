/** Writes small PDFs by hand, so that tests can have boxes and trees that no library would write. */
export function makePdf(objects: Readonly<Record<number, string>>, root = 1): Uint8Array {
  const numbers = Object.keys(objects).map(Number);
  let body = '%PDF-1.7\n';
  const offsets = new Map<number, number>();
  for (const number of numbers) {
    offsets.set(number, body.length);
    body += `${number} 0 obj\n${objects[number]}\nendobj\n`;
  }
  const size = Math.max(...numbers) + 1;
  const rows = Array.from({ length: size }, (_, number) => {
    const offset = offsets.get(number);
    return offset === undefined ? '0000000000 65535 f \n' : `${String(offset).padStart(10, '0')} 00000 n \n`;
  });
  const start = body.length;
  body += `xref\n0 ${size}\n${rows.join('')}trailer\n<< /Size ${size} /Root ${root} 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  // A byte a letter, so that streams may hold any bytes.
  return new Uint8Array(Buffer.from(body, 'latin1'));
}

export const stream = (content: string, entries = ''): string =>
  `<< /Length ${content.length} ${entries} >>\nstream\n${content}\nendstream`;

/** Catalog, page tree, Helvetica as object 9, and so many pages from object 10 on, each with its own entries. */
export function pagesPdf(pages: readonly string[], treeEntries = ''): Uint8Array {
  const kids = pages.map((_, index) => `${10 + index} 0 R`).join(' ');
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: `<< /Type /Pages /Kids [${kids}] /Count ${pages.length} /Resources << /Font << /F1 9 0 R >> >> ${treeEntries} >>`,
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    ...Object.fromEntries(pages.map((entries, index) => [10 + index, `<< /Type /Page /Parent 2 0 R ${entries} >>`])),
    100: stream('BT /F1 24 Tf 60 60 Td (upright words) Tj ET 0.2 0.4 0.8 rg 100 100 80 30 re f'),
    101: stream('q 1 0 0 1 20 20 cm'),
    102: stream('BT /F1 12 Tf 10 10 Td (second part) Tj ET Q'),
    // An array that stands in itself.
    103: '[100 0 R 103 0 R]',
  });
}

/** So many pages of a size, each with its number as a word ("page7") near its upper left corner. */
export function numberedPdf(count: number, width = 595.276, height = 841.89): Uint8Array {
  const numbers = Array.from({ length: count }, (_, index) => index + 1);
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: `<< /Type /Pages /Kids [${numbers.map((page) => `${2 * page + 8} 0 R`).join(' ')}] /Count ${count} /MediaBox [0 0 ${width} ${height}] /Resources << /Font << /F1 9 0 R >> >> >>`,
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    ...Object.fromEntries(
      numbers.flatMap((page) => [
        [2 * page + 8, `<< /Type /Page /Parent 2 0 R /Contents ${2 * page + 9} 0 R >>`],
        [2 * page + 9, stream(`BT /F1 30 Tf 50 ${height - 90} Td (page${page}) Tj ET`)],
      ]),
    ),
  });
}
