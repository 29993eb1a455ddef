import type { Leaf } from './pair';
import type { Sheet } from './plan';

/**
 * Step 7. Each leaf becomes a sheet of its run's paper, from the run's tray. The choice of tray is made with the run
 * (it decides where a run ends); here it reaches the sheet.
 */
export function feed(leaves: readonly Leaf[]): Sheet[] {
  return leaves.map(({ run, sides, front, back }, position) => ({
    index: position + 1,
    run: run.number,
    tray: run.tray,
    slip: false,
    paper: { size: run.paper.name, width: run.paper.width, height: run.paper.height },
    sides,
    front,
    back,
  }));
}
