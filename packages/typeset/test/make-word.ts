import { strToU8, zipSync } from 'fflate';

/** A text document written by hand, for what the package `docx` does not write. */
export interface HandWritten {
  /** What stands in `w:body`. */
  readonly body: string;
  readonly styles?: string;
  readonly numbering?: string;
  readonly settings?: string;
  /** Parts by their names under `word/`, and what the text refers to them by. */
  readonly parts?: Readonly<Record<string, string | Uint8Array>>;
  readonly relations?: string;
  /** The namespace of its elements: the transitional one unless said otherwise. */
  readonly namespace?: string;
}

const TRANSITIONAL = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

export const relation = (id: string, kind: string, target: string, more = ''): string =>
  `<Relationship Id="${id}" Type="${OFFICE}/${kind}" Target="${target}" ${more}/>`;

const listed = (inside: string): string =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inside}</Relationships>`;

/** A paragraph of plain text. */
export const p = (text: string, properties = ''): string =>
  `<w:p>${properties === '' ? '' : `<w:pPr>${properties}</w:pPr>`}${r(text)}</w:p>`;

export const r = (text: string, properties = ''): string =>
  `<w:r>${properties === '' ? '' : `<w:rPr>${properties}</w:rPr>`}<w:t xml:space="preserve">${text}</w:t></w:r>`;

/** A field in characters, with what it showed last. */
export const field = (instruction: string, last: string): string =>
  `<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText>${instruction}</w:instrText></w:r>` +
  `<w:r><w:fldChar w:fldCharType="separate"/></w:r>${r(last)}<w:r><w:fldChar w:fldCharType="end"/></w:r>`;

export const A4 =
  '<w:pgSz w:w="11906" w:h="16838"/><w:pgMar w:top="1440" w:right="1440" w:bottom="1440" w:left="1440" w:header="708" w:footer="708"/>';

export function wordFile(word: HandWritten): Uint8Array {
  const { body, styles, numbering, settings, parts = {}, relations = '', namespace = TRANSITIONAL } = word;
  const root = (name: string, inside: string): string =>
    `<?xml version="1.0"?><w:${name} xmlns:w="${namespace}" xmlns:r="${OFFICE}" ` +
    'xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:v="urn:schemas-microsoft-com:vml" ' +
    'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture" ' +
    'xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006" ' +
    `xmlns:wps="http://schemas.microsoft.com/office/word/2010/wordprocessingShape">${inside}</w:${name}>`;
  const own = { styles, numbering, settings };
  const entries: [string, string | Uint8Array][] = [
    ['_rels/.rels', listed(relation('main', 'officeDocument', 'word/document.xml'))],
    ['word/document.xml', root('document', `<w:body>${body}</w:body>`)],
    [
      'word/_rels/document.xml.rels',
      listed(
        Object.entries(own)
          .map(([name, inside]) => (inside === undefined ? '' : relation(name, name, `${name}.xml`)))
          .join('') + relations,
      ),
    ],
    ...Object.entries(own).flatMap(([name, inside]): [string, string][] =>
      inside === undefined ? [] : [[`word/${name}.xml`, root(name, inside)]],
    ),
    ...Object.entries(parts).map(([name, inside]): [string, string | Uint8Array] => [
      `word/${name}`,
      typeof inside === 'string' && !inside.startsWith('<?xml') ? root('hdr', inside) : inside,
    ]),
  ];
  return zipSync(
    Object.fromEntries(entries.map(([name, inside]) => [name, typeof inside === 'string' ? strToU8(inside) : inside])),
  );
}
