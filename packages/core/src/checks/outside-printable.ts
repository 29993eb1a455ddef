import { inset, sideBox } from '../planning/area';
import type { Orientation } from '../paper/orientation';
import { mmToPoints, type Size } from '../paper/sizes';
import { eachSide } from '../plan/each-side';
import type { LaidOutRun } from '../planning/layout';
import { marginAt, type Printer } from '../printer/printer';
import type { Box } from '../paper/box';
import { overlap, turnBox } from '../paper/turn-box';
import { boxOf, wholePage } from '../plan/whole-page';
import type { Placement } from '../planning/place';
import type { Cell, Check, PageName, Repair } from '../plan/plan';
import { uniquePages, type CheckContext, type CheckRule } from './context';
import { changePages, firstThatHelps, withRepair } from './repair';
import { listOf, namePages } from './words';

/** Content less than this far outside, in points, is not seen to be cut off. */
const SLACK = 0.5;

const EDGES = ['left', 'right', 'top', 'bottom'] as const;
type Edge = (typeof EDGES)[number];

/** Visible content falls in the printer's margin, off the paper, or outside its clip. */
export const outsidePrintable: CheckRule = (context) => {
  const check = findOutside(context);
  return check ? [withRepair(check, repairOf(context, check.pages))] : [];
};

/** What it takes to tell where content lies. */
export type Finder = Pick<CheckContext, 'plan' | 'laidOut' | 'documents' | 'rules' | 'printer'>;

function findOutside(context: Finder): Check | null {
  const { plan, laidOut, documents, printer } = context;
  const printableOf = printableFinder(printer);
  // Nothing can be cut off where every place is inside, as in most plans.
  const isInside = ({ run, places }: LaidOutRun): boolean =>
    places.every((ofStretch) =>
      ofStretch.every(({ orientation, placement }) => isWithin(placement, printableOf(run, orientation))),
    );
  if (laidOut.every(isInside)) return null;
  const sheets = new Set<number>();
  const pages: PageName[] = [];
  const edges = new Set<Edge>();
  eachSide(plan.sheets, (side, sheet) => {
    // What is joined is cut off at no side: its sides together hold all of the page.
    if (laidOut[sheet.run - 1]?.run.settings.layout.kind === 'tiles') return;
    const printable = printableOf(sheet, side.orientation);
    for (const cell of side.cells) {
      const content = contentOf(cell, context);
      if (!content) continue;
      const cut = edgesBeyond(content, cell.clip ? overlap(printable, boxOf(cell.clip)) : printable);
      if (cut.length === 0) continue;
      sheets.add(sheet.index);
      pages.push({ document: cell.document, page: cell.page });
      cut.forEach((edge) => edges.add(edge));
    }
  });
  if (pages.length === 0) return null;
  const unique = uniquePages(pages);
  const at = listOf(EDGES.filter((edge) => edges.has(edge)));
  const message = `Content of ${namePages(unique, documents.length)} is cut off at the ${at} edge${edges.size === 1 ? '' : 's'}.`;
  return { code: 'outside-printable', level: 'caution', message, sheets: [...sheets], pages: unique };
}

interface OnPaper {
  readonly paper: Size;
  readonly tray: string | null;
}

/** Finds the printable area of a side, reckoning it once for sides that follow each other and are alike. */
function printableFinder(printer: Printer): (on: OnPaper, orientation: Orientation) => Box {
  let last: { paper: Size; tray: string | null; orientation: Orientation; printable: Box } | null = null;
  return ({ paper, tray }, orientation) => {
    if (last?.paper !== paper || last.tray !== tray || last.orientation !== orientation) {
      const margin = mmToPoints(marginAt(printer, tray));
      last = { paper, tray, orientation, printable: inset(sideBox(paper, orientation), margin) };
    }
    return last.printable;
  };
}

const isWithin = ({ x, y, width, height, clip }: Placement, place: Box): boolean =>
  clip === null &&
  x >= place.x &&
  y >= place.y &&
  x + width <= place.x + place.width &&
  y + height <= place.y + place.height;

/** The visible content of a page where it lands on its side; null where nothing is visible or it is not known. */
export function contentOf(cell: Cell, { documents, rules }: Finder): Box | null {
  const facts = documents[cell.document - 1]?.pages[cell.page - 1];
  if (!facts?.content) return null;
  const degrees = rules.rotationOf(cell.document, cell.page) + cell.turn;
  const { scale } = cell;
  const sideways = rules.rotationOf(cell.document, cell.page) % 180 !== 0;
  const whole = wholePage(cell, sideways ? { width: facts.height, height: facts.width } : facts);
  const turned = turnBox(boxOf(facts.content as NonNullable<Cell['clip']>), facts, degrees);
  const content = {
    x: whole.x + turned.x * scale,
    y: whole.y + turned.y * scale,
    width: turned.width * scale,
    height: turned.height * scale,
  };
  if (!cell.source) return content;
  const inside = overlap(content, cell);
  return inside.width > 0 && inside.height > 0 ? inside : null;
}

function edgesBeyond(content: Box, place: Box): Edge[] {
  const beyond: Record<Edge, number> = {
    left: place.x - content.x,
    right: content.x + content.width - (place.x + place.width),
    top: content.y + content.height - (place.y + place.height),
    bottom: place.y - content.y,
  };
  return EDGES.filter((edge) => beyond[edge] > SLACK);
}

/** These pages made to fit into the printable area. */
function repairOf(context: CheckContext, pages: readonly PageName[]): Repair | null {
  const change = { scale: { mode: 'fit' as const } };
  const fit = { label: 'Fit these pages to the printable area', patch: changePages(context, pages, change) };
  return firstThatHelps(context, (changed) => findOutside(changed) !== null, [fit]);
}
