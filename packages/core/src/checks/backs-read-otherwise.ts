import type { Sheet } from '../plan/plan';
import { indexesOf, pagesOn, type CheckRule } from './context';
import { countOf, listOf } from './words';

/** More sheets than this are told by their number. */
const MOST_NAMED = 4;

/** Sheets of which one side is read portrait and the other landscape: however they are turned, the set has to be turned too. */
export const backsReadOtherwise: CheckRule = ({ plan }) => {
  const otherwise = plan.sheets.filter(isReadOtherwise);
  const [first] = otherwise;
  if (!first) return [];
  const indexes = indexesOf(otherwise);
  const one = `Sheet ${first.index} is read ${first.front.orientation} on its front and ${first.back?.orientation} on its back.`;
  const named = indexes.length > MOST_NAMED ? countOf(indexes.length, 'sheet') : `Sheets ${listOf(indexes)}`;
  const message =
    indexes.length === 1 ? one : `${named} are read in one direction on the front and in another on the back.`;
  return [{ code: 'backs-read-otherwise', level: 'note', message, sheets: indexes, pages: pagesOn(otherwise) }];
};

const isReadOtherwise = ({ front, back }: Sheet): boolean =>
  back !== null && front.cells.length > 0 && back.cells.length > 0 && front.orientation !== back.orientation;
