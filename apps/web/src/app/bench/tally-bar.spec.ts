import { TestBed } from '@angular/core/testing';
import type { PrinterRecord } from '@foglio/api';
import { plan, type PrinterInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { provideMockStore } from '@ngrx/store/testing';
import { benchFeature, type BenchState } from '../state/bench.state';
import { aDocument, aPrinter } from '../../stubs/records';
import { TallyBar } from './tally-bar';

const A4 = { width: 595.276, height: 841.89 };

const PRINTER: PrinterInput = {
  name: 'P',
  trays: [
    { id: 'tray-1', name: 'Tray 1', size: 'iso_a4_210x297mm', loaded: 500, price: 0.01 },
    { id: 'tray-3', name: 'Tray 3', size: 'iso_a4_210x297mm', loaded: 10 },
  ],
  prices: { mono: 0.01, color: 0.06 },
  sidesPerMinute: 30,
};

function show(settings: object, profile = PRINTER, more: Partial<BenchState> = {}): HTMLElement {
  const printer = aPrinter(profile);
  const ticket = readTicket({ version: 1, documents: [{ file: 'f' }], tray: 'tray-1', ...settings });
  const documents = [
    aDocument(
      Array.from({ length: 14 }, () => A4),
      { read: 14 },
    ),
  ];
  const made = plan(ticket, documents, printer.profile);
  const state: Partial<BenchState> = {
    ticket,
    documents,
    printer,
    plan: made,
    seen: { plan: made, ticket, documents, printer, moment: '2026-09-01T14:05' },
    trouble: null,
    saving: 'saved',
    sending: false,
    ...more,
  };
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [provideMockStore({ initialState: { [benchFeature.name]: state } })] });
  const fixture = TestBed.createComponent(TallyBar);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

const figures = (element: HTMLElement): string[] =>
  [...element.querySelectorAll('.figures div')].map(
    (one) => `${one.querySelector('dd')?.textContent} ${one.querySelector('dt')?.textContent}`,
  );
const summary = (element: HTMLElement): string => element.querySelector('.summary')?.textContent?.trim() ?? '';
const buttons = (element: HTMLElement): [string, boolean][] =>
  [...element.querySelectorAll<HTMLButtonElement>('.way')].map((one) => [one.textContent?.trim() ?? '', one.disabled]);

test('every number stands with its unit', () => {
  expect(figures(show({ copies: 2, sides: 'two-sided' }))).toEqual([
    '14 sheets in 2 sets',
    '28 printed sides',
    '€ 1.82 at most, all in colour',
    '56 s at the printer',
    '1.4 mm stack height',
  ]);
});

test('one of each is said in the singular; a grey job’s cost is what it is', () => {
  expect(figures(show({ documents: [{ file: 'f', pages: '1' }], color: 'monochrome' })).slice(0, 3)).toEqual([
    '1 sheet in 1 set',
    '1 printed side',
    '€ 0.02 paper and printing',
  ]);
});

test('what is not known is not shown', () => {
  const bare = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  expect(figures(show({}, bare))).toEqual(['14 sheets in 1 set', '14 printed sides', '1.4 mm stack height']);
});

test('the number of sheets is in the button', () => {
  expect(buttons(show({ copies: 17 }))).toEqual([
    ['Save PDF', false],
    ['Send 238 sheets', false],
  ]);
});

test.each<[string, object, Partial<BenchState>, string, boolean]>([
  ['nothing', {}, {}, 'Nothing to settle', false],
  [
    'a caution',
    { tray: 'tray-3' },
    {},
    '1 thing to confirm: Tray 3 holds 10 of the 14 sheets needed; it runs out at sheet 11 of set 1.',
    false,
  ],
  ['two cautions', { tray: 'tray-3', copies: 20 }, {}, '2 things to confirm: Tray 3 holds', false],
  ['a stop', { tray: 'tray-9' }, {}, '1 thing to settle: The tray chosen for 14 pages (A4) is not in P.', true],
])('%s', (_what, settings, more, said, blocked) => {
  const element = show(settings, PRINTER, more);
  expect(summary(element)).toContain(said);
  expect(buttons(element).map(([, disabled]) => disabled)).toEqual([blocked, blocked]);
});

test.each<[Partial<BenchState>, string]>([
  [{ saving: 'unsaved' }, 'Saving'],
  [{ saving: 'conflict' }, 'Changed in another window'],
  [{ saving: 'failed' }, 'Not saved'],
  [{ sending: true }, 'Sending'],
])('%j is told', (more, said) => {
  const element = show({}, PRINTER, more);
  expect(element.querySelector('.state')?.textContent).toBe(said);
  expect(buttons(element)[1]?.[1]).toBe(said !== 'Saving');
});

test('a text that cannot be read blocks both ways out, and says that the sheets are from before', () => {
  const trouble = { place: 'documents[0].pages', problem: 'p', repair: 'r', position: 0, length: 1, replacement: null };
  const element = show({}, PRINTER, { trouble });
  expect(summary(element)).toContain('the sheets are those before this change');
  expect(buttons(element).map(([, disabled]) => disabled)).toEqual([true, true]);
  // A job that is opened so has none of before.
  expect(summary(show({}, PRINTER, { trouble, plan: null, seen: null }))).toBe('The pages cannot be read');
});

test('while pages are being looked through, it says how far; what is known of colour makes the cost exact', () => {
  const pages = Array.from({ length: 14 }, (_, index) => ({ ...A4, color: index === 0 }));
  const reading = [
    aDocument(
      pages.map((one, index) => (index < 6 ? one : A4)),
      { read: 6 },
    ),
  ];
  expect(summary(show({}, PRINTER, { documents: reading }))).toBe('Looking through the pages: 6 of 14');
  expect(figures(show({}, PRINTER, { documents: reading }))[2]).toContain('at most, all in colour');
  const known = [aDocument(pages, { read: 14 })];
  expect(summary(show({}, PRINTER, { documents: known }))).toBe('Nothing to settle');
  expect(figures(show({}, PRINTER, { documents: known }))[2]).toContain('paper and printing');
});

test.each([
  [{ reasons: ['paused'] }, 'P is paused: what is sent waits for it.'],
  [{ state: 'stopped' }, 'P is stopped: what is sent waits for it.'],
  [{ answers: false }, 'P does not answer: what is sent waits for it.'],
  [{ state: 'processing' }, undefined],
] as const)('a printer that would not print at once says so beside Send: %j', (change, said) => {
  const shown = show({}, PRINTER, { printer: aPrinter(PRINTER, change as Partial<PrinterRecord>) });
  expect(shown.querySelector('.hold')?.textContent).toBe(said);
});
