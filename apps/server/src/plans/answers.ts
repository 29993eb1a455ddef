import type { SheetsRecord } from '@foglio/api';
import {
  firstMissing,
  inTwoPasses,
  informationSheetOf,
  marksOfPortion,
  sayDifference,
  sealOf,
  sheetList,
  SHEET_LIST_HEAD,
  spentOf,
  type Check,
  type DocumentFacts,
  type Plan,
  type Portion,
  type Seal,
  type Sheet,
  type Side,
  type Spent,
} from '@foglio/core';
import { asSeen, pagesSent, shipmentOf, type PageSent, type ShippedDocument, type Shipment } from '@foglio/ipp';
import { writeCsv } from '../http/download';
import { planOf, type Planning } from './planning';

/** A document of a ticket, as far as plans need it. */
export type PlannedDocument = DocumentFacts & { readonly sha256: string };

/** What is asked of a plan; what it answers with stands in {@link ANSWERS}. */
export type Question =
  | { readonly kind: 'brief' | 'sheetList' | 'seen' | 'shipping' | 'spent' | 'pagesSent' }
  | {
      readonly kind: 'sheets';
      /** What is printed of it, and how many sheets came out. */
      readonly portion: Portion | null;
      readonly done: number;
    }
  | {
      readonly kind: 'fitness';
      /** The printer's. */
      readonly address: string;
      /** What the person saw; null: nobody looked. */
      readonly seal: Seal | null;
    };

/** For a list: the totals and the first sheets. */
export interface Brief {
  readonly sheets: number;
  readonly sheetsPerSet: number;
  readonly strip: readonly {
    readonly tray: string | null;
    readonly twoSided: boolean;
    readonly orientation: Sheet['front']['orientation'];
    readonly size: string;
  }[];
}

/** Whether a plan may be sent, and what it comes to. */
export interface Fitness {
  readonly tally: Plan['tally'];
  readonly checks: readonly Pick<Check, 'code' | 'level' | 'message'>[];
  /** Of a job in two passes: where it begins, and how its stack is put back. */
  readonly pass: 1 | null;
  readonly handling: NonNullable<ReturnType<typeof inTwoPasses>>[1]['handling'] | null;
  /** In which parts it is not what was seen, in words. */
  readonly differs: string | null;
}

/** What is sent for a plan, without its sheets. */
export interface Shipping extends Pick<Shipment, 'reason' | 'format'> {
  readonly jobs: readonly {
    readonly attributes: Shipment['jobs'][number]['attributes'];
    readonly documents: readonly Pick<ShippedDocument, 'attributes'>[];
  }[];
}

/** Sheets shown of a job in a list. */
const STRIP = 12;

type Answering<Answer, Asked = unknown> = (
  plan: Plan,
  planning: Planning,
  documents: readonly PlannedDocument[],
  question: Asked,
) => Answer;

const brief: Answering<Brief> = (plan) => {
  const { sheets, sheetsPerSet } = plan.tally;
  const information = informationSheetOf(plan);
  const shown = [...(information ? [information] : []), ...plan.sheets.slice(0, STRIP)].slice(0, STRIP);
  const strip = shown.map(({ tray, back, front, paper }) => ({
    tray,
    twoSided: back !== null,
    orientation: front.orientation,
    size: paper.size,
  }));
  return { sheets, sheetsPerSet, strip };
};

const fitness: Answering<Fitness, Extract<Question, { kind: 'fitness' }>> = (
  plan,
  { ticket, printer, moment },
  documents,
  { address, seal },
) => {
  const passes = inTwoPasses(plan);
  return {
    tally: plan.tally,
    checks: plan.checks.map(({ code, level, message }) => ({ code, level, message })),
    pass: passes && 1,
    handling: passes && passes[1].handling,
    differs: seal && sayDifference(seal, sealOf({ plan, ticket, documents, printer, address, moment })),
  };
};

/** A row a sheet. */
const list: Answering<Uint8Array> = (plan, { printer }, documents) =>
  bytesOf(writeCsv([SHEET_LIST_HEAD, ...sheetList(plan, documents, printer)]));

/** What the printer is told, sheet by sheet, as the answer that the API gives. */
const seen: Answering<Uint8Array> = (plan, { ticket, printer }) => {
  const shipment = shipmentOf(plan, ticket, printer);
  const { way, reason, jobs } = shipment;
  return bytesOf(JSON.stringify({ way, reason, jobs: jobs.length, sheets: asSeen(shipment) }));
};

/** The sheets of a set, as the answer that the API gives. */
const sheets: Answering<Uint8Array, Extract<Question, { kind: 'sheets' }>> = (
  plan,
  _,
  documents,
  { portion, done },
) => {
  const namesOf = ({ cells }: Side) => cells.map(({ document, page }) => ({ document, page }));
  const record: SheetsRecord = {
    sets: plan.sets,
    documents: documents.map(({ name }) => name),
    sheets: plan.sheets.map(({ tray, slip, front, back }) => ({
      tray,
      slip,
      orientation: front.orientation,
      front: namesOf(front),
      back: back && namesOf(back),
    })),
    prints: marksOfPortion(portion, { sets: plan.sets, sheets: plan.sheets.length }),
    missing: firstMissing(plan, portion, done),
  };
  return bytesOf(JSON.stringify(record));
};

const shipping: Answering<Shipping> = (plan, { ticket, printer }) => {
  const { reason, format, jobs } = shipmentOf(plan, ticket, printer);
  return {
    reason,
    format,
    jobs: jobs.map(({ attributes, documents }) => ({
      attributes,
      documents: documents.map((document) => ({ attributes: document.attributes })),
    })),
  };
};

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

/** What it came to, once it was delivered. */
const spent: Answering<Spent> = (plan, { ticket, printer, portion }, documents) =>
  spentOf(plan, { ticket, documents, printer, portion });

/** What stands on each page of the files that are sent. */
const pages: Answering<readonly PageSent[]> = (plan, { ticket, printer }) =>
  pagesSent(shipmentOf(plan, ticket, printer));

const ANSWERS = { brief, fitness, sheetList: list, seen, sheets, shipping, spent, pagesSent: pages };

export type Answer<Kind extends Question['kind']> = ReturnType<(typeof ANSWERS)[Kind]>;

/** Plans, and answers. @throws TicketError */
export function answer<Asked extends Question>(
  question: Asked,
  planning: Planning,
  documents: readonly PlannedDocument[],
): Answer<Asked['kind']> {
  const plan = planOf(planning, documents);
  const answering = ANSWERS[question.kind] as Answering<Answer<Asked['kind']>, Asked>;
  return answering(plan, planning, documents, question);
}
