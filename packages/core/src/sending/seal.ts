import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import canonicalize from 'canonicalize';
import type { FromSchema } from 'json-schema-to-ts';
import type { DocumentFacts } from '../pages/facts';
import { findTray, type Printer } from '../printer/printer';
import { OF_SHEET } from '../settings';
import type { Ticket } from '../ticket/ticket';
import { pageRules } from '../ticket/page-rules';
import type { Cell, Plan, Sheet, Side } from '../plan/plan';
import type { sealSchema } from './seal.schema';

/** What a person saw of a plan, as digests: of all that reaches paper, and of each part of it. */
export type Seal = FromSchema<typeof sealSchema>;

export type SealPart = keyof Seal['parts'];

/** A seal without when it was made: of one among many, whose texts tell the moment at which they are sent, or of all of them. */
export type SealOfMany = Omit<Seal, 'moment'>;

/** A plan, and what reaches paper with it. */
export interface Sealed {
  readonly plan: Plan;
  readonly ticket: Ticket;
  readonly printer: Printer;
  /** The ticket's documents, in its order; each with the SHA-256 of its bytes, hexadecimal. */
  readonly documents: readonly (DocumentFacts & { readonly sha256: string })[];
  /** Where it is printed: one printer's address. */
  readonly address: string;
  /** When it was planned, as the texts on it tell, "2026-09-01T14:05" (ISO 8601, local time). */
  readonly moment: string;
}

/** To 0.001 pt, so that another engine's last digits make no other seal. */
const rounded = (length: number): number => Math.round(length * 1000) / 1000;

/**
 * The seal of a plan: SHA-256 of the JSON (RFC 8785) of all of it that reaches paper (model, Seal). What is loaded, checks,
 * cost and time are not in it.
 */
export function sealOf(sealed: Sealed): Seal {
  const parts = Object.entries(partsOf(sealed)).map(([name, part]) => ({ name, json: jsonOf(part) }));
  const whole = parts.toSorted((a, b) => (a.name < b.name ? -1 : 1)).map(({ name, json }) => `"${name}":${json}`);
  return {
    // An object with its names in order is what RFC 8785 makes of it.
    digest: digestOf(`{${whole.join(',')}}`),
    moment: sealed.moment,
    parts: Object.fromEntries(parts.map(({ name, json }) => [name, digestOf(json)])) as Seal['parts'],
  };
}

/** The seal of many, in their order. */
export function sealOfAll(seals: readonly SealOfMany[]): SealOfMany {
  const parts = Object.keys(SAID).map((part) => [
    part,
    digestOf(seals.map((seal) => seal.parts[part as SealPart]).join(' ')),
  ]);
  return {
    digest: digestOf(seals.map(({ digest }) => digest).join(' ')),
    parts: Object.fromEntries(parts) as Seal['parts'],
  };
}

/** Texts may hold half a character, which RFC 8785 does not know (3.2.2.2). */
const jsonOf = (part: unknown): string => canonicalize(JSON.parse(JSON.stringify(part, wellFormed))) as string;

const wellFormed = (_: string, value: unknown): unknown =>
  typeof value === 'string' ? value.replaceAll(/\p{Surrogate}/gu, '\ufffd') : value;

const digestOf = (text: string): string => bytesToHex(sha256(text));

type SheetPart = (typeof OF_SHEET)[number]['name'];

/** For each setting that every sheet carries. */
const ofSheets = <T>(what: (name: SheetPart, said: string) => T) =>
  Object.fromEntries(OF_SHEET.map(({ name, said }) => [name, what(name, said)])) as { readonly [Part in SheetPart]: T };

/** All that reaches paper, part by part. */
function partsOf(sealed: Sealed): { readonly [Part in SealPart]: unknown } {
  const { plan, ticket, documents, address, moment } = sealed;
  const { sheets, sets, collate, delivery, passes, slipBetweenSets, informationSheet } = plan;
  const sidesOf = <T>(what: (side: Side) => T) => sheets.map(({ front, back }) => [what(front), back && what(back)]);
  const rules = pageRules(ticket, documents);
  const isGrey = ({ document, page }: Cell): boolean => rules.settingsOf(document, page).color === 'monochrome';
  return {
    documents: documents.map(({ sha256: of }) => of),
    printer: address,
    moment,
    sets: { sets, collate, proof: ticket.proof },
    order: { delivery, passes, slips: sheets.map(({ slip }) => slip) },
    trays: sheets.map(({ tray }) => tray),
    papers: sheets.map((sheet) => paperOf(sheet, sealed)),
    sides: sheets.map(({ sides }) => sides),
    pages: sidesOf(({ orientation, cells }) => [orientation, cells.map(placed)]),
    marks: sidesOf(({ marks = [] }) => marks.map((mark) => mark.map(rounded))),
    texts: sidesOf(({ texts = [] }) =>
      texts.map(({ text, x, y, size, turn }) => [text, ...[x, y, size].map(rounded), turn]),
    ),
    slips: slipBetweenSets && { ...slipBetweenSets, paper: paperOf(slipBetweenSets, sealed) },
    informationSheet: informationSheet && { ...informationSheet, paper: paperOf(informationSheet, sealed) },
    colours: { ticket: ticket.color, grey: sidesOf(({ cells }) => cells.map(isGrey)) },
    quality: ticket.quality,
    finishing: plan.finishing ?? null,
    ...ofSheets((name) => sheets.map((sheet) => sheet[name] ?? null)),
  };
}

const placed = ({ document, page, x, y, width, height, scale, turn, clip, source }: Cell): unknown => [
  document,
  page,
  ...[x, y, width, height].map(rounded),
  // A scale has no length; six digits tell a hundredth of a point on the largest paper.
  Math.round(scale * 1e6) / 1e6,
  turn,
  clip && clip.map(rounded),
  source && source.map(rounded),
];

/** The paper's size, and what the printer says of that in its tray. */
function paperOf({ tray, paper }: Pick<Sheet, 'tray' | 'paper'>, { printer }: Sealed): unknown {
  const held = tray === null ? null : findTray(printer, tray);
  return [paper.size, rounded(paper.width), rounded(paper.height), held?.type ?? null, held?.weight ?? null];
}

/** Each part in words, the most telling first. */
const SAID: { readonly [Part in SealPart]: string } = {
  printer: 'the printer',
  documents: 'the documents',
  pages: 'the pages or where they lie',
  sets: 'the copies',
  trays: 'the trays',
  papers: 'the paper',
  sides: 'one side or both',
  order: 'the order',
  slips: 'the slips',
  informationSheet: 'the information sheet',
  colours: 'the colour',
  quality: 'the quality',
  finishing: 'staples, holes or folds',
  marks: 'the marks',
  texts: 'the lines of text',
  moment: 'the date',
  ...ofSheets((_, said) => said),
};

/** What differs between two seals, in words; null where all that reaches paper is the same. */
export function sayDifference(seen: SealOfMany, now: SealOfMany): string | null {
  if (seen.digest === now.digest) return null;
  const parts = Object.keys(SAID) as SealPart[];
  const said = parts.filter((part) => seen.parts[part] !== now.parts[part]).map((part) => SAID[part]);
  const [last, ...others] = said.toReversed();
  // Parts that agree under another digest were not made by this version.
  if (last === undefined) return 'something that reaches paper';
  return others.length === 0 ? last : `${others.toReversed().join(', ')} and ${last}`;
}
