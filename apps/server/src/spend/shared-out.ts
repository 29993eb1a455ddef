import type { Spent } from '@foglio/core';

/**
 * What came out of a delivery that was broken off, as its share of the whole: nobody knows which sheets lay in the output, and a
 * printer counts them, not their sides.
 *
 * @param sheets that came out
 */
export function sharedOut(whole: Spent, sheets: number): Spent {
  if (sheets === whole.sheets) return whole;
  const share = whole.sheets > 0 ? Math.min(1, sheets / whole.sheets) : 0;
  const part = (count: number): number => Math.round(count * share);
  const money = (amount: number): number => Number((amount * share).toFixed(4));
  return {
    ...whole,
    sheets,
    twoSidedSheets: part(whole.twoSidedSheets),
    sides: part(whole.sides),
    colorSides: part(whole.colorSides),
    graySides: part(whole.graySides),
    paper: money(whole.paper),
    printing: money(whole.printing),
    gray: money(whole.gray),
    papers: shareOfEach(whole.papers, share, sheets),
    saved: { sheets: part(whole.saved.sheets), cost: money(whole.saved.cost) },
    cheaper: whole.cheaper && { ...whole.cheaper, saves: money(whole.cheaper.saves) },
  };
}

/** Each paper's share; what rounding leaves over is of the paper that there is most of, so that all of it adds up. */
function shareOfEach(papers: Spent['papers'], share: number, sheets: number): Spent['papers'] {
  const shared = papers.map((paper) => ({
    ...paper,
    sheets: Math.floor(paper.sheets * share),
    cost: Number((paper.cost * share).toFixed(4)),
  }));
  const left = sheets - shared.reduce((sum, paper) => sum + paper.sheets, 0);
  const most = shared.reduce((best, paper, at) => (paper.sheets > shared[best]!.sheets ? at : best), 0);
  return shared.map((paper, at) => (at === most ? { ...paper, sheets: paper.sheets + left } : paper));
}
