import { keyword, OPERATIONS, rangeOf, STATUS, type Value } from '@foglio/ipp';
import { Refusal, type ServedPrinter } from '@foglio/ipp/serving';
import type { Manner } from './manner';
import { telling, unnamed, without } from './telling';

/** A printer that knows nothing of some attributes of jobs, says so, and refuses a job that tells of them. */
const ignorant = (printer: ServedPrinter, names: readonly string[]): ServedPrinter => ({
  ...telling(printer, (told) => ({
    ...without(told, (name) => names.some((one) => name === `${one}-supported`)),
    'job-creation-attributes-supported': unnamed(told['job-creation-attributes-supported'], names),
  })),
  knows: (name) => !names.includes(name) && printer.knows(name),
});

const ORDER_OF_COPIES = ['sheet-collate', 'multiple-document-handling'];

/** What a printer must do at least to print something (RFC 8011, 5.4.15). */
const LEAST = [
  OPERATIONS.printJob,
  OPERATIONS.validateJob,
  OPERATIONS.cancelJob,
  OPERATIONS.getJobAttributes,
  OPERATIONS.getJobs,
  OPERATIONS.getPrinterAttributes,
];

const media = (value: string): Value => ({ tag: 'mimeMediaType', value });
const RASTER = 'image/pwg-raster';
const JPEG = 'image/jpeg';
const MOST_COPIES = 2;

/** @throws Refusal where it is PDF after all */
async function* noPdf(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let head = '';
  for await (const part of bytes) {
    if (head.length < 4) head += Buffer.from(part.subarray(0, 4)).toString('latin1');
    if (head.startsWith('%PDF')) throw new Refusal(STATUS.documentFormatError, 'this is PDF');
    yield part;
  }
}

/** Of what they can do, and whether they say so. */
export const abilities = {
  'no-overrides': {
    is: 'prints all pages of a job alike',
    served: (printer) => ignorant(printer, ['overrides']),
  },
  'no-collate': {
    is: 'knows nothing of the order of copies, nor of scaling and quality',
    served: (printer) => ignorant(printer, [...ORDER_OF_COPIES, 'print-scaling', 'print-quality']),
  },
  'one-copy': {
    is: 'cannot be told how many copies',
    served: (printer) => ignorant(printer, ['copies', ...ORDER_OF_COPIES]),
  },
  'two-copies': {
    is: 'makes two copies and no more',
    served: (printer) => ({
      ...telling(printer, (told) => ({ ...told, 'copies-supported': [rangeOf(1, MOST_COPIES)] })),
      takes: (name, values) =>
        printer.takes(name, values) &&
        (name !== 'copies' || values.every((value) => value.tag === 'integer' && value.value <= MOST_COPIES)),
    }),
  },
  'no-grey': {
    is: 'prints in colour whatever it is told',
    served: (printer) => ignorant(printer, ['print-color-mode']),
  },
  ignores: {
    is: 'says that it takes what it then leaves out, where nothing hangs on it',
    served: (printer) => ({
      ...printer,
      leavesOut: true,
      knows: (name) => !['print-scaling', 'print-quality'].includes(name) && printer.knows(name),
    }),
  },
  'says-little': {
    is: 'tells nothing of what jobs may ask for, and takes it all',
    served: (printer) =>
      telling(printer, (told) =>
        without(told, (name) => name.endsWith('-supported') && !name.startsWith('overrides') && !ABOUT.includes(name)),
      ),
  },
  'job-at-once': {
    is: 'takes a job and its document at once, and in no other way',
    served: (printer) => ({
      ...telling(printer, (told) => ({
        ...told,
        'operations-supported': LEAST.map((value): Value => ({ tag: 'enum', value })),
      })),
      operations: LEAST,
    }),
  },
  'no-pdf': {
    is: 'takes pictures of pages, and no PDF',
    served: (printer) => ({
      ...telling(printer, (told) => ({
        ...told,
        'document-format-supported': [media(RASTER)],
        'pwg-raster-document-resolution-supported': [{ tag: 'resolution', value: { cross: 50, feed: 50, unit: 3 } }],
        'pwg-raster-document-type-supported': ['sgray_8', 'srgb_8'].map(keyword),
        'pwg-raster-document-sheet-back': [keyword('rotated')],
      })),
      formats: [RASTER],
      receive: (job, document) => printer.receive(job, { ...document, bytes: noPdf(document.bytes) }),
    }),
  },
  'jpeg-alone': {
    is: 'takes a picture of one side, and nothing else',
    served: (printer) => ({
      ...telling(printer, (told) => ({ ...told, 'document-format-supported': [media(JPEG)] })),
      formats: [JPEG],
      receive: (job, document) => printer.receive(job, { ...document, bytes: noPdf(document.bytes) }),
    }),
  },
  'no-format': {
    is: 'takes neither PDF nor pictures of pages',
    served: (printer) => ({
      ...telling(printer, (told) => ({ ...told, 'document-format-supported': [media('application/postscript')] })),
      formats: ['application/postscript'],
    }),
  },
} satisfies Readonly<Record<string, Manner>>;

/** What is told of a printer itself with such a name, not of what its jobs may ask for. */
const ABOUT = ['sides-supported', 'color-supported', 'media-source-supported', 'output-bin-supported'];
