import { TestBed } from '@angular/core/testing';
import type { PrinterRecord } from '@foglio/api';
import { Subject, throwError } from 'rxjs';
import { PrintersNow } from '../news/printers-now';
import { aPrinter } from '../../stubs/records';
import { PrinterWorks } from './printer-works';

const OFFICE = { name: 'Office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };

let seen: string[];

function begin(): PrinterWorks {
  seen = [];
  const see = ({ id }: PrinterRecord): void => void seen.push(id);
  TestBed.configureTestingModule({ providers: [PrinterWorks, { provide: PrintersNow, useValue: { see } }] });
  return TestBed.inject(PrinterWorks);
}

/** A work whose answer comes when it is told to, and that tells when it was asked. */
function late(id: string) {
  const answer = new Subject<PrinterRecord>();
  return { answer, come: (): void => (answer.next(aPrinter(OFFICE, { id })), answer.complete()) };
}

test('what is done at once is done in its order: the second is asked once the first is answered', () => {
  const works = begin();
  const [first, second] = [late('first'), late('second')];
  works.do(first.answer);
  works.do(second.answer);
  expect([first.answer.observed, second.answer.observed]).toEqual([true, false]);
  first.come();
  expect(second.answer.observed).toBe(true);
  second.come();
  expect([seen, works.done()]).toEqual([['first', 'second'], 2]);
});

test('what was not taken is said until the next thing is, and keeps nothing from being done', () => {
  const works = begin();
  works.do(throwError(() => new Error('no connection')));
  expect([works.message(), works.done()]).toEqual([expect.any(String), 0]);
  const next = late('next');
  works.do(next.answer);
  expect(works.message()).not.toBeNull();
  next.come();
  expect([works.message(), seen]).toEqual([null, ['next']]);
});

test('what was done before one leaves is done to its end', () => {
  const works = begin();
  const [first, second] = [late('first'), late('second')];
  works.do(first.answer);
  works.do(second.answer);
  TestBed.resetTestingModule();
  first.come();
  second.come();
  expect(seen).toEqual(['first', 'second']);
});
