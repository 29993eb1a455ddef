import { userInfo } from 'node:os';
import { ticketSchema, type Plan, type TicketInput } from '@foglio/core';
import { readPlan } from '@foglio/core/validate';
import { atCommandLine } from './at-command-line';
import { formFields } from './form-fields';

/** Every field of the ticket answers at the command line. */

const cli = atCommandLine();

type Settings = Omit<Partial<TicketInput>, 'version' | 'documents'>;

const document = { file: 'manual.pdf', pages: '7-14' };

/** @param told what is said beside it, by its end */
async function planOf(
  settings: Settings,
  documents: object[] = [document],
  printer?: object,
  told = '',
): Promise<Plan> {
  cli.forget();
  await cli.run({ version: 1, documents, ...settings }, printer);
  expect(cli.complained).toMatch(told === '' ? /^$/ : new RegExp(`${told}$`));
  return readPlan(JSON.parse(cli.printed));
}

const pagesOf = (plan: Plan): string =>
  plan.sheets
    .map(({ front, back, slip }) =>
      slip ? 'slip' : [front, back].map((side) => side?.cells.map(({ page }) => page).join('+') ?? '-').join('/'),
    )
    .join(' ');
const firstSide = (plan: Plan) => plan.sheets[0]!.front;
const firstCell = (plan: Plan) => firstSide(plan).cells[0]!;
const trays = (plan: Plan) => plan.sheets.map(({ tray }) => tray).join(' ');

