import { HttpErrorResponse, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { defer, retry, throwError } from 'rxjs';
import { Api, WHILE_AWAY } from './api';

test('a file whose name holds half of a letter is uploaded under what of it can be written', () => {
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  const failed = jest.fn();
  TestBed.inject(Api)
    .upload(new File(['x'], 'Plan \ud83c.pdf'), 'pass\ud83c')
    .subscribe({ error: failed });
  const { request } = TestBed.inject(HttpTestingController).expectOne(({ url }) => url.includes('/api/files'));
  expect(new URL(request.urlWithParams, 'http://x').searchParams.get('name')).toBe('Plan \ufffd.pdf');
  expect(failed).not.toHaveBeenCalled();
});

test.each([
  ['a server that is away', 503, 4],
  ['a full disk', 507, 1],
  ['a file that cannot be used', 422, 1],
])('what fails because of %s is tried so often in three seconds', async (_, status, times) => {
  jest.useFakeTimers();
  let asked = 0;
  const failing = defer(() => ((asked += 1), throwError(() => new HttpErrorResponse({ status }))));
  const trying = failing.pipe(retry(WHILE_AWAY)).subscribe({ error: () => undefined });
  await jest.advanceTimersByTimeAsync(3_000);
  trying.unsubscribe();
  jest.useRealTimers();
  expect(asked).toBe(times);
});
