import type { Aspect } from './aspect';
import { bind, bookletBind, copies, faces, proof, sets, sides } from './copies';
import { finishEach, fold, holes, offset, staples } from './finishing';
import { form } from './form';
import { information, informationTray } from './information';
import {
  cover,
  creep,
  cutMarks,
  flow,
  foldMarks,
  frame,
  grid,
  gutter,
  perSide,
  repeat,
  signatures,
  turn,
} from './layout';
import { footLine, footLinePlace, headLine, headLinePlace } from './lines';
import { delivery, inTurn, newDocuments, newSections, numbering, rotate, slips, slipTray, title } from './order';
import { outputBin } from './output-bin';
import { part } from './part';
import { backs, pieces, stack } from './pieces';
import { joinMarks, overlap, tileCount } from './tiles';
import { bindingMargin, color, margin, orientation, paper, paperType, quality, scale, tray } from './paper';

/** Of each document, after its pages. */
export const DOCUMENT_ASPECTS: readonly Aspect[] = [title, form, rotate, part, numbering];

/** Of what a route may have a say in too. */
export const PAGE_ASPECTS: readonly Aspect[] = [
  perSide,
  tileCount,
  overlap,
  joinMarks,
  grid,
  repeat,
  flow,
  turn,
  backs,
  stack,
  gutter,
  frame,
  cutMarks,
  signatures,
  cover,
  creep,
  foldMarks,
  scale,
  paper,
  paperType,
  orientation,
  margin,
  color,
  outputBin,
];

/** Of the whole job, in the order of the sentence; the tray comes after the routes. */
export const JOB_ASPECTS: readonly Aspect[] = [
  inTurn,
  pieces,
  copies,
  sets,
  proof,
  sides,
  bind,
  faces,
  ...PAGE_ASPECTS.slice(0, PAGE_ASPECTS.indexOf(cover)),
  bookletBind,
  ...PAGE_ASPECTS.slice(PAGE_ASPECTS.indexOf(cover)),
  bindingMargin,
  headLine,
  headLinePlace,
  footLine,
  footLinePlace,
  quality,
  newDocuments,
  newSections,
  slips,
  slipTray,
  staples,
  holes,
  fold,
  offset,
  finishEach,
  information,
  informationTray,
  delivery,
];

const ALL: readonly Aspect[] = [...DOCUMENT_ASPECTS, ...JOB_ASPECTS, tray];

/** What "and also" has to offer. */
export const OFFERED: readonly Aspect[] = ALL.filter(({ offer }) => offer !== null);

/** The aspect of that name. @throws Error where there is none */
export function aspectOf(name: string): Aspect {
  const found = ALL.find((aspect) => aspect.name === name);
  if (!found) throw new Error(`no aspect is called ${name}`);
  return found;
}

export { tray as TRAY } from './paper';