/** What comes of an output where the printer has these. */
async function bins(settings: Settings, outputBins: string[]): Promise<string> {
  const printer = { name: 'Upper office', outputBins, trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  const { sheets, checks } = await planOf(settings, [{ ...document, pages: '7-8' }], printer);
  const [check] = checks.filter(({ level }) => level === 'stop');
  const repaired = check && { ...settings, ...check.repair?.patch };
  const mended = repaired ? `, then ${await bins(repaired, outputBins)}` : '';
  return `${sheets.map(({ outputBin = 'usual' }) => outputBin).join(' ')}${check ? `: ${check.code}` : ''}${mended}`;
}

/** One line a field: what it does to a job that is otherwise as usual. */
const FIELDS: Record<string, () => Promise<void>> = {
  version: async () => expect((await planOf({})).version).toBe(1),
  title: async () => expect((await planOf({ title: 'Manual' })).sheets).toHaveLength(8),
  'documents.file': async () => expect(pagesOf(await planOf({}, [{ file: 'manual.pdf' }])).split(' ')).toHaveLength(20),
  'documents.pages': async () =>
    expect(pagesOf(await planOf({}, [{ ...document, pages: '12, 9-7' }]))).toBe('12/- 9/- 8/- 7/-'),
  'documents.numbering': async () => {
    // Six pages are labelled i to vi before the page that is labelled 1.
    expect(pagesOf(await planOf({}, [{ file: 'manual.pdf', pages: '1-2, iv', numbering: 'labels' }]))).toBe(
      '7/- 8/- 4/-',
    );
  },
  'documents.part': async () => {
    const cell = firstCell(await planOf({}, [{ ...document, part: { left: 10, top: 10, width: 50, height: 40 } }]));
    expect(cell.source!.map(Math.round)).toEqual([28, 700, 142, 113]);
    expect(firstCell(await planOf({}, [{ ...document, part: 'content' }])).source).not.toBeNull();
  },
  ...formFields((documents, told) => planOf({}, documents, undefined, told), cli.write),
  'routes.part': async () => {
    const plan = await planOf({ routes: [{ pages: '8', part: 'content' }] });
    expect(plan.sheets.map(({ front }) => front.cells[0]!.source !== null)).toEqual([
      false,
      true,
      ...Array<boolean>(6).fill(false),
    ]);
  },
  'documents.rotate': async () =>
    expect(firstSide(await planOf({}, [{ ...document, rotate: 90 }])).orientation).toBe('landscape'),
  inTurn: async () => {
    const entries = ['7-8', '12'].map((pages) => ({ ...document, pages }));
    expect(pagesOf(await planOf({ inTurn: true }, entries))).toBe('7/- 12/- 8/-');
  },
  copies: async () => expect((await planOf({ copies: 3 })).tally.sheets).toBe(24),
  // A plan is of all sets, also where one is sent first.
  proof: async () => expect((await planOf({ copies: 3, proof: true })).tally.sheets).toBe(24),
  collate: async () => expect((await planOf({ copies: 2, collate: false })).checks[0]?.code).toBe('uncollated'),
  delivery: async () => expect((await planOf({ delivery: 'last-to-first' })).delivery).toBe('last-to-first'),
  sides: async () => expect(pagesOf(await planOf({ sides: 'two-sided' }))).toBe('7/8 9/10 11/12 13/14'),
  bind: async () =>
    expect((await planOf({ sides: 'two-sided', bind: 'top' })).sheets[0]?.sides).toBe('two-sided-short-edge'),
  'layout.kind': async () =>
    expect(pagesOf(await planOf({ layout: { kind: 'booklet' } }))).toBe('14+7/8+13 12+9/10+11'),
  'layout.pagesPerSide': async () =>
    expect(pagesOf(await planOf({ layout: { kind: 'grid', pagesPerSide: 4 } }))).toBe('7+8+9+10/- 11+12+13+14/-'),
  'layout.columns': async () => {
    const { cells } = firstSide(await planOf({ layout: { kind: 'grid', columns: 3, rows: 1 } }));
    expect(new Set(cells.map(({ x }) => Math.round(x))).size).toBe(3);
  },
  'layout.rows': async () => {
    const { cells } = firstSide(await planOf({ layout: { kind: 'grid', columns: 1, rows: 3 } }));
    expect(new Set(cells.map(({ y }) => Math.round(y))).size).toBe(3);
  },
  'layout.flow': async () => {
    const { cells } = firstSide(await planOf({ layout: { kind: 'grid', pagesPerSide: 2, flow: 'toleft-tobottom' } }));
    expect(cells[0]!.x).toBeGreaterThan(cells[1]!.x);
  },
  'layout.repeat': async () =>
    expect(pagesOf(await planOf({ layout: { kind: 'grid', pagesPerSide: 2, repeat: 'fill-side' } }))).toMatch(
      /^7\+7\/- 8\+8/,
    ),
  'layout.turn': async () =>
    expect(firstCell(await planOf({ layout: { kind: 'grid', columns: 1, rows: 2, turn: 'best' } })).turn).toBe(270),
  faces: async () => {
    const fronts = await planOf({ sides: 'two-sided', faces: 'fronts' });
    expect(pagesOf(fronts)).toBe('7/- 9/- 11/- 13/-');
    expect(pagesOf(await planOf({ sides: 'two-sided', faces: 'backs' }))).toBe('8/- 10/- 12/- 14/-');
  },
  'layout.backs': async () => {
    const layout = { kind: 'grid' as const, pagesPerSide: 2 as const, backs: 'behind' as const };
    expect(pagesOf(await planOf({ layout }))).toBe('7+9/8+10 11+13/12+14');
  },
  'layout.stack': async () => {
    const layout = { kind: 'grid' as const, pagesPerSide: 4 as const, stack: 'cut' as const };
    expect(pagesOf(await planOf({ layout }))).toBe('7+9+11+13/- 8+10+12+14/-');
  },
  'pieces.count': async () => {
    const plan = await planOf({ pieces: { count: 3 } }, [{ ...document, pages: '7-8' }]);
    expect([pagesOf(plan), plan.tally.pieces]).toEqual(['7/- 8/- 7/-', 3]);
    expect(cli.complained).toBe('');
    expect(
      await cli.run({ version: 1, documents: [document], pieces: { count: 3 }, layout: { kind: 'booklet' } }),
    ).toBe(2);
    expect(cli.complained).toContain('pieces: only pages in a grid are cut into pieces');
  },
  'pieces.fill': async () => {
    const layout = { kind: 'grid' as const, pagesPerSide: 4 as const };
    const plan = await planOf({ pieces: { count: 1, fill: true }, layout }, [{ ...document, pages: '7-8' }]);
    expect([pagesOf(plan), plan.tally.pieces, plan.tally.piecesOver]).toEqual(['7+8+7+8/-', 4, 3]);
  },
  'layout.gutter': async () => {
    const gap = async (gutter: number) => {
      const [left, right] = firstSide(await planOf({ layout: { kind: 'grid', columns: 2, rows: 1, gutter } })).cells;
      return right!.x + right!.width / 2 - left!.x - left!.width / 2;
    };
    expect((await gap(20)) - (await gap(0))).toBeCloseTo((10 * 72) / 25.4, 3);
  },
  'layout.frame': async () =>
    expect(firstSide(await planOf({ layout: { kind: 'grid', pagesPerSide: 2, frame: true } })).marks).toHaveLength(8),
  'layout.marks': async () => {
    expect(
      firstSide(await planOf({ margin: 10, layout: { kind: 'grid', pagesPerSide: 2, marks: 'cut' } })).marks,
    ).not.toEqual([]);
    const booklet = async (marks: 'none' | 'fold') => (await planOf({ layout: { kind: 'booklet', marks } })).sheets[0]!;
    const { paper, front, back } = await booklet('fold');
    expect(front.marks?.map(([x1, , x2]) => [x1, x2])).toEqual([0, 1].map(() => [paper.height / 2, paper.height / 2]));
    expect(back?.marks).toBeUndefined();
    expect((await booklet('none')).front.marks).toBeUndefined();
  },
  'layout.overlap': async () => {
    const sheets = async (overlap: number) => {
      const layout = { kind: 'tiles' as const, overlap };
      const plan = await planOf({ layout, scale: { mode: 'percent', percent: 200 } }, [{ ...document, pages: '7' }]);
      return plan.sheets.length;
    };
    expect([await sheets(0), await sheets(20)]).toEqual([4, 8]);
  },
  'layout.sheetsPerSignature': async () => {
    const plan = await planOf({ layout: { kind: 'booklet', sheetsPerSignature: 1 } });
    expect(plan.sheets.map(({ signature }) => signature)).toEqual([1, 2]);
  },
  'layout.creep': async () => {
    const inner = async (creep: number) =>
      (await planOf({ layout: { kind: 'booklet', creep } })).sheets[1]!.front.cells[0]!.x;
    expect((await inner(2)) - (await inner(0))).toBeCloseTo((2 * 72) / 25.4, 3);
  },
  'layout.cover': async () =>
    expect(trays(await planOf({ tray: 'tray-1', layout: { kind: 'booklet', cover: 'tray-2' } }))).toBe('tray-2 tray-1'),
  'paper.size': async () =>
    expect((await planOf({ paper: { size: 'iso_a3_297x420mm' } })).sheets[0]?.paper.size).toBe('iso_a3_297x420mm'),
  'paper.orientation': async () =>
    expect(firstSide(await planOf({ paper: { orientation: 'landscape' } })).orientation).toBe('landscape'),
  'paper.type': async () => {
    const size = 'iso_a4_210x297mm';
    const printer = {
      name: 'Two',
      trays: [
        { id: 'plain', size },
        { id: 'thick', size, type: 'cardstock' },
      ],
    };
    expect(trays(await planOf({ paper: { type: 'cardstock' } }, [{ ...document, pages: '7' }], printer))).toBe('thick');
  },
  'scale.mode': async () =>
    expect(firstCell(await planOf({ paper: { size: 'iso_a3_297x420mm' }, scale: { mode: 'fit' } })).scale).toBeCloseTo(
      1.414,
      2,
    ),
  'scale.percent': async () =>
    expect(firstCell(await planOf({ scale: { mode: 'percent', percent: 50 } })).scale).toBe(0.5),
  bindingMargin: async () => {
    const [sheet] = (await planOf({ sides: 'two-sided', bindingMargin: 20, scale: { mode: 'none' } })).sheets;
    const [front, back] = [sheet!.front.cells[0]!.x, sheet!.back!.cells[0]!.x];
    expect(front - back).toBeCloseTo((2 * 20 * 72) / 25.4, 2);
  },
  margin: async () => expect(firstCell(await planOf({ margin: 20 })).x).toBeGreaterThan((19 * 72) / 25.4),
  color: async () => {
    const prices = { mono: 1, color: 5 };
    const printer = { name: 'P', prices, trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
    expect((await planOf({ color: 'monochrome' }, [document], printer)).tally.cost).toBe(8);
  },
  quality: async () => expect((await planOf({ quality: 'draft' })).sheets).toHaveLength(8),
  'newSheet.documents': async () => {
    const two = [
      { ...document, pages: '7' },
      { ...document, pages: '8' },
    ];
    expect(pagesOf(await planOf({ sides: 'two-sided', newSheet: { documents: false } }, two))).toBe('7/8');
  },
  'newSheet.sections': async () => {
    const plan = await planOf({ sides: 'two-sided', newSheet: { sections: true } }, [{ ...document, pages: '1:, 2:' }]);
    const starts = pagesOf(await planOf({}, [{ ...document, pages: '2:1' }])).split('/')[0]!;
    expect(plan.sheets.some(({ front }) => String(front.cells[0]?.page) === starts)).toBe(true);
    expect(plan.sheets.at(-1)?.run).toBe(2);
  },
  'slips.between': async () => {
    const two = [
      { ...document, pages: '7' },
      { ...document, pages: '8' },
    ];
    expect(pagesOf(await planOf({ slips: { between: 'documents' } }, two))).toBe('7/- slip 8/-');
  },
  'informationSheet.print': async () => {
    expect((await planOf({})).informationSheet).toBeNull();
    expect((await planOf({ informationSheet: { print: true } })).tally.sheets).toBe(9);
  },
  'informationSheet.by': async () => {
    const saidBy = async (by?: string): Promise<boolean> => {
      const { informationSheet } = await planOf({ informationSheet: { print: true, ...(by ? { by } : {}) } });
      return informationSheet!.front.texts!.some(({ text }) => text === (by ?? userInfo().username));
    };
    expect([await saidBy('Ada Quill'), await saidBy()]).toEqual([true, true]);
  },
  'informationSheet.tray': async () =>
    expect((await planOf({ informationSheet: { print: true, tray: 'tray-9' } })).informationSheet?.tray).toBe('tray-9'),
  'lines.at': async () => {
    const heightOf = async (at: 'top-left' | 'bottom-left'): Promise<number> =>
      (await planOf({ lines: [{ at, text: 'Draft' }] })).sheets[0]?.front.texts?.[0]?.y ?? 0;
    expect(await heightOf('top-left')).toBeGreaterThan(800);
    expect(await heightOf('bottom-left')).toBeLessThan(40);
  },
  'lines.text': async () => {
    const plan = await planOf({ lines: [{ at: 'bottom-center', text: '{page} of {pages}' }] });
    expect(plan.sheets[1]?.front.texts).toMatchObject([{ text: '2 of 8' }]);
  },
  'lines.size': async () => {
    const plan = await planOf({ lines: [{ at: 'bottom-center', text: 'Draft', size: 20 }] });
    expect(plan.sheets[0]?.front.texts).toMatchObject([{ size: 20 }]);
  },
  'slips.tray': async () =>
    expect((await planOf({ copies: 2, slips: { between: 'sets', tray: 'tray-9' } })).slipBetweenSets?.tray).toBe(
      'tray-9',
    ),
  outputBin: async () => {
    expect(await bins({ outputBin: 'face-up' }, ['face-down', 'face-up'])).toBe('face-up face-up');
    expect(await bins({ outputBin: 'stacker-1' }, ['top'])).toBe(
      'stacker-1 stacker-1: output-bin-unknown, then usual usual',
    );
    // Without a profile the printer has whatever is asked for.
    expect((await planOf({ outputBin: 'stacker-1' })).checks).toEqual([]);
  },
  finishings: async () => {
    const { finishing } = await planOf({ finishings: ['staple-top-left', 'punch-dual-left'] });
    expect(finishing?.finishings).toEqual(['staple-top-left', 'punch-dual-left']);
    const printer = { name: 'Upper office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
    const { checks } = await planOf({ finishings: ['staple-top-left'] }, [{ ...document, pages: '7-8' }], printer);
    expect(checks).toMatchObject([{ code: 'finishing-unknown', repair: { patch: { finishings: [] } } }]);
  },
  finishEach: async () => {
    const settings: Settings = { finishings: ['staple-top-left'], finishEach: 'document', copies: 2 };
    const { finishing, checks } = await planOf(settings, [document, { ...document, pages: '1-3' }]);
    expect([finishing?.starts, checks.map(({ code }) => code)]).toEqual([[1, 9], ['separate-jobs']]);
  },
  tray: async () => expect(new Set(trays(await planOf({ tray: 'tray-5' })).split(' '))).toEqual(new Set(['tray-5'])),
  'routes.name': async () =>
    expect(trays(await planOf({ routes: [{ name: 'Head', pages: '7', tray: 'tray-2' }] }))).toMatch(/^tray-2 /),
  'routes.document': async () => {
    const two = [
      { ...document, pages: '7' },
      { ...document, pages: '7' },
    ];
    const routes = [{ document: 2, pages: '7', tray: 'tray-2' }];
    expect(trays(await planOf({ tray: 'tray-1', routes }, two))).toBe('tray-1 tray-2');
  },
  'routes.pages': async () => {
    const routes = [{ pages: 'last, 8', tray: 'tray-2' }];
    expect(trays(await planOf({ tray: 'tray-1', routes }))).toBe(
      'tray-1 tray-2 tray-1 tray-1 tray-1 tray-1 tray-1 tray-1',
    );
  },
  'routes.outputBin': async () =>
    expect(await bins({ outputBin: 'top', routes: [{ pages: '8', outputBin: 'mailbox-2' }] }, ['top'])).toBe(
      'top mailbox-2: output-bin-unknown, then top usual',
    ),
  'routes.tray': async () =>
    expect(trays(await planOf({ routes: [{ pages: '7', tray: 'tray-2' }] }))).toMatch(/^tray-2 /),
  'routes.sides': async () =>
    expect(pagesOf(await planOf({ sides: 'two-sided', routes: [{ pages: '7', sides: 'one-sided' }] }))).toMatch(
      /^7\/- 8\/9/,
    ),
  'routes.paper': async () =>
    expect((await planOf({ routes: [{ pages: '7', paper: { size: 'iso_a3_297x420mm' } }] })).tally.byPaper).toEqual({
      iso_a3_297x420mm: 1,
      iso_a4_210x297mm: 7,
    }),
  'routes.layout': async () =>
    expect(pagesOf(await planOf({ routes: [{ pages: '7-8', layout: { kind: 'grid', pagesPerSide: 2 } }] }))).toMatch(
      /^7\+8\/- 9\/-/,
    ),
  'routes.scale': async () => {
    const routes = [{ pages: '7', scale: { mode: 'percent', percent: 70 } as const }];
    expect(firstCell(await planOf({ routes })).scale).toBe(0.7);
  },
  'routes.margin': async () =>
    expect(firstCell(await planOf({ routes: [{ pages: '7', margin: 20 }] })).scale).toBeLessThan(0.9),
  'routes.rotate': async () =>
    expect(firstSide(await planOf({ routes: [{ pages: '7', rotate: 90 }] })).orientation).toBe('landscape'),
  'routes.color': async () => {
    const printer = { name: 'P', prices: { mono: 1, color: 5 }, trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
    const cost = async (routes: Settings['routes']) => (await planOf({ routes }, [document], printer)).tally.cost;
    expect((await cost([])) - (await cost([{ pages: '7', color: 'monochrome' }]))).toBe(4);
  },
  'routes.ownSheet': async () =>
    expect(pagesOf(await planOf({ sides: 'two-sided', routes: [{ pages: '8', ownSheet: true }] }))).toMatch(
      /^7\/ 8\/ 9\/10/,
    ),
};

/** "layout.gutter" and so on: every leaf of the ticket's schema; a route's parts are told at its first level. */
function fieldsOf(schema: object, path: string): string[] {
  const { properties, items, oneOf } = schema as {
    properties?: Record<string, object>;
    items?: object;
    oneOf?: object[];
  };
  if (oneOf) return [...new Set(oneOf.flatMap((one) => fieldsOf(one, path)))];
  if (items) return fieldsOf(items, path);
  if (!properties || /^routes\.\w/.test(path)) return [path];
  return Object.entries(properties).flatMap(([name, part]) => fieldsOf(part, path === '' ? name : `${path}.${name}`));
}

test('no field of the ticket is left out below', () => {
  expect(Object.keys(FIELDS).sort()).toEqual(fieldsOf(ticketSchema, '').sort());
});

test.each(Object.keys(FIELDS))('%s', async (field) => {
  expect.hasAssertions();
  await FIELDS[field]!();
});
