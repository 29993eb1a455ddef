import { deflateSync } from 'node:zlib';
import { makePdf, numberedPdf } from './make-pdf';

/** Files made to hang, fill or crash whoever reads them. */

/** A stream of so many million zeros, packed twice, so that a few hundred bytes hold it. */
function bomb(megabytes: number, entries: string): string {
  const packed = deflateSync(deflateSync(Buffer.alloc(megabytes << 20), { level: 9 }), { level: 9 });
  const head = `<< ${entries} /Length ${packed.length} /Filter [/FlateDecode /FlateDecode] >>`;
  return `${head}\nstream\n${packed.toString('latin1')}\nendstream`;
}

const tree = (page: string, contents: Readonly<Record<number, string>>): Uint8Array =>
  makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 595.276 841.89] >>',
    3: `<< /Type /Page /Parent 2 0 R ${page} >>`,
    ...contents,
  });

/** Two content streams, which must be unpacked to be joined. */
export const contentBomb = (megabytes: number): Uint8Array =>
  tree('/Contents [4 0 R 4 0 R]', { 4: bomb(megabytes, '') });

/** Objects within a stream, which must be unpacked to know the file at all, since nothing says where its objects stand. */
export const objectBomb = (megabytes: number): Uint8Array =>
  withoutTable(tree('', { 4: bomb(megabytes, '/Type /ObjStm /N 1000 /First 10') }));

const withoutTable = (pdf: Uint8Array): Uint8Array =>
  Buffer.from(
    Buffer.from(pdf)
      .toString('latin1')
      .replace(/startxref\n\d+/, 'startxref\n0'),
    'latin1',
  );

/** A form that draws itself. */
export const cyclicForm = (): Uint8Array =>
  tree('/Contents 5 0 R /Resources << /XObject << /I 4 0 R >> >>', {
    4: '<< /Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /I 4 0 R >> >> /Length 11 >>\nstream\n/I Do /I Do\nendstream',
    5: '<< /Length 5 >>\nstream\n/I Do\nendstream',
  });

/** A page tree that leads back to itself. */
export const cyclicTree = (): Uint8Array =>
  makePdf({ 1: '<< /Type /Catalog /Pages 2 0 R >>', 2: '<< /Type /Pages /Kids [2 0 R] /Count 1 >>' });

/** An outline whose entries follow each other in a circle. */
export const cyclicOutline = (): Uint8Array =>
  makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R /Outlines 4 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] >>',
    3: '<< /Type /Page /Parent 2 0 R >>',
    4: '<< /First 5 0 R /Last 5 0 R >>',
    5: '<< /Title (x) /Parent 4 0 R /Next 6 0 R /Dest [3 0 R /Fit] >>',
    6: '<< /Title (y) /Next 5 0 R /First 5 0 R /Dest [3 0 R /Fit] >>',
  });

/** One page, and so many objects beside it without a table that says where they are. */
export function manyObjects(count: number): Uint8Array {
  const page = Buffer.from(numberedPdf(1))
    .toString('latin1')
    .replace(/xref[\s\S]*$/, '');
  const objects = Array.from({ length: count }, (_, index) => `${index + 100} 0 obj\n[${index}]\nendobj\n`);
  return new Uint8Array(
    Buffer.from(`${page}${objects.join('')}trailer\n<< /Root 1 0 R >>\nstartxref\n0\n%%EOF\n`, 'latin1'),
  );
}
