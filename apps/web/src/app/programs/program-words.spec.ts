import type { CameBy, IncomingRecord } from '@foglio/api';
import { sayBecame, sayCame, tellCame } from './program-words';

const CAME: IncomingRecord = {
  id: 1,
  queue: 'letters',
  name: 'Letter',
  user: 'anna',
  at: '2026-11-30T10:00:00Z',
  state: 'waiting',
  message: 'Tray 2 holds A4.',
  jobId: '5d1e7a52-0d0b-4f5c-9a43-6f0f2b2c8a11',
  sendingId: null,
};

test.each<[Partial<IncomingRecord>, string]>([
  [{}, 'It waits on the Desk: Tray 2 holds A4.'],
  [{ jobId: null }, 'It was removed from the Desk.'],
  [{ queue: 'desk', message: null }, 'It lies on the Desk.'],
  [{ state: 'open' }, 'It is still coming.'],
  [{ state: 'came' }, 'Its pages are being looked through.'],
  [{ state: 'sent', message: null }, 'It was sent to the printer.'],
  [{ state: 'canceled' }, 'The program cancelled it.'],
  [{ state: 'aborted', message: null }, 'It did not come whole.'],
])('%j: %s', (change, said) => {
  expect(sayBecame({ ...CAME, ...change })).toBe(said);
});

test('how a job came is told on the Desk in short, on the Bench with all that could not be had', () => {
  const came: CameBy = {
    queue: 'Letters',
    name: 'Letter',
    user: 'anna',
    at: '2026-11-30T10:00:00Z',
    waits: 'Tray 2 holds A4.',
    remarks: ['The program asked for a cover page, which was not taken up.'],
  };
  expect(sayCame(came)).toBe('printed by anna to Letters; waits: Tray 2 holds A4.');
  expect(sayCame({ ...came, waits: null })).toBe('printed by anna to Letters');
  expect(tellCame(came)).toEqual([
    'Printed by anna to Letters.',
    'It was not sent by itself: Tray 2 holds A4.',
    'The program asked for a cover page, which was not taken up.',
  ]);
});
