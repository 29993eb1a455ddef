import type { Area } from './table';

/** Which merged cells of a table lie where; of each only its first cell holds anything. */
export class Merges {
  private readonly byRow = new Map<number, Area[]>();

  constructor(areas: readonly Area[]) {
    for (const area of areas) {
      for (let row = area.top; row <= area.bottom; row += 1) {
        const there = this.byRow.get(row);
        if (there) there.push(area);
        else this.byRow.set(row, [area]);
      }
    }
  }

  /** The merged cell that a cell is of; null where it stands for itself. */
  at(row: number, column: number): Area | null {
    return this.byRow.get(row)?.find(({ left, right }) => column >= left && column <= right) ?? null;
  }
}

export const isFirstOf = ({ top, left }: Area, row: number, column: number): boolean => row === top && column === left;
