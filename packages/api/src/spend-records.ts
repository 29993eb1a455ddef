import { CHEAPER_WAYS, SPENT_KINDS } from '@foglio/core';
import { list } from './operation';
import { count, maybeWords, record, words, type Described } from './record';

/** What was printed and paid for over time, as JSON Schemas; the types follow from them. */

const day = { type: 'string', format: 'date', description: 'ISO 8601, by the server’s clock.' } as const;
const money = { type: 'number', description: 'In the currency of the printers’ prices.' } as const;
const maybeId = { type: ['string', 'null'], format: 'uuid' } as const;

/** Sums over deliveries. */
const figures = {
  deliveries: count,
  sheets: count,
  twoSidedSheets: { ...count, description: 'With something on both sides.' },
  sides: { ...count, description: 'With something on them.' },
  colorSides: { ...count, description: 'Billed as colour.' },
  graySides: { ...count, description: 'Of these, such as nothing coloured is seen on.' },
  paper: money,
  printing: money,
  gray: { ...money, description: 'What grey sides cost more than in grey; within the printing.' },
  savedSheets: { type: 'integer', description: 'Against one page a side, on one side.' },
  saved: money,
  againSheets: { ...count, description: 'That were printed once more.' },
  again: money,
} as const;

const papers = {
  size: { ...words, description: 'By PWG 5101.1.' },
  type: { ...maybeWords, description: 'By PWG 5100.3; null: not known.' },
  sheets: count,
  cost: money,
} as const;

export const SPEND_STEPS = ['day', 'week', 'month'] as const;

/** Why something was printed once more: it did not come out whole, or somebody wanted it so. */
export const AGAIN_REASONS = ['broken-off', 'wished'] as const;

export const spendRecord = record('Spend', {
  from: day,
  to: day,
  since: {
    ...day,
    type: ['string', 'null'],
    description: 'The day of the first delivery of all; null: there is none.',
  },
  step: { enum: SPEND_STEPS },
  total: record('Figures', figures),
  periods: list(record('Figures of a period', { from: day, ...figures, papers: list(record('Paper', papers)) })),
  printers: list(record('Figures of a printer', { id: words, name: words, ...figures })),
  papers: list(record('Paper', papers)),
  kinds: list(record('Figures of a kind', { kind: { enum: SPENT_KINDS }, ...figures })),
  setups: list(record('Figures of a set-up', { id: maybeId, name: maybeWords, ...figures })),
  again: list(
    record('Printed again', {
      title: words,
      jobId: maybeId,
      why: { enum: AGAIN_REASONS },
      said: { ...maybeWords, description: 'How what went before it ended, in a sentence.' },
      times: count,
      sheets: count,
      cost: money,
    }),
  ),
  cheaper: list(
    record('What would have cost less', {
      title: words,
      jobId: maybeId,
      setupId: maybeId,
      way: { enum: CHEAPER_WAYS },
      times: count,
      saves: money,
      smallestTextPt: { type: ['number', 'null'], description: 'Of the smallest text it would have; null: no text.' },
    }),
  ),
});

/** Of which deliveries. */
export const whichSpend = {
  title: 'Which deliveries',
  type: 'object',
  additionalProperties: false,
  required: ['from', 'to'],
  properties: {
    from: { ...day, description: 'The first day.' },
    to: { ...day, description: 'The last day.' },
    printer: { ...words, description: 'An id; not there: of all printers.' },
  },
} as const;

export type SpendRecord = Described<typeof spendRecord>;
export type SpendFigures = SpendRecord['total'];
export type SpendPaper = SpendRecord['papers'][number];
