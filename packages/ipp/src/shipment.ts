import {
  AS_ONE,
  asSent,
  chooseWay,
  COLLATED_DOCUMENTS,
  collatesDocuments,
  formatFor,
  inParts,
  isOfParts,
  takes,
  takesOneSide,
  writtenOut,
  type Format,
  type Plan,
  type Printer,
  type Sheet,
  type Ticket,
  type Way,
} from '@foglio/core';
import { alikeStretches, jobAttributes, sheetAttributes, wholeJob, type MediaWay } from './job-attributes';
import { keyword, type Attributes } from './message';

/** What is sent for a plan: the way it goes, why, and the jobs in order. */
export interface Shipment {
  readonly way: Way;
  /** Why this way and no simpler one, in words. */
  readonly reason: string;
  /** In which its documents are written. */
  readonly format: Format;
  readonly jobs: readonly ShippedJob[];
}

export interface ShippedJob {
  readonly attributes: Attributes;
  /** Each a PDF of its own; more than one only where the way is "documents". */
  readonly documents: readonly ShippedDocument[];
}

export interface ShippedDocument {
  /** Of the document alone; empty where the job's say it all (PWG 5100.5, document template attributes). */
  readonly attributes: Attributes;
  /** In the order of the PDF's pages: a one-sided sheet is one page, a two-sided sheet two. */
  readonly sheets: readonly Sheet[];
}

/** A plan as jobs and documents for this printer, by the first way that holds. In two passes, give each pass by itself. */
export function shipmentOf(plan: Plan, ticket: Ticket, printer: Printer): Shipment {
  const way = chooseWay(plan, printer);
  const jobs = WAYS[way](plan, ticket, printer);
  // One that takes none is stopped by a check.
  const format = formatFor(printer) ?? 'application/pdf';
  return { way, reason: reasonOf(way, printer, jobs.length), format, jobs };
}

type Shipping = (plan: Plan, ticket: Ticket, printer: Printer) => ShippedJob[];

const WAYS: Readonly<Record<Way, Shipping>> = {
  plain: (plan, ticket, printer) => [oneDocument(asSent(plan, printer), ticket, printer)],
  overrides: (plan, ticket, printer) => [oneDocument(asSent(plan, printer), ticket, printer)],
  'by-size': (plan, ticket, printer) => [oneDocument(asSent(plan, printer), ticket, printer, 'by-size')],
  'two-sided-throughout': (plan, ticket, printer) => {
    const sent = asSent(plan, printer);
    const takesMedia = printer.jobs.overrides.includes('media-col') || new Set(sent.sheets.map(mediaOf)).size === 1;
    return [oneDocument(withBlankBacks(sent), ticket, printer, takesMedia ? 'by-tray' : 'by-size')];
  },
  documents: (plan, ticket, printer) => [severalDocuments(plan, ticket, printer)],
  'part-documents': (plan, ticket, printer) => [documentsOfParts(plan, ticket, printer)],
  'part-jobs': (plan, ticket, printer) =>
    inParts(plan).map(({ sheets, isLoose }) => {
      const { finishing, ...rest } = {
        ...plan,
        sheets: [...sheets],
        sets: 1,
        // They stand in the order of printing already.
        delivery: 'first-to-last' as const,
        slipBetweenSets: null,
        informationSheet: null,
      };
      const part = isLoose || !finishing ? rest : { ...rest, finishing: { ...finishing, starts: [1] } };
      return WAYS[chooseWay(part, printer)](part, ticket, printer)[0]!;
    }),
  separate: (plan, ticket, printer) => {
    // A set can only be complete before the next where every set is its own row of jobs.
    const sent = plan.collate && plan.sets > 1 ? writtenOut(plan) : asSent(plan, printer);
    const parts = takesOneSide(printer) ? sent.sheets.map((sheet) => [sheet]) : alikeStretches(sent.sheets);
    return parts.map((sheets) => oneDocument({ ...sent, sheets }, ticket, printer));
  },
};

const mediaOf = ({ tray, paper }: Sheet): string => `${tray ?? ''} ${paper.size}`;

