import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { JobDocument } from '@foglio/api';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import { delay, mergeMap, of, throwError, timer } from 'rxjs';
import { aDocument } from '../../../stubs/records';
import { Api } from '../../api/api';
import { benchFeature } from '../../state/bench.state';
import { LayingLine } from './laying-line';

const LATE = 3_000;

const long = (unfinished?: { trouble: string | null; done?: number; of?: number }): JobDocument => ({
  ...aDocument([], { id: 'long' }),
  laid: { kind: 'csv', form: {}, taken: {}, ...(unfinished ? { unfinished } : {}) },
});

/** @param fails whether the server says no to being asked to stop, three seconds late as ever */
function open(document: JobDocument, fails = false) {
  const asked: string[] = [];
  const refusal = new HttpErrorResponse({ status: 404, error: { detail: 'This file is not here.' } });
  const stopLayingOut = (id: string) => {
    asked.push(id);
    return fails ? timer(LATE).pipe(mergeMap(() => throwError(() => refusal))) : of({}).pipe(delay(LATE));
  };
  const stateWith = (one: JobDocument) => ({ [benchFeature.name]: { documents: [one] } });
  TestBed.configureTestingModule({
    providers: [provideMockStore({ initialState: stateWith(document) }), { provide: Api, useValue: { stopLayingOut } }],
  });
  const store = TestBed.inject(MockStore);
  const told = jest.spyOn(store, 'dispatch');
  const fixture = TestBed.createComponent(LayingLine);
  fixture.componentRef.setInput('at', 0);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const button = (): HTMLButtonElement | null => host.querySelector('button');
  const become = (one: JobDocument): void => {
    store.setState(stateWith(one));
    fixture.detectChanges();
  };
  return { asked, told, fixture, become, button, said: () => host.querySelector('p')?.textContent?.trim() ?? null };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('how far it is, as it comes, and nothing once the whole is there or never will be', () => {
  const { become, button, said } = open(long({ trouble: null }));
  expect(said()).toBe('Its first pages are here');
  become(long({ trouble: null, done: 1_250, of: 4_168 }));
  expect(said()).toBe('1,250 of 4,168 pages');
  become(long({ trouble: 'It was stopped.' }));
  expect([said(), button()]).toEqual([null, null]);
  become(long());
  expect(said()).toBeNull();
});

test('Stop is asked for once, however late the answer comes', async () => {
  const { asked, button, fixture } = open(long({ trouble: null, done: 50, of: 900 }));
  button()!.click();
  fixture.detectChanges();
  expect([button()!.disabled, asked]).toEqual([true, ['long']]);
  button()!.click();
  await jest.advanceTimersByTimeAsync(LATE);
  fixture.detectChanges();
  expect([button()!.disabled, asked]).toEqual([false, ['long']]);
});

test('where it cannot be stopped, that is told, and it may be asked for again', async () => {
  const { button, fixture, told } = open(long({ trouble: null }), true);
  button()!.click();
  await jest.advanceTimersByTimeAsync(LATE);
  fixture.detectChanges();
  expect(told).toHaveBeenCalledWith(expect.objectContaining({ message: 'This file is not here.' }));
  expect(button()!.disabled).toBe(false);
});

test('whoever went elsewhere meanwhile is told nothing', async () => {
  const { button, fixture, told } = open(long({ trouble: null }), true);
  button()!.click();
  fixture.destroy();
  await jest.advanceTimersByTimeAsync(LATE);
  expect(told).not.toHaveBeenCalled();
});
