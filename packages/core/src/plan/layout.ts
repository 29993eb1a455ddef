import { orientationOf, type Orientation } from '../paper/orientation';
import { mmToPoints } from '../paper/sizes';
import type { Printer } from '../paper/printer';
import type { Ticket } from '../ticket/ticket';
import { placePage, type Box } from './place';
import type { Cell, Side } from './plan';
import type { Run, RunPage } from './run';

/** A run with its sides in order. */
export interface LaidOutRun extends Run {
  readonly faces: readonly Side[];
}

/** Step 5. Imposes each run on sides: one page a side. */
export function layOut(runs: readonly Run[], ticket: Ticket, printer: Printer): LaidOutRun[] {
  return runs.map((run) => {
    const margin = run.settings.margin;
    return { ...run, faces: run.pages.map((page) => onePageSide(page, run, margin, printer.margin)) };
  });
}

/**
 * A side with one page on it (model, Geometry).
 *
 *     +---------------------+
 *     |  +---------------+  |  side: the paper, turned as it is read
 *     |  | area          |  |  area: the side less the larger of the ticket's and the printer's margin;
 *     |  |     page      |  |        the whole side where the scale is none or percent
 *     |  +---------------+  |
 *     +---------------------+
 */
function onePageSide(page: RunPage, run: Run, ticketMarginMm: number, printerMarginMm: number): Side {
  const { scale, paper, layout } = page.settings;
  const orientation: Orientation =
    paper.orientation === 'auto' ? orientationOf(page.width, page.height) : paper.orientation;
  const side = sideBox(run, orientation);
  const ownMargin = mmToPoints(ticketMarginMm);
  const kept =
    scale.mode === 'none' || scale.mode === 'percent' ? 0 : mmToPoints(Math.max(ticketMarginMm, printerMarginMm));
  const area = inset(side, kept);
  const turn = layout.kind === 'grid' ? layout.turn : 'upright';
  const placed = placePage(page, area, inset(side, ownMargin), scale, turn);
  const cell: Cell = { document: page.document, page: page.page, ...placed };
  return { orientation, cells: [cell] };
}

function sideBox(run: Run, orientation: Orientation): Box {
  const { width, height } = run.paper;
  return orientation === 'portrait' ? { x: 0, y: 0, width, height } : { x: 0, y: 0, width: height, height: width };
}

/** A margin that would leave nothing is held back, so that a wrong margin shows as a tiny page, not as a crash. */
function inset(box: Box, by: number): Box {
  const most = Math.min(box.width, box.height) / 2 - 1;
  const kept = Math.min(by, most);
  return { x: box.x + kept, y: box.y + kept, width: box.width - 2 * kept, height: box.height - 2 * kept };
}
