import { mediaSizeName } from './media-size';
import type { Tray } from '@foglio/core';
import { allStrings, collections, firstNumber, firstString, type Attributes } from './message';
import { keyValues, octetStrings } from './octet-pairs';

/** What is asked of a printer to know its trays. */
export const TRAY_ATTRIBUTES = ['media-source-supported', 'media-col-ready', 'printer-input-tray'];

/** No office printer has more; what tells of more keeps whoever reads it from all else. */
const MOST_TRAYS = 50;

/** No printer lists more papers than this, each of its trays with and without margins. */
const MOST_READY = 500;

/**
 * The trays with what lies in them (media-col-ready, PWG 5100.3). A printer may list a tray several times, as it may be
 * printed on in ordinary ways and to the edge: it is one tray, and the paper its first. What names no source, or has no
 * measure, is passed over.
 *
 * @throws Error where none is left, or they are more than any printer has
 */
export function readTrays(attributes: Attributes): Tray[] {
  const inputs = octetStrings(attributes, 'printer-input-tray').slice(0, MOST_READY).map(keyValues);
  const ready = collections(attributes, 'media-col-ready');
  if (ready.length > MOST_READY) throw new Error(`the printer names ${ready.length} papers, which none has`);
  const sources = allStrings(attributes, 'media-source-supported').filter((source) => source !== 'auto');
  const trays = new Map<string, Tray>();
  for (const [index, media] of ready.entries()) {
    // A printer that does not say from which tray a paper comes lists both in the same order (common practice).
    const inOrder = sources.length === ready.length ? (sources[index] ?? null) : null;
    const tray = readTray(media, index, inputs, inOrder);
    if (!tray) continue;
    const known = trays.get(tray.id);
    // The same paper once more, with other margins: what is printed without asking for more keeps the wider ones.
    if (!known) trays.set(tray.id, tray);
    else if (known.size === tray.size)
      trays.set(tray.id, { ...known, margin: Math.max(known.margin ?? 0, tray.margin ?? 0) });
  }
  if (trays.size === 0) throw new Error('the printer names no tray with paper in it (media-col-ready)');
  if (trays.size > MOST_TRAYS) throw new Error(`the printer names ${trays.size} trays, which none has`);
  return [...trays.values()];
}

/** A tray's id as tickets carry it: a keyword, whatever letters a printer writes it in. */
const IS_ID = /^[a-z0-9][a-z0-9._-]{0,254}$/;

function readTray(
  media: Attributes,
  index: number,
  inputs: readonly Map<string, string>[],
  inOrder: string | null,
): Tray | null {
  const measure = collections(media, 'media-size')[0];
  const id = firstString(media, 'media-source') ?? inOrder;
  const x = measure && firstNumber(measure, 'x-dimension');
  const y = measure && firstNumber(measure, 'y-dimension');
  if (!id || !IS_ID.test(id) || !x || !y || x < 0 || y < 0) return null;
  // printer-input-tray is in the order of the trays and may tell its keyword; without one, the place in the list tells.
  const input = inputs.find((one) => one.get('source') === id) ?? inputs[index] ?? new Map<string, string>();
  return {
    id,
    name: input.get('name') ?? null,
    size: mediaSizeName(x, y),
    type: firstString(media, 'media-type'),
    weight: firstNumber(media, 'media-weight-metric') || null,
    capacity: amount(input.get('maxcapacity')),
    loaded: amount(input.get('level')),
    price: 0,
    margin: marginOf(media),
  };
}

const EDGES = ['media-top-margin', 'media-bottom-margin', 'media-left-margin', 'media-right-margin'];

/** The widest of its edges, in millimetres (PWG 5100.3, media-*-margin: hundredths); null where it tells of none. */
function marginOf(media: Attributes): number | null {
  const told = EDGES.flatMap((name) => firstNumber(media, name) ?? []);
  return told.length === 0 ? null : Math.min(Math.max(0, ...told) / 100, 100);
}

/** Level -1 and -3 mean "other" and "at least one" (RFC 3805, prtInputCurrentLevel): no amount to count with. */
function amount(text: string | undefined): number | null {
  const value = Number(text);
  return text !== undefined && Number.isInteger(value) && value >= 0 ? value : null;
}
