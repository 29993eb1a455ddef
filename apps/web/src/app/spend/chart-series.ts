import type { SpendFigures, SpendPaper, SpendRecord } from '@foglio/api';
import { saySpentPaper } from '@foglio/sentence';
import { sayMoney } from '../bench/amounts';
import { periodsBetween, sayPeriod } from './days';

/** What is drawn over time. */
export const VIEWS = ['money', 'sheets', 'sides'] as const;
export type View = (typeof VIEWS)[number];

/** One of what lies on each other in the columns. */
export interface Series {
  readonly name: string;
  /** One for each period. */
  readonly amounts: readonly number[];
}

/** A chart, and the table of the same figures. */
export interface OverTime {
  /** What the axis counts. */
  readonly unit: string;
  readonly periods: readonly string[];
  readonly series: readonly Series[];
  readonly say: (amount: number) => string;
}

/** Papers with a part of their own; a chart of more is read by nobody. */
const MOST_PAPERS = 3;

const OTHERS = 'other papers';

type Period = SpendRecord['periods'][number];

const nameOf = (paper: SpendPaper): string => saySpentPaper(paper);

/** A record's figures by period, those without a delivery as nothing. */
export function overTime(spend: SpendRecord, view: View): OverTime {
  const { from, to, since, step } = spend;
  const begin = since !== null && since > from ? since : from;
  const days = periodsBetween(begin > to ? to : begin, to, step);
  const known = new Map(spend.periods.map((period) => [period.from, period]));
  const each = (amount: (period: Period) => number): number[] =>
    days.map((day) => {
      const period = known.get(day);
      return period ? amount(period) : 0;
    });
  const periods = days.map((day) => sayPeriod(day, step));
  if (view === 'sides') {
    const seen = ({ colorSides, graySides }: SpendFigures): number => colorSides - graySides;
    const series = [
      { name: 'in black', amounts: each(({ sides, colorSides }) => sides - colorSides) },
      { name: 'in colour', amounts: each(seen) },
      { name: 'grey, billed as colour', amounts: each(({ graySides }) => graySides) },
    ];
    return { unit: 'sides', periods, series, say: sayCount };
  }
  const of = view === 'money' ? 'cost' : 'sheets';
  const papers = papersApart(spend, each, of);
  const series =
    view === 'money' ? [...papers, { name: 'printing', amounts: each(({ printing }) => printing) }] : papers;
  return { unit: view === 'money' ? '€' : 'sheets', periods, series, say: view === 'money' ? sayMoney : sayCount };
}

/** Those of which there is most, and all others as one. */
function papersApart(
  { papers }: SpendRecord,
  each: (amount: (period: Period) => number) => number[],
  of: 'cost' | 'sheets',
): Series[] {
  const names = [...new Set(papers.toSorted((one, other) => other[of] - one[of]).map(nameOf))];
  const own = names.length > MOST_PAPERS + 1 ? names.slice(0, MOST_PAPERS) : names;
  const sum = (period: Period, is: (name: string) => boolean): number =>
    period.papers.reduce((all, paper) => (is(nameOf(paper)) ? all + paper[of] : all), 0);
  const series = own.map((name) => ({ name, amounts: each((period) => sum(period, (one) => one === name)) }));
  if (own.length === names.length) return series;
  return [...series, { name: OTHERS, amounts: each((period) => sum(period, (one) => !own.includes(one))) }];
}

export const sayCount = (count: number): string => count.toLocaleString('en-GB');
