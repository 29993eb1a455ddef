import type { FromSchema } from 'json-schema-to-ts';
import type { printerSchema } from './printer.schema';

/** A printer as a plan is made against it, every default filled in. */
export type Printer = FromSchema<typeof printerSchema>;

/** A printer profile as written by a person: only `name` and `trays` must be there. */
export type PrinterInput = FromSchema<typeof printerSchema, { keepDefaultedPropertiesOptional: true }>;

export type Tray = Printer['trays'][number];

/** The tray of that id, or null where the printer has none. */
export function findTray(printer: Printer, id: string): Tray | null {
  return printer.trays.find((tray) => tray.id === id) ?? null;
}

/**
 * The tray a run comes from (model, Planning 7): the one it names, or for "auto" the first in the printer's order that
 * holds the size, and the type where one is asked for. Null where "auto" finds none; a named tray is given back even if
 * the printer lacks it, since the plan must show what was asked for.
 */
export function chooseTray(printer: Printer, wanted: string, size: string, type: string | null): string | null {
  if (wanted !== 'auto') return wanted;
  const tray = printer.trays.find((one) => one.size === size && (type === null || one.type === type));
  return tray?.id ?? null;
}

/** How much of every edge of a sheet from that tray stays free, in millimetres. */
export const marginAt = (printer: Printer, tray: string | null): number =>
  (tray === null ? null : findTray(printer, tray)?.margin) ?? printer.margin;

/** Which way a sheet lies in the output; two keywords of outputs say so, and go before what the printer does otherwise. */
export const facingOf = ({ delivers }: Printer, { outputBin }: { readonly outputBin?: string }): Printer['delivers'] =>
  outputBin === 'face-up' || outputBin === 'face-down' ? outputBin : delivers;

/** Paper with two like faces; letterheads and the like may lie the other way round for two-sided printing. */
const FACELESS_TYPES: readonly (string | null)[] = [
  null,
  'stationery',
  'stationery-heavyweight',
  'stationery-lightweight',
];

/** Whether paper from a tray may go through the duplex unit for nothing but a blank back. */
export function mayBeTurned(printer: Printer, tray: string | null): boolean {
  const held = tray === null ? null : findTray(printer, tray);
  const isTooHeavy = (held?.weight ?? 0) > (printer.maxDuplexWeight ?? Infinity);
  return FACELESS_TYPES.includes(held?.type ?? null) && !isTooHeavy;
}

/** What a tray is called on the screen: its own name, otherwise its id. */
export const trayName = (tray: Tray): string => tray.name ?? tray.id;
