import { mmToPoints, readSizeName, type Printer, type Tray } from '@foglio/core';
import type { SheetToPrint } from './sheet-order';

/** A printer with paper of these sizes in its trays, by their ids. */
export const withSizes = (profile: Printer, sizes: Readonly<Record<string, string>>): Printer => ({
  ...profile,
  trays: profile.trays.map((tray) => ({ ...tray, size: sizes[tray.id] ?? tray.size })),
});

/** Half a millimetre, as media measures are rounded on their way. */
const SAME_MM = 0.5;

/** Whether the paper in a tray is what a sheet asks for. */
export function holds(tray: Tray, sheet: SheetToPrint): boolean {
  const measure = readSizeName(tray.size);
  if (!sheet.size || !measure) return sheet.size === null;
  const same = (points: number, hundredths: number): boolean =>
    Math.abs(points - mmToPoints(hundredths / 100)) <= mmToPoints(SAME_MM);
  const [short, long] = [Math.min(sheet.size.x, sheet.size.y), Math.max(sheet.size.x, sheet.size.y)];
  return same(measure.width, short) && same(measure.height, long);
}
