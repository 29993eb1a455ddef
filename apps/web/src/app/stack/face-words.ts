import type { PrintedFace, StackRecord } from '@foglio/api';

/** Says a printed face by what stands on it. */
export type FaceWords = (face: PrintedFace) => string;

const keyOf = ({ job, document, page }: PrintedFace): string => `${job} ${document} ${page}`;

/** How faces are called, by what was told of the files that were sent: "page 3", "pages 3, 4", "programme.pdf 3, minutes.pdf 1". */
export function faceWords({ pages = [], documents = [] }: Pick<StackRecord, 'pages' | 'documents'>): FaceWords {
  const known = new Map(pages.map((page) => [keyOf(page), page.cells]));
  return (face) => {
    const cells = known.get(keyOf(face));
    // What lies in a printer's output may be of anybody.
    if (!cells) return `page ${face.page} of the file sent`;
    if (cells.length === 0) return 'blank';
    const numbers = (of: number): string =>
      cells
        .filter(({ document }) => document === of)
        .map(({ page }) => page)
        .join(', ');
    const those = [...new Set(cells.map(({ document }) => document))];
    if (documents.length > 1) return those.map((of) => `${documents[of - 1] ?? of} ${numbers(of)}`).join(', ');
    return `${cells.length === 1 ? 'page' : 'pages'} ${numbers(those[0]!)}`;
  };
}
