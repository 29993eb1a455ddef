import { pointsToMm, readSizeName, type Printer, type Tray } from '@foglio/core';
import { collection, integer, keyword, octets, rangeOf, type Attributes, type Value } from '../message';

const hundredths = (mm: number): Value => integer(Math.round(mm * 100));

/** What lies in the trays, what else may be asked for, and where sheets go (PWG 5100.3, media-col; PWG 5100.7; 5100.13). */
export function mediaAttributes(profile: Printer, otherSizes: readonly string[], isAnySize: boolean): Attributes {
  const { trays } = profile;
  const sizes = [...new Set([...trays.map(({ size }) => size), ...otherSizes])];
  const types = [...new Set(trays.flatMap(({ type }) => type ?? []))];
  const ready = trays.map((tray) => mediaCol(tray, tray.margin ?? profile.margin));
  const others = otherSizes
    .filter((size) => !trays.some((tray) => tray.size === size))
    .map((size) => mediaCol({ size, id: null, type: null, weight: null }, profile.margin));
  const first = trays[0]!.size;
  const margin = [hundredths(profile.margin)];
  return {
    'media-supported': [...sizes, ...(isAnySize ? BOUNDS : [])].map(keyword),
    'media-default': [keyword(first)],
    'media-ready': [...new Set(trays.map(({ size }) => size))].map(keyword),
    'media-col-supported': ['media-size', 'media-source', 'media-type'].map(keyword),
    'media-col-ready': ready,
    'media-col-default': ready.slice(0, 1),
    'media-col-database': [...ready, ...others],
    'media-size-supported': [
      ...sizes.map((size) => collection(measureOf(size))),
      ...(isAnySize ? [collection(ANY_MEASURE)] : []),
    ],
    'media-source-supported': ['auto', ...trays.map(({ id }) => id)].map(keyword),
    'media-type-supported': (types.length > 0 ? types : ['stationery']).map(keyword),
    'media-top-margin-supported': margin,
    'media-bottom-margin-supported': margin,
    'media-left-margin-supported': margin,
    'media-right-margin-supported': margin,
    'printer-input-tray': trays.map(inputOf),
    'printer-output-tray': [octets(outputOf(profile))],
  };
}

/** Edges in millimetres of what may be put in by hand: less feeds nowhere, more is on no roll of an office. */
const LEAST = 50;
const MOST = 1500;

/** Any size between these (PWG 5101.1, 5: custom_min and custom_max). */
const BOUNDS = [`custom_min_${LEAST}x${LEAST}mm`, `custom_max_${MOST}x${MOST}mm`];
const ANY_MEASURE: Attributes = {
  'x-dimension': [rangeOf(LEAST * 100, MOST * 100)],
  'y-dimension': [rangeOf(LEAST * 100, MOST * 100)],
};

function measureOf(name: string): Attributes {
  const size = readSizeName(name) ?? { width: 0, height: 0 };
  return {
    'x-dimension': [hundredths(pointsToMm(size.width))],
    'y-dimension': [hundredths(pointsToMm(size.height))],
  };
}

/** @param margin in millimetres, at every edge */
function mediaCol(
  { size, id, type, weight }: Pick<Tray, 'size' | 'type' | 'weight'> & { readonly id: string | null },
  margin: number,
): Value {
  const free = [hundredths(margin)];
  return collection({
    'media-size': [collection(measureOf(size))],
    'media-top-margin': free,
    'media-bottom-margin': free,
    'media-left-margin': free,
    'media-right-margin': free,
    ...(id === null ? {} : { 'media-source': [keyword(id)] }),
    ...(type ? { 'media-type': [keyword(type)] } : {}),
    ...(weight ? { 'media-weight-metric': [integer(Math.round(weight))] } : {}),
  });
}

const inputOf = ({ id, name, capacity, loaded }: Tray): Value =>
  octets(
    `type=sheetFeedAutoRemovableTray;maxcapacity=${capacity ?? -1};level=${loaded ?? -2};` +
      `status=0;name=${name ?? id};source=${id};`,
  );

const outputOf = ({ delivers }: Printer): string =>
  'type=unRemovableBin;maxcapacity=500;remaining=500;status=0;name=Output;' +
  `stackingorder=firstToLast;pagedelivery=${delivers === 'face-up' ? 'faceUp' : 'faceDown'};`;