function oneDocument(sent: Plan, ticket: Ticket, printer: Printer, media: MediaWay = 'by-tray'): ShippedJob {
  return {
    attributes: jobAttributes(sent, ticket, printer, media),
    documents: [{ attributes: {}, sheets: sent.sheets }],
  };
}

/**
 * A document a stretch of like sheets. Complete sets are left to the printer, which then goes through all documents for
 * each (RFC 8011, 5.2.4, multiple-document-handling); copies sheet by sheet, which it would make document by document, are
 * written out.
 */
function severalDocuments(plan: Plan, ticket: Ticket, printer: Printer): ShippedJob {
  const sent = collatesDocuments(plan, printer) ? asSent(plan, printer) : writtenOut(plan);
  const told = ([first]: readonly Sheet[]) => sheetAttributes(first as Sheet, printer, 'by-tray');
  // Its paper and its sides are what a document may say for itself; in all else its sheets are like all others here.
  const { sides: _, 'media-col': __, ...common } = told(sent.sheets);
  const documents = alikeStretches(sent.sheets).map((sheets): ShippedDocument => {
    const { sides, 'media-col': media } = told(sheets);
    return { attributes: { sides: sides!, 'media-col': media! }, sheets };
  });
  const whole = wholeJob(sent, ticket, printer);
  // What is stapled as one set is told to be one document.
  const [attribute, value] = isOfParts(plan) ? AS_ONE : COLLATED_DOCUMENTS;
  const handling: Attributes = takes(printer, attribute, value) ? { [attribute]: [keyword(value)] } : {};
  return { attributes: { ...whole, ...common, ...handling }, documents };
}

/** A document a part of a set; the printer goes through them for each set, and finishes each by itself. */
function documentsOfParts(plan: Plan, ticket: Ticket, printer: Printer): ShippedJob {
  const documents = inParts({ ...plan, sets: 1 }).map(({ sheets }): ShippedDocument => {
    const { sides, 'media-col': media } = sheetAttributes(sheets[0]!, printer, 'by-tray');
    return { attributes: { sides: sides!, 'media-col': media! }, sheets };
  });
  const { sides: _, 'media-col': __, ...common } = sheetAttributes(plan.sheets[0]!, printer, 'by-tray');
  const handling = { [COLLATED_DOCUMENTS[0]]: [keyword(COLLATED_DOCUMENTS[1])] };
  return { attributes: { ...wholeJob(plan, ticket, printer), ...common, ...handling }, documents };
}

/** One-sided sheets as two-sided ones with nothing on the back. */
function withBlankBacks(plan: Plan): Plan {
  const sides = plan.sheets.find((sheet) => sheet.back)?.sides ?? 'two-sided-long-edge';
  const sheets = plan.sheets.map((sheet): Sheet => {
    return sheet.back ? sheet : { ...sheet, sides, back: { orientation: sheet.front.orientation, cells: [] } };
  });
  return { ...plan, sheets };
}

function reasonOf(way: Way, printer: Printer, jobs: number): string {
  const { name } = printer;
  switch (way) {
    case 'plain':
      return 'One job: all its sheets are alike, so tray and sides are said once.';
    case 'overrides':
      return `One job: ${name} takes tray and sides page by page.`;
    case 'by-size':
      return `One job: ${name} takes each page from the tray that holds its size.`;
    case 'documents':
      return `One job of several documents: ${name} takes tray and sides for each document.`;
    case 'two-sided-throughout':
      return `One job, all two-sided: ${name} cannot mix one and both sides, so one-sided sheets get a blank back.`;
    case 'part-documents':
      return `One job of several documents: ${name} finishes each by itself.`;
    case 'part-jobs':
      return `${name} finishes each job by itself, so this goes as ${jobs} jobs, one after the other.`;
    case 'separate':
      if (takesOneSide(printer))
        return `${name} takes a picture of one side at a time, so this goes as ${jobs} jobs, one after the other.`;
      return `${name} cannot change tray or sides within a job, so this goes as ${jobs} jobs, one after the other.`;
  }
}
