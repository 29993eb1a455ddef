import { TestBed } from '@angular/core/testing';
import { HttpErrorResponse } from '@angular/common/http';
import { Router } from '@angular/router';
import type { PrinterAccess, PrinterRecord } from '@foglio/api';
import { NEVER, Subject } from 'rxjs';
import { aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { Printers } from './printers';

const FOYER = aPrinter({ name: 'Foyer', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }, { id: 'foyer' });

/** What the template may call. */
interface Screen {
  readonly add: (asked: { uri: string; access: PrinterAccess; done?: () => void }) => void;
  readonly say: (wanting: object, access: PrinterAccess) => void;
  readonly adding: () => boolean;
  readonly refused: () => string | null;
  readonly wanting: () => { readonly certificate: PrinterRecord['certificate'] } | null;
}

/** The screen without what it shows; each question is answered when it is told to be. */
function open() {
  const asked: { uri: string; access: PrinterAccess; answer: Subject<PrinterRecord> }[] = [];
  const addPrinter = (uri: string, access: PrinterAccess) => {
    const answer = new Subject<PrinterRecord>();
    asked.push({ uri, access, answer });
    return answer;
  };
  const gone: unknown[][] = [];
  const navigate = (where: unknown[]) => Promise.resolve(gone.push(where) > 0);
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { addPrinter } },
      { provide: News, useValue: { of: () => NEVER } },
      {
        provide: PrintersNow,
        useValue: { all: () => [], away: () => null, keepListed: () => NEVER, see: () => undefined },
      },
      { provide: Router, useValue: { navigate } },
    ],
  });
  TestBed.overrideComponent(Printers, { set: { template: '', imports: [] } });
  const fixture = TestBed.createComponent(Printers);
  return { fixture, screen: fixture.componentInstance as unknown as Screen, asked, gone };
}

const problem = (code: string, more: object = {}): HttpErrorResponse =>
  new HttpErrorResponse({ status: 409, error: { code, detail: `It is ${code}.`, ...more } });

test('a printer that is added is gone to, once it has answered', () => {
  const { screen, asked, gone } = open();
  let isDone = false;
  screen.add({ uri: 'ipp://foyer', access: {}, done: () => (isDone = true) });
  expect([screen.adding(), gone]).toEqual([true, []]);
  asked[0]!.answer.next(FOYER);
  expect([screen.adding(), isDone, gone]).toEqual([false, true, [['/printers', 'foyer']]]);
});

test('whoever went elsewhere before it answered is not called back', () => {
  const { fixture, screen, asked, gone } = open();
  screen.add({ uri: 'ipp://foyer', access: {} });
  fixture.destroy();
  asked[0]!.answer.next(FOYER);
  expect([asked[0]!.answer.observed, gone]).toEqual([false, []]);
});

test('what it wants is asked for step by step, and what was said before is said again with it', () => {
  const { screen, asked, gone } = open();
  const certificate = { fingerprint: 'AB', subject: 'Foyer', validTo: 'Nov 30 2027' };
  screen.add({ uri: 'ipps://foyer', access: {} });
  asked[0]!.answer.error(problem('certificate-unknown', { certificate }));
  expect([screen.refused(), screen.wanting()]).toMatchObject(['It is certificate-unknown.', { certificate }]);
  screen.say(screen.wanting()!, { fingerprint: 'AB' });
  expect(screen.refused()).toBeNull();
  asked[1]!.answer.error(problem('login-wanted'));
  expect(screen.wanting()).toMatchObject({ certificate: null });
  screen.say(screen.wanting()!, { login: { name: 'anna', password: 'x' } });
  expect(asked[2]).toMatchObject({ uri: 'ipps://foyer', access: { fingerprint: 'AB', login: { name: 'anna' } } });
  asked[2]!.answer.next(FOYER);
  expect([screen.wanting(), gone]).toEqual([null, [['/printers', 'foyer']]]);
});

test('while one is asked, no other is', () => {
  const { screen, asked } = open();
  screen.add({ uri: 'ipp://foyer', access: {} });
  screen.add({ uri: 'ipp://library', access: {} });
  expect(asked.map(({ uri }) => uri)).toEqual(['ipp://foyer']);
});

test('one that is refused otherwise wants nothing, and another address may be tried', () => {
  const { screen, asked } = open();
  screen.add({ uri: 'ipp://nobody', access: {} });
  asked[0]!.answer.error(problem('printer-away'));
  expect([screen.adding(), screen.refused(), screen.wanting()]).toEqual([false, 'It is printer-away.', null]);
});
