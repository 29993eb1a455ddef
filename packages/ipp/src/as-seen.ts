import { isInformationSheet, type Sheet } from '@foglio/core';
import { collections, firstString, type Attributes } from './message';
import type { Shipment } from './shipment';

/** A sheet as the printer is told of it, read back from the very attributes that are sent. */
export interface SheetAsSeen {
  /** Which of the shipment's jobs, and which document of it; both counted from 1. */
  readonly job: number;
  readonly document: number;
  /** The sheet's number in the plan; 0: it stands in no set. */
  readonly sheet: number;
  readonly kind: 'sheet' | 'slip' | 'information';
  /** Pages of the document, from 1. */
  readonly pages: readonly number[];
  /** media-source; null: the printer chooses by the size of the page. */
  readonly source: string | null;
  /** sides (RFC 8011, 5.2.8). */
  readonly sides: string;
  readonly orientation: Sheet['front']['orientation'];
  /** Where it is said: "the job's own attributes", "the settings for pages 3 to 4", "the document's own attributes". */
  readonly because: string;
}

/** Reads a shipment the way a printer does: what is said of a document over what is said of its job, overrides over both. */
export function asSeen(shipment: Shipment): SheetAsSeen[] {
  return shipment.jobs.flatMap((job, jobIndex) =>
    job.documents.flatMap((document, documentIndex) => {
      const say = speaker(job.attributes, document.attributes);
      let page = 1;
      return document.sheets.map((sheet): SheetAsSeen => {
        const pages = sheet.back ? [page, page + 1] : [page];
        page += pages.length;
        return {
          job: jobIndex + 1,
          document: documentIndex + 1,
          sheet: sheet.index,
          kind: kindOf(sheet),
          pages,
          orientation: sheet.front.orientation,
          ...say(pages[0] as number),
        };
      });
    }),
  );
}

const kindOf = (sheet: Sheet): SheetAsSeen['kind'] =>
  sheet.slip ? 'slip' : isInformationSheet(sheet) ? 'information' : 'sheet';

type Said = Pick<SheetAsSeen, 'source' | 'sides' | 'because'>;

function speaker(job: Attributes, document: Attributes): (page: number) => Said {
  const overrides = collections(job, 'overrides');
  const ofDocument = Object.keys(document).length > 0;
  const whole = readSetting({ ...job, ...document });
  return (page) => {
    for (const override of overrides) {
      const range = rangesOf(override).find(({ lower, upper }) => page >= lower && page <= upper);
      if (!range) continue;
      const pages = range.lower === range.upper ? `page ${range.lower}` : `pages ${range.lower} to ${range.upper}`;
      return { ...whole, ...readSetting(override), because: `the settings for ${pages}` };
    }
    return { ...whole, because: ofDocument ? 'the document’s own attributes' : 'the job’s own attributes' };
  };
}

const rangesOf = (override: Attributes): { readonly lower: number; readonly upper: number }[] =>
  (override['pages'] ?? []).flatMap((value) => (value.tag === 'rangeOfInteger' ? [value.value] : []));

function readSetting(attributes: Attributes): Omit<Said, 'because'> {
  const media = collections(attributes, 'media-col')[0] ?? {};
  const source = firstString(media, 'media-source');
  return {
    source: source === 'auto' ? null : source,
    sides: firstString(attributes, 'sides') ?? 'one-sided',
  };
}
