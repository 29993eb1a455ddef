import { TestBed } from '@angular/core/testing';
import { OwnName } from './own-name';

beforeEach(() => localStorage.clear());
afterAll(() => localStorage.clear());

test('the name under which a person prints is kept in this browser, without what stands around it', () => {
  expect(TestBed.inject(OwnName).name()).toBe('');
  TestBed.inject(OwnName).say('  Anna Berg ');
  TestBed.resetTestingModule();
  expect(TestBed.inject(OwnName).name()).toBe('Anna Berg');
});
