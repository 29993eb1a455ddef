import { KNOWN, type KnownField, type Printer } from '@foglio/core';
import { allStrings, firstBoolean, firstNumber, firstString, type Attributes } from './message';
import { keyValues, octetStrings } from './octet-pairs';
import { JOB_ATTRIBUTES, readJobs } from './profile-jobs';
import { readTrays, TRAY_ATTRIBUTES } from './profile-trays';

/** What is asked of a printer to know it: Get-Printer-Attributes, requested-attributes. */
export const PROFILE_ATTRIBUTES = [
  'printer-name',
  'printer-info',
  ...KNOWN.map(({ asked }) => asked),
  ...TRAY_ATTRIBUTES,
  'printer-output-tray',
  'page-delivery-supported',
  'pages-per-minute',
  ...JOB_ATTRIBUTES,
];

/**
 * A printer's answer as a profile to plan against. Prices are not among what a printer tells; they are zero here and
 * laid over by whoever knows them.
 *
 * @throws Error where the printer names no tray with paper of a known measure
 */
export function readProfile(attributes: Attributes): Printer {
  const trays = readTrays(attributes);
  return {
    name: nameOf(attributes),
    ...readKnown(attributes),
    margin: Math.max(0, ...trays.map(({ margin }) => margin ?? 0)),
    // No attribute tells it; who knows it says so.
    maxStapled: null,
    maxDuplexWeight: null,
    delivers: deliveryOf(attributes),
    printsOn: 'lower',
    trays,
    prices: { mono: 0, color: 0 },
    sidesPerMinute: firstNumber(attributes, 'pages-per-minute') || null,
    twoSidedFactor: 1,
    refeedTray: null,
    jobs: readJobs(attributes),
  };
}

/** At most so long in a profile; printers have 127 octets (RFC 8011, 5.4.4). */
const LONGEST_NAME = 200;

function nameOf(attributes: Attributes): string {
  const names = ['printer-info', 'printer-name'].flatMap((name) => firstString(attributes, name)?.trim() || []);
  return (names[0] ?? 'printer').slice(0, LONGEST_NAME).toWellFormed();
}

type Known = Pick<Printer, KnownField>;

/** What the settings ask of a printer, from its answers. */
function readKnown(attributes: Attributes): Known {
  const said = KNOWN.map(({ field, asked, syntax, read }) => {
    return [field, read(READING[syntax](attributes, asked))];
  });
  return Object.fromEntries(said) as Known;
}

/** What was answered, as words. */
const READING: Readonly<Record<(typeof KNOWN)[number]['syntax'], (attributes: Attributes, name: string) => string[]>> =
  {
    keyword: allStrings,
    boolean: (attributes, name) => {
      const flag = firstBoolean(attributes, name);
      return flag === null ? [] : [String(flag)];
    },
    enum: (attributes, name) =>
      (attributes[name] ?? []).flatMap((one) => (one.tag === 'enum' ? [String(one.value)] : [])),
  };

/** Which way sheets lie in the output; face down where the printer does not say (common practice). */
function deliveryOf(attributes: Attributes): Printer['delivers'] {
  const output = keyValues(octetStrings(attributes, 'printer-output-tray')[0] ?? '').get('pagedelivery');
  if (output !== undefined) return output === 'faceUp' ? 'face-up' : 'face-down';
  // "same-order-face-up", "reverse-order-face-down" and so on (PWG 5100.3, page-delivery).
  const ways = allStrings(attributes, 'page-delivery-supported').filter((way) => way !== 'system-specified');
  return ways.length > 0 && ways.every((way) => way.endsWith('face-up')) ? 'face-up' : 'face-down';
}
