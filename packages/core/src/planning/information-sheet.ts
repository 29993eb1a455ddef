import type { DocumentFacts } from '../pages/facts';
import { marginAt, mayBeTurned, trayName, type Printer } from '../printer/printer';
import { mmToPoints, saySize } from '../paper/sizes';
import type { Ticket } from '../ticket/ticket';
import { apartFrom } from './feed';
import { widthOf } from '../marks/line-widths';
import { sayDay, sayMoment } from '../marks/moment';
import type { TwoPasses } from './passes';
import type { Plan, Sheet, Text } from '../plan/plan';

/** The information sheet of a plan: a sheet before the job that says what it is and whose. */
export type InformationSheet = NonNullable<Plan['informationSheet']>;

/** The same before anything is written on it. */
export type BlankInformation = Omit<InformationSheet, 'front'>;

/**
 * Where the information sheet comes from, and when it is fed; null where none is wanted. Among two-sided sheets it is
 * two-sided with nothing on its back, since many printers cannot mix the two within a job; not where its paper must not be
 * turned.
 */
export function placeOfInformation(
  sheets: readonly Sheet[],
  passes: TwoPasses | null,
  { informationSheet, delivery }: Ticket,
  printer: Printer,
): BlankInformation | null {
  const [first] = sheets;
  if (!informationSheet.print || !first) return null;
  const fed = apartFrom(first, informationSheet.tray, printer);
  const twoSided = mayBeTurned(printer, fed.tray) ? sheets.find(({ back }) => back !== null) : undefined;
  return {
    ...fed,
    sides: twoSided ? twoSided.sides : 'one-sided',
    back: twoSided ? { orientation: 'portrait', cells: [] } : null,
    ...feeding(passes, delivery, printer),
  };
}

/** It lies before all else once everything is printed, so it is fed at the end where the job is printed backwards. */
function feeding(passes: TwoPasses | null, delivery: Plan['delivery'], { printsOn }: Printer) {
  if (!passes) return { fed: delivery === 'first-to-last' ? 'first' : 'last', fedForBacks: null } as const;
  // Fronts as in passesOf; a stack that goes in as it lies comes out backwards.
  const fed = printsOn === 'upper' ? 'first' : 'last';
  const other = fed === 'first' ? 'last' : 'first';
  return { fed, fedForBacks: passes[1].handling === 'as-it-lies' ? other : fed } as const;
}

/** What an information sheet tells of. */
export interface Told {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
  /** Of the whole job, with this sheet. */
  readonly byTray: Readonly<Record<string, number>>;
  /** ISO 8601, "2026-09-01T14:05". */
  readonly now: string | undefined;
  /** The ticket in words; they are another room's matter. */
  readonly sentence: string | undefined;
}

/** At least so far from the edge, in millimetres: for reading and for holding (common practice). */
const LEAST_MARGIN = 15;

const TITLE = 18;
const BODY = 10.5;
/** From line to line, in parts of the size. */
const LEADING = 1.4;
/** What stands before a value, in points from the left. */
const LABELS = 84;

/** The sheet with its texts: what does not fit on it any more is told by number. */
export function withInformation(blank: BlankInformation, told: Told): InformationSheet {
  const { width, height } = blank.paper;
  const margin = mmToPoints(Math.max(marginAt(told.printer, blank.tray), LEAST_MARGIN));
  const page = new Column(margin, height - margin, width - 2 * margin, margin);
  page.write(titleOf(told), TITLE);
  page.leaveLine();
  for (const [label, value] of facts(told)) page.entry(label, value);
  if (told.sentence) {
    page.leaveLine();
    page.write(told.sentence, BODY);
  }
  page.leaveLine();
  sheetsByTray(told).forEach((line, at) => page.entry(at === 0 ? 'Sheets' : '', line));
  page.leaveLine();
  told.documents.every((document, at) => {
    const left = told.documents.length - at;
    const lines = linesOf(document);
    if (page.room(lines.length + (left > 1 ? 1 : 0))) {
      lines.forEach((line, index) => page.entry(at === 0 && index === 0 ? 'Files' : '', line));
      return true;
    }
    page.entry('', left === 1 ? 'and 1 file more' : `and ${left} files more`);
    return false;
  });
  return { ...blank, front: { orientation: 'portrait', cells: [], texts: page.texts } };
}

const titleOf = ({ ticket, documents }: Told): string =>
  ticket.title || documents.map(({ name }) => name)[0] || 'A print job';

function facts({ ticket, printer, now }: Told): [label: string, value: string][] {
  const all: [string, string][] = [
    ['Printed by', ticket.informationSheet.by.trim()],
    ['On', sayMoment(now)],
    ['Printer', printer.name],
  ];
  return all.filter(([, value]) => value !== '');
}

/** In the printer's order. */
function sheetsByTray({ byTray, printer: { trays } }: Told): string[] {
  const lost = Object.keys(byTray).filter((id) => !trays.some((tray) => tray.id === id));
  const named = trays.map((tray) => ({ id: tray.id, said: `${trayName(tray)}, ${saySize(tray.size)}` }));
  return [...named, ...lost.map((id) => ({ id, said: id }))].flatMap(({ id, said }) => {
    const count = byTray[id] ?? 0;
    return count === 0 ? [] : [`${count} from ${said}`];
  });
}

/** A file's name, its pages, and what it says of itself. */
function linesOf({ name, pages, about }: DocumentFacts): string[] {
  const said = [
    about?.title && about.title !== name ? `“${about.title}”` : '',
    about?.author ? `by ${about.author}` : '',
    about?.created ? `made ${sayDay(about.created)}` : '',
    about?.modified && about.modified !== about.created ? `changed ${sayDay(about.modified)}` : '',
  ].filter((part) => part !== '');
  const count = pages.length === 1 ? '1 page' : `${pages.length} pages`;
  return [`${name}: ${count}`, ...(said.length > 0 ? [said.join(', ')] : [])];
}

/** Text from above to below, broken into lines; nothing is written under its end. */
class Column {
  readonly texts: Text[] = [];

  constructor(
    private readonly left: number,
    private top: number,
    private readonly width: number,
    private readonly end: number,
  ) {}

  write(text: string, size: number, indent = 0): void {
    for (const line of broken(text, size, this.width - indent)) {
      if (this.top - size * LEADING < this.end) return;
      this.top -= size * LEADING;
      this.texts.push({ text: line, x: this.left + indent, y: this.top, size, turn: 0 });
    }
  }

  entry(label: string, value: string): void {
    const at = this.top;
    this.write(value, BODY, LABELS);
    if (label !== '' && this.top < at) {
      this.texts.push({ text: label, x: this.left, y: at - BODY * LEADING, size: BODY, turn: 0 });
    }
  }

  leaveLine(): void {
    this.top -= BODY * LEADING;
  }

  /** Whether so many lines fit. */
  room(lines: number): boolean {
    return this.top - lines * BODY * LEADING >= this.end;
  }
}

/** Lines no wider than the room; a word that is too wide by itself is broken. */
function broken(text: string, size: number, room: number): string[] {
  const lines: string[] = [];
  let line = '';
  const fits = (tried: string): boolean => widthOf(tried, size) <= room;
  for (const word of text.split(/\s+/)) {
    const joined = line === '' ? word : `${line} ${word}`;
    if (fits(joined)) {
      line = joined;
      continue;
    }
    if (line !== '') lines.push(line);
    line = '';
    for (const letter of word) {
      if (line !== '' && !fits(line + letter)) {
        lines.push(line);
        line = '';
      }
      line += letter;
    }
  }
  return line === '' ? lines : [...lines, line];
}
