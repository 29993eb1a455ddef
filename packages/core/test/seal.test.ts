import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import fc from 'fast-check';
import { plan, sayDifference, sealOf, type Plan, type PrinterInput, type Seal, type TicketInput } from '../src';
import { readPrinter, readTicket } from '../src/validate';

const A4 = { width: 595.276, height: 841.89 };
const PRINTER: PrinterInput = {
  name: 'Upper office',
  trays: [
    { id: 'tray-1', size: 'iso_a4_210x297mm', type: 'stationery', loaded: 500, price: 0.01 },
    { id: 'tray-2', size: 'iso_a4_210x297mm', type: 'stationery-letterhead', loaded: 40 },
  ],
};
const moment = '2026-09-01T14:05';

interface Told {
  readonly ticket?: Partial<TicketInput>;
  readonly printer?: Partial<PrinterInput>;
  readonly sha256?: string;
  readonly address?: string;
  readonly change?: (plan: Plan) => Plan;
}

/** The seal of six pages, two-sided, from tray 1, but for what is told. */
function seal({ ticket: settings, printer: profile, sha256 = 'a'.repeat(64), address, change }: Told = {}): Seal {
  const ticket = readTicket({
    version: 1,
    documents: [{ file: 'f' }],
    sides: 'two-sided',
    tray: 'tray-1',
    ...settings,
  });
  const printer = readPrinter({ ...PRINTER, ...profile });
  const pages = Array.from({ length: 6 }, () => A4);
  const documents = ticket.documents.map(() => ({ name: 'a.pdf', pages, sha256 }));
  const made = plan(ticket, documents, printer, { now: moment });
  const sealed = { ticket, documents, printer, address: address ?? 'ipp://127.0.0.1/a', moment };
  return sealOf({ ...sealed, plan: change ? change(made) : made });
}

test('is the SHA-256 of the JSON (RFC 8785), the parts in the order of their names', () => {
  const { parts, digest } = seal();
  // Node's own digest as a second opinion, of a part whose JSON can be written down.
  const sha256 = (value: unknown) => createHash('sha256').update(canonicalize(value)!).digest('hex');
  expect(parts.trays).toBe(sha256(['tray-1', 'tray-1', 'tray-1']));
  expect(parts.sets).toBe(sha256({ sets: 1, collate: true, proof: false }));
  expect(parts.printer).toBe(sha256('ipp://127.0.0.1/a'));
  expect(digest).toMatch(/^[0-9a-f]{64}$/);
  expect(seal()).toEqual(seal());
});

test('a plan that went through JSON, with its names in another order, has the same seal', () => {
  const turned = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(turned);
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(
      Object.entries(value)
        .toReversed()
        .map(([name, one]) => [name, turned(one)]),
    );
  };
  expect(seal({ change: (made) => turned(JSON.parse(JSON.stringify(made))) as Plan })).toEqual(seal());
});

test.each<[string, Told]>([
  ['the printer', { address: 'ipp://127.0.0.1/b' }],
  ['the documents', { sha256: 'b'.repeat(64) }],
  ['the copies', { ticket: { copies: 2 } }],
  ['the copies', { ticket: { proof: true } }],
  ['the trays and the paper', { ticket: { tray: 'tray-2' } }],
  ['the paper', { printer: { trays: [{ ...PRINTER.trays[0]!, type: 'labels' }] } }],
  ['the pages or where they lie', { ticket: { margin: 20, scale: { mode: 'fit' } } }],
  ['the colour', { ticket: { color: 'monochrome' } }],
  ['the colour', { ticket: { routes: [{ pages: '2', color: 'monochrome' }] } }],
  ['the quality', { ticket: { quality: 'high' } }],
  ['the order', { ticket: { delivery: 'last-to-first' } }],
  ['the copies and the slips', { ticket: { copies: 2, slips: { between: 'sets', tray: 'tray-2' } } }],
  ['the information sheet', { ticket: { informationSheet: { print: true } } }],
  ['the lines of text', { ticket: { lines: [{ at: 'top-left', text: '{date}' }] } }],
])('says where %s differs', (said, told) => {
  expect(sayDifference(seal(), seal(told))).toBe(said);
});

test('what is loaded, what it costs and how long it takes are not in it', () => {
  const trays = PRINTER.trays.map((tray) => ({ ...tray, loaded: 1, price: 3, capacity: 9 }));
  const printer = { trays, prices: { mono: 1, color: 2 }, sidesPerMinute: 3 };
  expect(sayDifference(seal(), seal({ printer }))).toBeNull();
});

test('the last digits of another engine’s arithmetic make no other seal; a hundredth of a point does', () => {
  const moved = (by: number) => (made: Plan) => ({
    ...made,
    sheets: made.sheets.map((sheet) => ({
      ...sheet,
      front: { ...sheet.front, cells: sheet.front.cells.map((cell) => ({ ...cell, x: cell.x + by })) },
    })),
  });
  expect(seal({ change: moved(1e-9) })).toEqual(seal());
  expect(sayDifference(seal(), seal({ change: moved(0.01) }))).toBe('the pages or where they lie');
});

test('half a character in a text, as some files have it, is sealed as well', () => {
  const lines = [{ at: 'top-left', text: 'Fees \ud800' }] as const;
  expect(sayDifference(seal(), seal({ ticket: { lines: [...lines] } }))).toBe('the lines of text');
});

test('any one sheet from another tray, turned over or left out makes another seal', () => {
  const six = fc.integer({ min: 0, max: 2 });
  const changes: readonly ((sheets: Plan['sheets'], at: number) => Plan['sheets'])[] = [
    (sheets, at) => sheets.with(at, { ...sheets[at]!, tray: 'tray-2' }),
    (sheets, at) => sheets.with(at, { ...sheets[at]!, front: sheets[at]!.back!, back: sheets[at]!.front }),
    (sheets, at) => sheets.toSpliced(at, 1),
    (sheets, at) => sheets.with(at, { ...sheets[at]!, sides: 'two-sided-short-edge' }),
  ];
  fc.assert(
    fc.property(six, fc.constantFrom(...changes), (at, change) => {
      const other = seal({ change: (made) => ({ ...made, sheets: change(made.sheets, at) }) });
      expect(sayDifference(seal(), other)).not.toBeNull();
    }),
  );
});
