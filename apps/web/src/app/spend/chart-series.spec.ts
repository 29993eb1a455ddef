import { aSpend, figures } from '../../stubs/spend';
import { overTime } from './chart-series';

const paper = (size: string, type: string | null, sheets: number, cost: number) => ({ size, type, sheets, cost });
const A4 = 'iso_a4_210x297mm';

const first = [paper(A4, 'stationery', 10, 0.12), paper(A4, 'stationery-letterhead', 2, 0.5)];
const spend = aSpend({
  papers: [paper(A4, 'stationery-letterhead', 2, 0.5), paper(A4, 'stationery', 10, 0.12)],
  periods: [
    { from: '2026-09-07', ...figures({ sides: 20, colorSides: 9, graySides: 4, printing: 0.7 }), papers: first },
  ],
});

test('a week in which nothing was printed stands there as nothing', () => {
  const { periods, series, unit, say } = overTime(spend, 'money');
  expect(periods).toEqual(['31 Aug', '7 Sept', '14 Sept']);
  expect(series).toEqual([
    { name: 'A4 letterhead', amounts: [0, 0.5, 0] },
    { name: 'A4 plain', amounts: [0, 0.12, 0] },
    { name: 'printing', amounts: [0, 0.7, 0] },
  ]);
  expect([unit, say(1316.4)]).toEqual(['€', '€ 1,316.40']);
});

test('sheets by their paper, most first; sides by how they are billed and seen', () => {
  expect(overTime(spend, 'sheets').series).toEqual([
    { name: 'A4 plain', amounts: [0, 10, 0] },
    { name: 'A4 letterhead', amounts: [0, 2, 0] },
  ]);
  expect(overTime(spend, 'sides').series).toEqual([
    { name: 'in black', amounts: [0, 11, 0] },
    { name: 'in colour', amounts: [0, 5, 0] },
    { name: 'grey, billed as colour', amounts: [0, 4, 0] },
  ]);
});

test('of many papers those of which there is most stand alone, the others together', () => {
  const papers = Array.from({ length: 7 }, (_, at) => paper(A4, `stationery-${'abcdefg'[at]}`, 1, 7 - at));
  const periods = [{ from: '2026-09-07', ...figures(), papers }];
  const { series } = overTime(aSpend({ papers, periods }), 'money');
  expect(series.map(({ name, amounts }) => [name, amounts[1]])).toEqual([
    ['A4 a', 7],
    ['A4 b', 6],
    ['A4 c', 5],
    ['other papers', 4 + 3 + 2 + 1],
    ['printing', 0],
  ]);
});

test('a chart begins with the first delivery of all', () => {
  expect(overTime(aSpend({ since: '2026-09-15' }), 'money').periods).toEqual(['14 Sept']);
  expect(overTime(aSpend({ since: null, step: 'month' }), 'money').periods).toEqual(['Sept 2026']);
});
