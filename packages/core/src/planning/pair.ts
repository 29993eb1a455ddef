import type { Ticket } from '../ticket/ticket';
import { turnsOnLongEdge } from './binding';
import type { LaidOutRun } from './layout';
import type { Sheet, Side } from '../plan/plan';
import type { Run } from './run';

export type SheetSides = Sheet['sides'];

/** A sheet before it is fed: its faces and how it is turned over. */
export interface Leaf {
  readonly run: Run;
  readonly sides: SheetSides;
  readonly front: Side;
  readonly back: Side | null;
  /** The signature of a booklet that it is folded in, counted from 1; otherwise null. */
  readonly signature: number | null;
}

/**
 * Step 6. One-sided: a sheet a side. Two-sided: sides 1 and 2 are a sheet's front and back, and so on; a run that ends
 * on a front leaves the back blank. A run never goes on on the sheet of another.
 */
export function pair(runs: readonly LaidOutRun[], bind: Ticket['bind']): Leaf[] {
  const edge = turnsOnLongEdge(runs, bind) ? 'two-sided-long-edge' : 'two-sided-short-edge';
  const leaves: Leaf[] = [];
  for (const { run, faces, signatures } of runs) {
    if (run.sides === 'one-sided') {
      for (const front of faces) leaves.push({ run, sides: 'one-sided', front, back: null, signature: null });
      continue;
    }
    // A booklet is turned over like a landscape page, whatever the rest of the job.
    const sides = signatures ? 'two-sided-short-edge' : edge;
    for (let first = 0; first < faces.length; first += 2) {
      const front = faces[first] as Side;
      const back = faces[first + 1] ?? { orientation: front.orientation, cells: [] };
      leaves.push({ run, sides, front, back, signature: signatures?.[first / 2] ?? null });
    }
  }
  return leaves;
}
