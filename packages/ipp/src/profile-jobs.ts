import { TOLD, type Printer } from '@foglio/core';
import { allStrings, firstBoolean, OPERATIONS, type Attributes, type Value } from './message';

/** Attributes of jobs that something here may tell a printer of. */
const TEMPLATE = [...new Set([...TOLD.map(({ attribute }) => attribute), 'multiple-document-handling', 'media'])];

/** What is asked of a printer to know what it takes in a job. */
export const JOB_ATTRIBUTES = [
  ...new Set([
    ...TEMPLATE.map((name) => `${name}-supported`),
    'job-creation-attributes-supported',
    'overrides-supported',
    'multiple-document-jobs-supported',
    'document-creation-attributes-supported',
    'document-format-supported',
    'operations-supported',
    'pwg-raster-document-resolution-supported',
    'pwg-raster-document-type-supported',
    'pwg-raster-document-sheet-back',
  ]),
];

/** What a printer takes in a job, as it says itself (RFC 8011, 5.2 and 5.4; PWG 5100.11, job-creation-attributes-supported). */
export function readJobs(attributes: Attributes): Printer['jobs'] {
  const operations = (attributes['operations-supported'] ?? []).flatMap((one) =>
    one.tag === 'enum' || one.tag === 'integer' ? [one.value] : [],
  );
  return {
    overrides: allStrings(attributes, 'overrides-supported'),
    documents: takesDocuments(attributes) && (operations.length === 0 || operations.includes(OPERATIONS.sendDocument)),
    takes: takesOf(attributes),
    mostCopies: mostCopies(attributes),
    formats: allStrings(attributes, 'document-format-supported').map((format) => format.toLowerCase()),
    operations,
    raster: readRaster(attributes),
  };
}

/** Fine enough to read what is on a side, in dots an inch (common practice): more takes longer and more room. */
const FINE_ENOUGH = 300;
const SHEET_BACKS = ['normal', 'flipped', 'manual-tumble', 'rotated'] as const;

/** How it takes pictures of sides (PWG 5102.4, section 5; IPP Everywhere, PWG 5100.14, 4.2); null where it does not. */
function readRaster(attributes: Attributes): Printer['jobs']['raster'] {
  const dots = (attributes['pwg-raster-document-resolution-supported'] ?? []).flatMap((one) =>
    one.tag === 'resolution' && one.value.unit === 3 && one.value.cross === one.value.feed ? [one.value.cross] : [],
  );
  const inOrder = dots.filter((dpi) => dpi >= 50 && dpi <= 2400).sort((one, other) => one - other);
  const dpi = inOrder.find((one) => one >= FINE_ENOUGH) ?? inOrder.at(-1);
  const types = allStrings(attributes, 'pwg-raster-document-type-supported');
  const inColor = types.includes('srgb_8');
  if (dpi === undefined || !(inColor || types.includes('sgray_8'))) return null;
  const back = allStrings(attributes, 'pwg-raster-document-sheet-back')[0];
  return { dpi, inColor, sheetBack: SHEET_BACKS.find((one) => one === back) ?? 'normal' };
}

/** Whether each document of a job may come from its own tray on sides of its own (PWG 5100.5): several alone is not enough. */
function takesDocuments(attributes: Attributes): boolean {
  const own = allStrings(attributes, 'document-creation-attributes-supported');
  const several = firstBoolean(attributes, 'multiple-document-jobs-supported') ?? false;
  return several && own.includes('media-col') && own.includes('sides');
}

/**
 * By attribute the values that it takes. A printer that takes an attribute must say which values of it (RFC 8011, 5.2:
 * "xxx-supported"), or names it among those with which jobs are made. Null where it says nothing of any.
 */
function takesOf(attributes: Attributes): Printer['jobs']['takes'] {
  const creating = allStrings(attributes, 'job-creation-attributes-supported');
  const taken = TEMPLATE.flatMap((name): [string, string[]][] => {
    const values =
      attributes[`${name}-supported`] ?? (name === 'media-col' ? readyIn(attributes, creating) : undefined);
    return values || creating.includes(name) ? [[name, (values ?? []).flatMap(wordOf)]] : [];
  });
  return taken.length === 0 ? null : Object.fromEntries(taken);
}

/** What lies ready is told member by member: whoever tells so, and nothing of what jobs may ask for, is asked so too. */
const readyIn = (attributes: Attributes, creating: readonly string[]): readonly Value[] | undefined =>
  creating.length === 0 && attributes['media-col-ready'] ? [] : undefined;

/** A value as a profile carries it; none of a range. */
function wordOf(value: Value): string[] {
  if (value.tag === 'enum' || value.tag === 'keyword' || value.tag === 'name') return [String(value.value)];
  return [];
}

/** copies-supported (RFC 8011, 5.2.5): a range from 1. */
function mostCopies(attributes: Attributes): number | null {
  const [told] = attributes['copies-supported'] ?? [];
  const most = told?.tag === 'rangeOfInteger' ? told.value.upper : told?.tag === 'integer' ? told.value : null;
  return most !== null && most >= 1 ? most : null;
}
