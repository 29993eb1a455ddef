import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import { boxOfText, inTwoPasses, passPlan, plan, type DocumentFacts, type Plan, type TicketInput } from '../src';
import { widthOf } from '../src/marks/line-widths';
import { eachSide } from '../src/plan/each-side';
import { readPrinter, readTicket } from '../src/validate';
import { job, RUNS, ticketOf } from './any-job';
import { profileForTicket } from '../src';
import { A4, documentOf, OFFICE, planOf } from './jobs';

const printer = readPrinter({ ...OFFICE, margin: 5 });
const MARGIN = (5 / 25.4) * 72;

const lined = (lines: TicketInput['lines'], settings: object, ...documents: DocumentFacts[]): Plan => {
  const entries = documents.map(({ name }) => ({ file: name }));
  const ticket = readTicket({ version: 1, title: 'Season', documents: entries, lines, ...settings });
  return plan(ticket, documents, printer, { now: '2026-09-01T10:00' });
};

/** The texts of each side in the order of printing. */
function textsOf({ sheets }: Plan): string[][] {
  const texts: string[][] = [];
  eachSide(sheets, (side) => texts.push((side.texts ?? []).map(({ text }) => text)));
  return texts;
}

const CONTRACT: DocumentFacts = {
  ...documentOf(4, A4, 'contract.pdf'),
  outline: [{ title: 'Fees', level: 1, page: 2, top: 0 }],
};

test('what stands in braces is filled in for each page', () => {
  const text = '{page}/{pages} {file page}/{file pages} {file} {title} {date} {section}';
  const made = lined([{ at: 'bottom-left', text }], {}, CONTRACT, documentOf(2, A4, 'fees.pdf'));
  expect(textsOf(made)).toEqual([
    ['1/6 1/4 contract Season 1 September 2026'],
    ['2/6 2/4 contract Season 1 September 2026 Fees'],
    ['3/6 3/4 contract Season 1 September 2026 Fees'],
    ['4/6 4/4 contract Season 1 September 2026 Fees'],
    ['5/6 1/2 fees Season 1 September 2026'],
    ['6/6 2/2 fees Season 1 September 2026'],
  ]);
});

test('a line stands at its edge of what the printer can print on', () => {
  const at = ['top-left', 'top-center', 'top-right', 'bottom-left', 'bottom-center', 'bottom-right'] as const;
  const made = lined(
    at.map((place) => ({ at: place, text: 'Page {page}', size: 10 })),
    {},
    documentOf(1),
  );
  const boxes = made.sheets[0]!.front.texts!.map(boxOfText);
  const [left, right] = [MARGIN, A4.width - MARGIN];
  boxes.forEach(({ x, y, width, height }, index) => {
    const [edge, place] = at[index]!.split('-');
    if (place === 'left') expect(x).toBeCloseTo(left);
    if (place === 'center') expect(x + width / 2).toBeCloseTo(A4.width / 2);
    if (place === 'right') expect(x + width).toBeCloseTo(right);
    if (edge === 'bottom') expect(y).toBeCloseTo(MARGIN);
    else expect(y + height).toBeCloseTo(A4.height - MARGIN);
  });
});

test('on a side of several pages the line of one that is left alone is at its own edge, not at the sheet’s', () => {
  const settings = { layout: { kind: 'grid', pagesPerSide: 4 } };
  const edgeOf = (pages: number): number => {
    const made = lined([{ at: 'bottom-left', text: '{page}', size: 10 }], settings, documentOf(pages));
    const { texts, cells } = made.sheets[0]!.front;
    const [first] = cells;
    return texts![0]!.x - first!.x;
  };
  expect(edgeOf(1)).toBeCloseTo(edgeOf(4));
  // Of an only page the left edge lies in the sheet's upper left quarter, far from its foot.
  const alone = lined([{ at: 'bottom-left', text: '{page}', size: 10 }], settings, documentOf(1));
  expect(alone.sheets[0]!.front.texts![0]!.y).toBeGreaterThan(A4.height / 3);
});

test('in a booklet pages are counted as they are read, each at the foot of its half', () => {
  const made = lined([{ at: 'bottom-center', text: '{page}' }], { layout: { kind: 'booklet' } }, documentOf(8));
  expect(textsOf(made)).toEqual([
    ['8', '1'],
    ['2', '7'],
    ['6', '3'],
    ['4', '5'],
  ]);
});

test('several pages a side carry theirs each, also one that is printed again', () => {
  const settings = { layout: { kind: 'grid', pagesPerSide: 2 }, documents: [{ file: 'a', pages: '1 x3, 2' }] };
  const made = lined([{ at: 'top-right', text: '{page}' }], settings, documentOf(2));
  expect(textsOf(made)).toEqual([
    ['1', '2'],
    ['3', '4'],
  ]);
});

