import { mmToPoints } from '../paper/sizes';
import type { Ticket } from '../ticket/ticket';
import { inset, requireRoom, sideBox, type Margins } from './area';
import { foldMarks } from '../marks/fold-marks';
import type { Box } from '../paper/box';
import { placePage, type Place, type Placement } from './place';
import type { Cell, Side } from '../plan/plan';
import type { Stretch } from './route';
import type { Run } from './run';

export interface BookletLayout {
  /** Front and back of each sheet, one after the other. */
  readonly faces: readonly Side[];
  /** For each sheet, the signature it is folded in, counted from 1. */
  readonly signatures: readonly number[];
  /** As in a LaidOutRun, of all stretches together: creep gives each sheet its own. */
  readonly places: readonly (readonly Place[])[];
}

type Layout = Extract<Ticket['layout'], { kind: 'booklet' }>;

/**
 * Sheets that make a book when each signature is laid on a pile and folded once (model, Geometry). Sheet s, from 0, of a
 * signature of P pages:
 *
 *        front                 back
 *     +---------+---------+  +---------+---------+
 *     |  P - 2s |  1 + 2s |  |  2 + 2s | P-1-2s  |     bound left; bound right, each pair is swapped
 *     +---------+---------+  +---------+---------+
 *
 * Fold marks stand on the fronts: folded, these lie outside.
 */
export function bookletSides(
  run: Run,
  layout: Layout,
  margins: Margins,
  { bind, bindingMargin }: Pick<Ticket, 'bind' | 'bindingMargin'>,
): BookletLayout {
  const area = inset(sideBox(run.paper, 'landscape'), margins.kept);
  // Each half ends short of the fold by the binding margin.
  const width = area.width / 2 - mmToPoints(bindingMargin);
  requireRoom({ width, height: area.height }, run, { bindingMargin });
  const left: Box = { ...area, width };
  const right: Box = { ...left, x: area.x + area.width - width };
  const creep = mmToPoints(layout.creep);
  const marks = layout.marks === 'fold' ? foldMarks(area) : null;
  const faces: Side[] = [];
  const signatures: number[] = [];
  divide(run.stretches.flatMap(singlePages), layout.sheetsPerSignature).forEach((pages, signature) => {
    const padded = Math.ceil(pages.length / 4) * 4;
    const face = (first: number, second: number, shift: number, isOuter: boolean): Side => {
      const [onLeft, onRight] = bind === 'right' ? [second, first] : [first, second];
      const cells = [halfCell(pages[onLeft - 1], left, shift), halfCell(pages[onRight - 1], right, -shift)];
      const side = { orientation: 'landscape', cells: cells.filter((cell) => cell !== null) } as const;
      return isOuter && marks ? { ...side, marks } : side;
    };
    for (let sheet = 0; sheet < padded / 4; sheet += 1) {
      const outer = padded - 2 * sheet;
      faces.push(face(outer, 1 + 2 * sheet, creep * sheet, true), face(2 + 2 * sheet, outer - 1, creep * sheet, false));
      signatures.push(signature + 1);
    }
  });
  const places = faces.flatMap(({ orientation, cells }) => cells.map((placement) => ({ orientation, placement })));
  return { faces, signatures, places: [places] };
}

/** A page of a booklet; a fold puts it anywhere, so each stands for itself. */
interface BookletPage extends Pick<Stretch, 'document' | 'settings' | 'size' | 'source'> {
  readonly page: number;
}

const singlePages = ({ document, pages, settings, size, source }: Stretch): BookletPage[] =>
  pages.map((page) => ({ document, page, settings, size, source }));

/** The pages of each signature; 0 sheets a signature: one signature of all. */
function divide(pages: readonly BookletPage[], sheets: number): (readonly BookletPage[])[] {
  if (sheets === 0) return [pages];
  const size = 4 * sheets;
  return Array.from({ length: Math.ceil(pages.length / size) }, (_, index) =>
    pages.slice(index * size, (index + 1) * size),
  );
}

/** A page in its half of the side, moved toward the spine; a blank page leaves no cell. */
function halfCell(page: BookletPage | undefined, half: Box, shift: number): Cell | null {
  if (!page) return null;
  const { document, page: number, size, settings, source } = page;
  const placed = placePage(size, half, half, settings.scale, 'upright');
  return { document, page: number, ...shifted({ ...placed, source }, half, shift) };
}

/** What creep would push over the spine onto the other page is cut off there. */
function shifted(placed: Placement, half: Box, shift: number): Placement {
  if (shift === 0) return placed;
  const x = placed.x + shift;
  const crosses = x < half.x || x + placed.width > half.x + half.width;
  return { ...placed, x, clip: placed.clip ?? (crosses ? [half.x, half.y, half.width, half.height] : null) };
}
