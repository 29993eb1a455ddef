import { makePdf, stream } from '../../../packages/pdf/test/make-pdf';

const SECTIONS = [
  { title: 'First steps', page: 7 },
  { title: 'Fees', page: 12 },
  { title: 'Terms', page: 18 },
];

const RED = '0.7 0.1 0.1 rg 100 600 50 50 re f';

/**
 * Twenty A4 pages, the first six labelled i to vi, the others 1 to 14, with an outline of three sections;
 * page 7 holds colour.
 */
export function labelledPdf(): Uint8Array {
  const numbers = Array.from({ length: 20 }, (_, index) => index + 1);
  const entry = ({ title, page }: (typeof SECTIONS)[number], index: number): string => {
    const next = index < SECTIONS.length - 1 ? `/Next ${61 + index} 0 R` : '';
    const previous = index > 0 ? `/Prev ${59 + index} 0 R` : '';
    return `<< /Title (${title}) /Parent 5 0 R /Dest [${page + 9} 0 R /Fit] ${next} ${previous} >>`;
  };
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R /Outlines 5 0 R /PageLabels << /Nums [0 << /S /r >> 6 << /S /D >>] >> >>',
    2: `<< /Type /Pages /Kids [${numbers.map((page) => `${page + 9} 0 R`).join(' ')}] /Count 20 /MediaBox [0 0 595.276 841.89] /Resources << /Font << /F1 3 0 R >> >> >>`,
    3: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    5: '<< /Type /Outlines /First 60 0 R /Last 62 0 R /Count 3 >>',
    ...Object.fromEntries(
      numbers.flatMap((page) => [
        [page + 9, `<< /Type /Page /Parent 2 0 R /Contents ${page + 29} 0 R >>`],
        [page + 29, stream(`BT /F1 12 Tf 100 700 Td (Page ${page}) Tj ET ${page === 7 ? RED : ''}`)],
      ]),
    ),
    ...Object.fromEntries(SECTIONS.map((section, index) => [60 + index, entry(section, index)])),
  });
}
