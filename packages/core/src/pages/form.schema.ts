const yesOrNo = (description: string) => ({ type: 'boolean', description }) as const;

/** What can be asked of how a document without pages of its own (a workbook, a text) is laid out; lengths in points. */
export const formSchema = {
  type: 'object',
  additionalProperties: false,
  description:
    'How a document that has no pages of its own is laid out as pages; what is not said is as the document itself has it',
  properties: {
    paper: { type: 'string', minLength: 1, maxLength: 255, description: 'Its pages: a PWG 5101.1 size name' },
    orientation: { enum: ['portrait', 'landscape'], description: 'Of its pages' },
    sheets: {
      type: 'array',
      minItems: 1,
      maxItems: 1000,
      uniqueItems: true,
      items: { type: 'string', minLength: 1, maxLength: 255 },
      description: 'Of a workbook: the sheets by their names, in the order wanted',
    },
    fit: {
      enum: ['actual', 'width', 'page', 'readable'],
      description:
        'Of a table: at its own size; all columns on one page wide; all of a sheet on one page; on the fewest pages on which the smallest text is 7 points high',
    },
    gridLines: yesOrNo('Of a table: lines between all cells'),
    headings: yesOrNo('Of a table: the letters of columns and the numbers of rows'),
    wholeSheet: yesOrNo('Of a workbook: all of each sheet, whatever print area it has'),
    hidden: yesOrNo('Of a workbook: hidden rows and columns too'),
    delimiter: { enum: [',', ';', '\t', '|'], description: 'Of a table in text: what stands between its fields' },
    encoding: {
      enum: ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252', 'iso-8859-15', 'windows-1251', 'macintosh'],
      description: 'Of a text, or a table in text: how its letters are written',
    },
    header: yesOrNo('Of a table in text: its first line heads the columns, on every page'),
    typeSize: {
      type: 'number',
      minimum: 5,
      maximum: 24,
      description: 'Of a text: the height of its letters, in points',
    },
    style: {
      enum: ['print', 'screen', 'reading'],
      description: 'Of a web page: as it is for paper, as it is on a screen, or the article alone',
    },
    pictures: yesOrNo('Of a web page: its pictures too'),
    links: yesOrNo('Of a web page: where its links lead, as notes at the end'),
    backgrounds: yesOrNo('Of a web page: its backgrounds too'),
    changes: yesOrNo('Of a word-processing document: tracked changes marked, and not as if taken over'),
    comments: yesOrNo('Of a word-processing document: its comments, at the end'),
    attachment: {
      type: 'string',
      minLength: 1,
      maxLength: 255,
      description: 'Of a mail: an attachment by its name, as a document of its own in the place of the message',
    },
    columns: { type: 'integer', minimum: 1, maximum: 4, description: 'Of a plain text: columns on a page' },
  },
} as const;
