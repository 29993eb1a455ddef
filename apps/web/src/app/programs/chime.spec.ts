import { TestBed } from '@angular/core/testing';
import type { IncomingRecord } from '@foglio/api';
import { Subject } from 'rxjs';
import { Api } from '../api/api';
import { News } from '../news/news';
import { Chime } from './chime';

const came = (id: number): IncomingRecord => ({
  id,
  queue: 'desk',
  name: 'Letter',
  user: 'anna',
  at: '2026-11-30T10:00:00Z',
  state: 'waiting',
  message: null,
  jobId: null,
  sendingId: null,
});

let played: number;
let answers: Subject<IncomingRecord[]>[];
let news: Subject<{ id: string }>;

/** Counts tones, and lets the test say when the server answers. */
function begin(isOn: boolean): Chime {
  localStorage.setItem('foglio chime', isOn ? 'on' : 'off');
  [played, answers, news] = [0, [], new Subject()];
  class Silent {
    currentTime = 0;
    destination = {};
    createOscillator = () => ({
      frequency: { value: 0 },
      connect: <T>(to: T): T => to,
      start: (): void => void (played += 1),
      stop: () => undefined,
    });
    createGain = () => ({ gain: { value: 0 }, connect: <T>(to: T): T => to });
    close = () => Promise.resolve();
  }
  Object.assign(globalThis, { AudioContext: Silent });
  const incoming = () => {
    const answer = new Subject<IncomingRecord[]>();
    answers.push(answer);
    return answer;
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { incoming } },
      { provide: News, useValue: { of: () => news } },
    ],
  });
  return TestBed.inject(Chime);
}

/** Each chime is two tones. */
const chimes = (): number => played / 2;
const tell = (id: number): void => news.next({ id: String(id) });

test('what comes sounds once; what becomes of it, and of what came before, does not', () => {
  begin(true);
  answers[0]!.next([came(7), came(6)]);
  tell(6);
  tell(7);
  expect(chimes()).toBe(0);
  tell(8);
  tell(8);
  expect(chimes()).toBe(1);
  tell(9);
  expect(chimes()).toBe(2);
});

test('as long as it is not known what came before, or the server is away, nothing sounds', () => {
  begin(true);
  tell(8);
  expect(chimes()).toBe(0);
  answers[0]!.error(new Error('away'));
  tell(9);
  expect(chimes()).toBe(0);
});

test('an answer that comes after a newer job was heard of does not turn back', () => {
  const chime = begin(true);
  answers[0]!.next([came(7)]);
  chime.switch();
  chime.switch();
  const before = chimes();
  tell(8);
  answers[1]!.next([came(7)]);
  tell(8);
  expect(chimes()).toBe(before + 1);
});

test('off, nothing sounds and nothing is asked', () => {
  begin(false);
  tell(1);
  expect([chimes(), answers.length]).toEqual([0, 0]);
});
