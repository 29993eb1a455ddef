import type { Ticket } from '@foglio/core';
import { mediaSizeName } from '../media-size';
import { allStrings, collections, firstNumber, firstString, type Attributes } from '../message';
import { settingFor } from './told-words';

/** What a job asks for, in plain words: what of its attributes a ticket can have. Null: it says nothing of that. */
export interface Wishes {
  readonly copies: number | null;
  readonly collate: boolean | null;
  /** RFC 8011, 5.2.8. */
  readonly sides: 'one-sided' | 'two-sided-long-edge' | 'two-sided-short-edge' | null;
  /** A PWG 5101.1 size name. */
  readonly size: string | null;
  readonly type: string | null;
  /** media-source. */
  readonly tray: string | null;
  readonly pagesPerSide: number | null;
  /** presentation-direction-number-up (PWG 5100.3, 3.17). */
  readonly flow: string | null;
  /** First and last page of each stretch. */
  readonly pages: readonly (readonly [number, number])[];
  readonly orientation: 'portrait' | 'landscape' | null;
  readonly monochrome: boolean | null;
  readonly quality: Ticket['quality'] | null;
  readonly scaling: string | null;
  readonly outputBin: string | null;
  /** Pages that are to be printed otherwise (PWG 5100.6, overrides); the first that names a page counts. */
  readonly overrides: readonly Override[];
  /** Attributes that were asked for and cannot be had, by name. */
  readonly left: readonly string[];
}

/** What is asked for some pages alone. */
export type Override = Pick<Wishes, 'size' | 'type' | 'tray' | 'sides' | 'pages'>;

/** Job template attributes that are understood, and so may be in a job (RFC 8011, section 5.2, where no other is named). */
export const WISHED = [
  'copies',
  'sheet-collate',
  'multiple-document-handling',
  'sides',
  'media',
  'media-col',
  'number-up',
  'presentation-direction-number-up',
  'page-ranges',
  'orientation-requested',
  'print-color-mode',
  'print-quality',
  'print-scaling',
  'output-bin',
  'finishings',
  'overrides',
  'printer-resolution',
  'print-content-optimize',
  'print-rendering-intent',
] as const;

/** Reads what a job asks for. @param left names of attributes that are not taken */
export function wishesOf(template: Attributes, left: readonly string[] = []): Wishes {
  const mode = firstString(template, 'print-color-mode');
  const handling = firstString(template, 'multiple-document-handling');
  const collating = firstString(template, 'sheet-collate');
  const orientation = firstNumber(template, 'orientation-requested');
  return {
    copies: firstNumber(template, 'copies'),
    collate: collating
      ? settingFor('collate', collating) === 'true'
      : handling
        ? !handling.includes('uncollated')
        : null,
    ...paperOf(template),
    pagesPerSide: firstNumber(template, 'number-up'),
    flow: firstString(template, 'presentation-direction-number-up'),
    pages: rangesOf(template, 'page-ranges'),
    overrides: collections(template, 'overrides').map((one) => ({ ...paperOf(one), pages: rangesOf(one, 'pages') })),
    // Portrait and reversed portrait, landscape and reversed landscape (RFC 8011, 5.2.10).
    orientation: orientation === null ? null : orientation === 3 || orientation === 6 ? 'portrait' : 'landscape',
    monochrome: mode === null ? null : MONOCHROME.has(mode),
    quality: settingFor('quality', firstNumber(template, 'print-quality')) as Ticket['quality'] | null,
    scaling: firstString(template, 'print-scaling'),
    outputBin: allStrings(template, 'output-bin')[0] ?? null,
    left,
  };
}

/** What is asked of paper and sides, for the job or for some of its pages. */
function paperOf(attributes: Attributes): Pick<Wishes, 'sides' | 'size' | 'type' | 'tray'> {
  const media = collections(attributes, 'media-col')[0] ?? {};
  const source = firstString(media, 'media-source');
  return {
    sides: firstString(attributes, 'sides') as Wishes['sides'],
    size: sizeOf(media) ?? firstString(attributes, 'media'),
    type: firstString(media, 'media-type'),
    tray: source === 'auto' ? null : source,
  };
}

const rangesOf = (attributes: Attributes, name: string): (readonly [number, number])[] =>
  (attributes[name] ?? []).flatMap((one) =>
    one.tag === 'rangeOfInteger' ? [[one.value.lower, one.value.upper] as const] : [],
  );

/** Words of print-color-mode (PWG 5100.13, 6.2.3) that mean no colour. */
const MONOCHROME = new Set(['monochrome', 'auto-monochrome', 'process-monochrome', 'bi-level', 'process-bi-level']);

function sizeOf(media: Attributes): string | null {
  const measure = collections(media, 'media-size')[0] ?? {};
  const [x, y] = [firstNumber(measure, 'x-dimension'), firstNumber(measure, 'y-dimension')];
  return x && y ? mediaSizeName(x, y) : firstString(media, 'media-size-name');
}
