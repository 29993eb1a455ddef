import {
  AlignmentType,
  Document,
  Footer,
  FootnoteReferenceRun,
  Header,
  HeadingLevel,
  Packer,
  PageNumber,
  Paragraph,
  TextRun,
} from 'docx';

const LINE =
  'The spring season brings eleven concerts in four halls, and every one of them needs programmes, tickets and a plan of the seats in time. ';

/** Paragraphs that fill a page with their heading and a note. */
const ON_A_PAGE = 7;

/**
 * A report as an office writes it: headings, justified paragraphs, a note on every page, head and foot with page numbers.
 *
 * @param pages about so many, A4
 * @param title another one makes another file
 */
export async function textDocument(pages: number, title: string): Promise<Uint8Array> {
  const paragraph = (at: number, note: number | null): Paragraph =>
    new Paragraph({
      alignment: AlignmentType.JUSTIFIED,
      spacing: { after: 120 },
      children: [
        new TextRun(`${at}. ${LINE.repeat(3)}`),
        ...(note === null ? [] : [new FootnoteReferenceRun(note)]),
        new TextRun({ text: LINE, italics: at % 3 === 0 }),
      ],
    });
  const children = Array.from({ length: pages }, (_, page) => [
    new Paragraph({ text: `${title}, part ${page + 1}`, heading: HeadingLevel.HEADING_1, pageBreakBefore: page > 0 }),
    ...Array.from({ length: ON_A_PAGE }, (__, at) => paragraph(at, at === 2 ? page + 1 : null)),
  ]).flat();
  const document = new Document({
    styles: { default: { document: { run: { font: 'Calibri', size: 22 } } } },
    footnotes: Object.fromEntries(
      Array.from({ length: pages }, (_, at) => [at + 1, { children: [new Paragraph(` Note ${at + 1}. ${LINE}`)] }]),
    ),
    sections: [
      {
        properties: { page: { size: { width: 11_906, height: 16_838 } } },
        headers: { default: new Header({ children: [new Paragraph(title)] }) },
        footers: {
          default: new Footer({
            children: [
              new Paragraph({
                alignment: AlignmentType.RIGHT,
                children: [new TextRun({ children: ['Page ', PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES] })],
              }),
            ],
          }),
        },
        children,
      },
    ],
  });
  return new Uint8Array(await Packer.toBuffer(document));
}
