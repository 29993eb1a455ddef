import { plan, profileForTicket, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readFacts, type ImposeInput } from '../src';
import { makePdf, numberedPdf, stream } from './make-pdf';
import { navigationByQpdf, qpdfComplaints, render } from './poppler';

async function imposed(
  sources: readonly Uint8Array[],
  settings: Omit<TicketInput, 'version' | 'documents'> = {},
  sets: ImposeInput['sets'] = 'one',
): Promise<Uint8Array> {
  const documents = await Promise.all(
    sources.map(async (bytes, index) => ({ name: `${index}.pdf`, bytes, ...(await readFacts(bytes)) })),
  );
  const ticket = readTicket({ version: 1, documents: documents.map(({ name }) => ({ file: name })), ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  return impose({ plan: planned, ticket, documents, blanks: 'every-sheet', sets });
}

test('page labels say sheet and face, by qpdf', async () => {
  const routes = [{ pages: '1', sides: 'one-sided' as const }];
  const slips = { between: 'sets' as const };
  const pdf = await imposed([numberedPdf(3)], { sides: 'two-sided', routes, copies: 2, slips }, 'all');
  expect(navigationByQpdf(pdf).labels.slice(0, 6)).toEqual([
    'Sheet 1 front',
    'Sheet 1 back',
    'Sheet 2 front',
    'Sheet 2 back',
    'Slip',
    'Slip',
  ]);
});

/** A page with a black square on each of three layers, from left to right, and these entries of the catalog and layers. */
function layered(config: string, usage: readonly string[] = ['', '', '']): Uint8Array {
  const square = (index: number): string => `/OC /L${index} BDC 0 g ${20 + index * 60} 20 40 40 re f EMC`;
  return makePdf({
    1: `<< /Type /Catalog /Pages 2 0 R /OCProperties << /OCGs [10 0 R 11 0 R 12 0 R] /D << ${config} >> >> >>`,
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 80] /Contents 4 0 R /Resources << /Properties << /L0 10 0 R /L1 11 0 R /L2 12 0 R >> >> >>',
    4: stream([0, 1, 2].map(square).join(' ')),
    ...Object.fromEntries(usage.map((entry, index) => [10 + index, `<< /Type /OCG /Name (${index}) ${entry} >>`])),
  });
}

/** Which of the three squares a rendered page shows. */
function squares(pdf: Uint8Array, page: number): string {
  const { width, height, pixels } = render(pdf, page, 72);
  return [0, 1, 2].filter((index) => (pixels[(height - 40) * width + 40 + index * 60] as number) < 128).join('');
}

describe('layers print by their print state (ISO 32000-1, 8.11.4), by poppler', () => {
  const PRINT_OFF = '/Usage << /Print << /PrintState /OFF >> >>';
  const PRINT_ON = '/Usage << /Print << /PrintState /ON >> >>';
  const APPLIED = '/AS [<< /Event /Print /Category [/Print] /OCGs [10 0 R 11 0 R 12 0 R] >>]';
  test.each<[string, string, readonly string[] | undefined, string]>([
    ['all are on unless it is said otherwise', '', undefined, '012'],
    ['one is off', '/OFF [11 0 R]', undefined, '02'],
    ['all are off but one', '/BaseState /OFF /ON [12 0 R]', undefined, '2'],
    ['one is off on paper', APPLIED, ['', PRINT_OFF, ''], '02'],
    ['one is off on the screen, on on paper', `/OFF [10 0 R] ${APPLIED}`, [PRINT_ON, '', ''], '012'],
    ['a print state that no usage applies says nothing', '', ['', PRINT_OFF, ''], '012'],
    ['nor one applied to viewing alone', APPLIED.replace('Print', 'View'), ['', PRINT_OFF, ''], '012'],
  ])('%s', async (_what, config, usage, seen) => {
    const pdf = await imposed([layered(config, usage)]);
    expect(squares(pdf, 1)).toBe(seen);
    expect(qpdfComplaints(pdf)).toBe('');
  });

  test('those of a second document too', async () => {
    const pdf = await imposed([numberedPdf(1), layered('/OFF [11 0 R]'), layered('/OFF [12 0 R]')]);
    expect([squares(pdf, 2), squares(pdf, 3)]).toEqual(['02', '01']);
  });
});
