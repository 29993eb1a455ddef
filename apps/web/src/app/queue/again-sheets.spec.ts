import { TestBed } from '@angular/core/testing';
import type { SendingRecord, SheetsRecord } from '@foglio/api';
import { Subject } from 'rxjs';
import { aSending } from '../../stubs/records';
import { Api } from '../api/api';
import { AgainSheets } from './again-sheets';

const RECORD: SheetsRecord = {
  sets: 1,
  documents: ['contract.pdf'],
  sheets: [1, 2, 3].map((page) => ({
    tray: null,
    slip: page === 2,
    orientation: 'portrait',
    front: page === 2 ? [] : [{ document: 1, page }],
    back: null,
  })),
  prints: null,
  missing: { set: 1, sheet: 3 },
};

const sending = (id: string): SendingRecord => aSending({ id, state: 'aborted', sheets: 3, sheetsDone: 2 });

/** The screen, with answers that come when the test says so. */
function screen() {
  const answers = new Map<string, Subject<SheetsRecord>>();
  const sheetsOf = (id: string) => {
    const answer = new Subject<SheetsRecord>();
    answers.set(id, answer);
    return answer;
  };
  // A browser has it.
  globalThis.ResizeObserver = class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: { sheetsOf } }] });
  const fixture = TestBed.createComponent(AgainSheets);
  const show = async (id: string): Promise<void> => {
    fixture.componentRef.setInput('sending', sending(id));
    fixture.componentRef.setInput('printer', null);
    await settled();
  };
  const settled = async (): Promise<void> => {
    fixture.detectChanges();
    for (let turn = 0; turn < 20; turn += 1) await Promise.resolve();
    fixture.detectChanges();
  };
  const answer = async (id: string, record: SheetsRecord | Error): Promise<void> => {
    const to = answers.get(id)!;
    if (record instanceof Error) to.error(record);
    else {
      to.next(record);
      to.complete();
    }
    await settled();
  };
  const host = fixture.nativeElement as HTMLElement;
  const text = (): string => host.textContent.replace(/\s+/g, ' ').trim();
  const press = async (name: string): Promise<void> => {
    const button = [...host.querySelectorAll('button')].find(({ textContent }) => textContent.trim().startsWith(name));
    button!.click();
    await settled();
  };
  return { fixture, show, answer, text, press, settled };
}

test('until its sheets are known it says so; where they cannot be had it says why', async () => {
  const { show, answer, text } = screen();
  await show('a');
  expect(text()).toBe('Looking which sheets there are');
  await answer('a', new Error('The server has gone'));
  expect(text()).toBe('The server has gone');
});

test('from where it broke off on, slips left out; what is marked of one is never printed of another', async () => {
  const { fixture, show, answer, text, press } = screen();
  const printed: unknown[] = [];
  fixture.componentInstance.printed.subscribe((marks) => printed.push(marks));
  await show('a');
  await answer('a', RECORD);
  await press('from sheet 3 on');
  expect(text()).toContain('1 marked to be printed again: 3 · page 3');
  await show('b');
  expect(text()).toBe('Looking which sheets there are');
  await answer('b', RECORD);
  expect(text()).toContain('Mark the sheets that went wrong; nothing else is printed.');
  await press('from sheet 3 on');
  await press('Print this sheet again');
  expect(printed).toEqual([[{ sets: [1, 1], sheets: [[3, 3]] }]]);
  // Pressed once more, nothing is: it is marked no more.
  expect(text()).toContain('Mark the sheets that went wrong');
});

test('an answer that comes after another sending is shown is not shown for that', async () => {
  const { show, answer, text } = screen();
  await show('a');
  await show('b');
  await answer('b', { ...RECORD, missing: null });
  await answer('a', RECORD);
  expect(text()).not.toContain('where it broke off');
});

test('refused, or unanswered, what was marked is marked again; not over what was marked since, nor of another', async () => {
  const { fixture, show, answer, text, press, settled } = screen();
  const refuse = async (why: string | null): Promise<void> => {
    fixture.componentRef.setInput('refused', why);
    await settled();
  };
  await show('a');
  await answer('a', RECORD);
  await press('from sheet 3 on');
  await press('Print this sheet again');
  expect(text()).toContain('Mark the sheets that went wrong');
  await refuse('The server does not answer.');
  expect(text()).toContain('1 marked to be printed again: 3');
  await refuse(null);
  await press('Print this sheet again');
  await press('Sheet 1');
  await refuse('The server does not answer.');
  expect(text()).toContain('1 marked to be printed again: 1 ');
  await refuse(null);
  await press('Print this sheet again');
  await show('b');
  await answer('b', RECORD);
  await refuse('The server does not answer.');
  expect(text()).toContain('Mark the sheets that went wrong');
});
