import { strToU8, zipSync } from 'fflate';

/** About the letters of a report of twenty pages. */
const PARAGRAPHS = 150;

/** After so many it is read in a quarter of the time. */
const ROUNDS = 4;

const TEXT = 'Every one of the concerts needs programmes, tickets and a plan of the seats in time. ';

const NAMESPACE = 'http://schemas.openxmlformats.org';

/**
 * Reads a text document made up for it, as those that come in are read: an engine runs code slowly until it has run often,
 * and reads it from the disk before that. Whoever waits for work does this meanwhile.
 *
 * @returns how many of its sections were read
 */
export async function rehearseReading(): Promise<number> {
  const { readWord } = await import('./word/read-word');
  const paragraph = (at: number): string =>
    `<w:p><w:pPr><w:spacing w:after="120"/></w:pPr>${`<w:r><w:rPr><w:b/></w:rPr><w:t>${at}. ${TEXT}</w:t></w:r>`.repeat(2)}</w:p>`;
  const size = '<w:sectPr><w:pgSz w:w="11906" w:h="16838"/></w:sectPr>';
  const body = Array.from({ length: PARAGRAPHS }, (_, at) => paragraph(at)).join('') + size;
  const bytes = zipSync({
    '_rels/.rels': strToU8(
      `<Relationships xmlns="${NAMESPACE}/package/2006/relationships"><Relationship Id="a" Type="${NAMESPACE}/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>`,
    ),
    'word/document.xml': strToU8(
      `<w:document xmlns:w="${NAMESPACE}/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
  });
  let read = 0;
  for (let round = 0; round < ROUNDS; round += 1) read += readWord(bytes, {}).document.sections.length;
  return read;
}
