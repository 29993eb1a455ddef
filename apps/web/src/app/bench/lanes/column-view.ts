import type { Sheet } from '@foglio/core';
import type { Lane } from './lanes-layout';

/** A column as it is drawn. */
export interface ColumnView {
  /** The sheet, or the first of a folded block. */
  readonly sheet: Sheet;
  /** Of a folded block: its last sheet, and what is in it. */
  readonly block: {
    readonly to: number;
    readonly sheets: string;
    readonly pages: string;
    /** The sheet within it at which its tray runs out. */
    readonly runsOutAt: number | null;
  } | null;
  /** Its number over the lanes, or its stretch of numbers. */
  readonly number: string;
  /** The set in which its tray runs out at this sheet. */
  readonly runsOutIn: number | null;
  readonly left: number;
  readonly width: number;
  readonly lane: Lane;
  readonly chosen: boolean;
  readonly label: string;
  readonly front: string;
  readonly back: string;
}
