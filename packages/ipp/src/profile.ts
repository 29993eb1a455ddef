import { KNOWN, type KnownField, type Printer, type Tray } from '@foglio/core';
import { mediaSizeName } from './media-size';
import { allStrings, collections, firstBoolean, firstNumber, firstString, type Attributes } from './message';

/** What is asked of a printer to know it: Get-Printer-Attributes, requested-attributes. */
export const PROFILE_ATTRIBUTES = [
  'printer-name',
  'printer-info',
  'printer-state',
  'printer-state-reasons',
  ...KNOWN.map(({ asked }) => asked),
  'media-source-supported',
  'media-col-ready',
  'printer-input-tray',
  'printer-output-tray',
  'page-delivery-supported',
  'pages-per-minute',
  'overrides-supported',
  'multiple-document-jobs-supported',
  'document-creation-attributes-supported',
];

/**
 * A printer's answer as a profile to plan against. Prices are not among what a printer tells; they are zero here and
 * laid over by whoever knows them.
 *
 * @throws Error where the printer names no tray with paper of a known measure
 */
export function readProfile(attributes: Attributes): Printer {
  const inputs = allInputTrays(attributes);
  const ready = collections(attributes, 'media-col-ready');
  const sources = allStrings(attributes, 'media-source-supported').filter((source) => source !== 'auto');
  const trays = ready.flatMap((media, index) => {
    // A printer that does not say from which tray a paper comes lists both in the same order (common practice).
    const inOrder = sources.length === ready.length ? (sources[index] ?? null) : null;
    const tray = readTray(media, index, inputs, inOrder);
    return tray ? [tray] : [];
  });
  if (trays.length === 0) throw new Error('the printer names no tray with paper in it (media-col-ready)');
  const margins = ready.flatMap((media) =>
    ['media-top-margin', 'media-bottom-margin', 'media-left-margin', 'media-right-margin'].map(
      (name) => (firstNumber(media, name) ?? 0) / 100,
    ),
  );
  return {
    name: firstString(attributes, 'printer-info') ?? firstString(attributes, 'printer-name') ?? 'printer',
    ...readKnown(attributes),
    margin: Math.max(0, ...margins),
    maxDuplexWeight: null,
    delivers: deliveryOf(attributes),
    printsOn: 'lower',
    trays,
    prices: { mono: 0, color: 0 },
    sidesPerMinute: firstNumber(attributes, 'pages-per-minute') || null,
    twoSidedFactor: 1,
    refeedTray: null,
    jobs: {
      overrides: allStrings(attributes, 'overrides-supported'),
      documents: takesDocuments(attributes),
    },
  };
}

type Known = Pick<Printer, KnownField>;

/** What the settings ask of a printer, from its answers. */
function readKnown(attributes: Attributes): Known {
  const said = KNOWN.map(({ field, asked, syntax, read }) => {
    const flag = firstBoolean(attributes, asked);
    const values = syntax === 'keyword' ? allStrings(attributes, asked) : flag === null ? [] : [String(flag)];
    return [field, read(values)];
  });
  return Object.fromEntries(said) as Known;
}

/** Which way sheets lie in the output; face down where the printer does not say (common practice). */
function deliveryOf(attributes: Attributes): Printer['delivers'] {
  const output = keyValues(octetStrings(attributes, 'printer-output-tray')[0] ?? '').get('pagedelivery');
  if (output !== undefined) return output === 'faceUp' ? 'face-up' : 'face-down';
  // "same-order-face-up", "reverse-order-face-down" and so on (PWG 5100.3, page-delivery).
  const ways = allStrings(attributes, 'page-delivery-supported').filter((way) => way !== 'system-specified');
  return ways.length > 0 && ways.every((way) => way.endsWith('face-up')) ? 'face-up' : 'face-down';
}

/** Whether each document of a job may come from its own tray on sides of its own (PWG 5100.5): several alone is not enough. */
function takesDocuments(attributes: Attributes): boolean {
  const own = allStrings(attributes, 'document-creation-attributes-supported');
  const several = firstBoolean(attributes, 'multiple-document-jobs-supported') ?? false;
  return several && own.includes('media-col') && own.includes('sides');
}

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
  if (!id || !x || !y) return null;
  // printer-input-tray is in the order of the trays and may tell its keyword; without one, the place in the list tells.
  const input = inputs.find((one) => one.get('source') === id) ?? inputs[index] ?? new Map<string, string>();
  return {
    id,
    name: input.get('name') ?? null,
    size: mediaSizeName(x, y),
    type: firstString(media, 'media-type'),
    weight: firstNumber(media, 'media-weight-metric'),
    capacity: amount(input.get('maxcapacity')),
    loaded: amount(input.get('level')),
    price: 0,
  };
}

/** Level -1 and -3 mean "other" and "at least one" (RFC 3805, prtInputCurrentLevel): no amount to count with. */
function amount(text: string | undefined): number | null {
  const value = Number(text);
  return text !== undefined && Number.isInteger(value) && value >= 0 ? value : null;
}

const allInputTrays = (attributes: Attributes): Map<string, string>[] =>
  octetStrings(attributes, 'printer-input-tray').map(keyValues);

function octetStrings(attributes: Attributes, name: string): string[] {
  return (attributes[name] ?? []).flatMap((value) =>
    value.tag === 'octetString' ? [new TextDecoder().decode(value.value)] : [],
  );
}

/** "maxcapacity=500;level=140;name=Tray 1;" (PWG 5100.13, printer-input-tray). */
function keyValues(text: string): Map<string, string> {
  const pairs = text.split(';').flatMap((pair) => {
    const equals = pair.indexOf('=');
    return equals > 0 ? [[pair.slice(0, equals).trim(), pair.slice(equals + 1).trim()] as const] : [];
  });
  return new Map(pairs);
}
