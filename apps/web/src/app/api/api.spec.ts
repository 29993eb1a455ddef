import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Api } from './api';

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