test('what is too long for the paper ends in an ellipsis', () => {
  const [front] = lined([{ at: 'top-left', text: 'M'.repeat(200), size: 20 }], {}, documentOf(1)).sheets;
  const [text] = front!.front.texts!;
  expect(text!.text).toMatch(/^M+…$/);
  expect(widthOf(text!.text, 20)).toBeLessThanOrEqual(A4.width - 2 * MARGIN);
});

test('texts stay within what can be printed, and number every page once in the order of reading (law)', () => {
  fc.assert(
    fc.property(job, (any) => {
      const ticket = {
        ...ticketOf(any),
        lines: readTicket({ ...ticketOf(any), lines: [{ at: 'bottom-right', text: '{page}' }] }).lines,
      };
      const profile = { ...profileForTicket(ticket, any.documents), margin: 4 };
      const made = plan(ticket, any.documents, profile);
      const numbers: number[] = [];
      eachSide(made.sheets, (side, { paper }) => {
        const [width, height] =
          side.orientation === 'portrait' ? [paper.width, paper.height] : [paper.height, paper.width];
        for (const text of side.texts ?? []) {
          const box = boxOfText(text);
          holds(box.x >= -0.01, 'beyond the left edge');
          holds(box.x + box.width <= width + 0.01, 'beyond the right edge');
          // A page cut to a sliver leaves its line less room than it is high.
          holds(box.y >= -box.height, 'beyond the lower edge');
          holds(box.y <= height, 'beyond the upper edge');
          numbers.push(Number(text.text));
        }
      });
      const count = any.pages.reduce((sum, pages) => sum + pages.length, 0);
      holds(numbers.every((number) => number >= 1 && number <= count));
      // Without lines it is the same plan.
      const bare = plan({ ...ticket, lines: [] }, any.documents, profile);
      const without = made.sheets.map(({ front: { texts: _, ...front }, back, ...sheet }) => {
        if (!back) return { ...sheet, front, back };
        const { texts: __, ...under } = back;
        return { ...sheet, front, back: under };
      });
      same(
        without,
        bare.sheets.map(({ front, back, ...sheet }) => ({ ...sheet, front, back })),
      );
    }),
    RUNS,
  );
});

test('a line over what is on a page is a caution, settled by making room', () => {
  const full = documentOf(2);
  const pages = full.pages.map((page) => ({ ...page, content: [20, 10, 550, 800] as const }));
  const made = planOf({ lines: [{ at: 'bottom-center', text: '{page}', size: 8 }] }, [{ ...full, pages: pages }], {
    ...OFFICE,
    margin: 5,
  });
  const [check] = made.checks.filter(({ code }) => code === 'line-over-content');
  expect(check).toMatchObject({ level: 'caution', message: 'A line of text lies over the content of pages 1 and 2.' });
  expect(check?.repair).toMatchObject({ patch: { scale: { mode: 'fit' } } });
  const clear = documentOf(1).pages.map((page) => ({ ...page, content: [60, 60, 450, 700] as const }));
  const fine = planOf({ lines: [{ at: 'bottom-center', text: '{page}' }] }, [{ name: 'a', pages: clear }]);
  expect(fine.checks.map(({ code }) => code)).not.toContain('line-over-content');
});

test('in the second pass a text is turned with its side', () => {
  const made = lined(
    [{ at: 'bottom-left', text: '{page}', size: 10 }],
    { sides: 'two-sided', bind: 'top' },
    documentOf(2),
  );
  const passes = planOf(
    { lines: [{ at: 'bottom-left', text: '{page}', size: 10 }], sides: 'two-sided', bind: 'top' },
    [documentOf(2)],
    { ...OFFICE, duplex: false },
  );
  const [back] = passPlan(passes, 'back', null).sheets;
  const [text] = back!.front.texts!;
  const [before] = passes.sheets[0]!.back!.texts!;
  expect(inTwoPasses(passes)?.[1].turned).toEqual([1]);
  expect([text!.text, text!.turn]).toEqual(['2', 180]);
  expect(text!.x).toBeCloseTo(A4.width - before!.x, 2);
  expect(text!.y).toBeCloseTo(A4.height - before!.y, 2);
  expect(made.passes).toBeNull();
});

test.each([
  ['{pages}', null],
  ['{Page}', 'lines[0].text, character 1: {Page} is nothing that can be filled in; write {page}, {pages},'],
  ['at {time}', 'lines[0].text, character 4: {time} is nothing'],
])('"%s" is read or refused in words', (text, said) => {
  const make = (): Plan => lined([{ at: 'top-left', text }], {}, documentOf(1));
  if (said === null) expect(make).not.toThrow();
  else expect(make).toThrow(said);
});
