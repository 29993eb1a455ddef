import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  writeMarks,
  type Form,
  type Marks,
  type Seal,
  type SealOfMany,
  type Ticket,
  type TicketInput,
} from '@foglio/core';
import { Observable, throwError, timer } from 'rxjs';
import { webSocket } from 'rxjs/webSocket';
import {
  addressOf,
  OPERATIONS,
  type Answers,
  type Bodies,
  type Caution,
  type SendingAct,
  type NewsRecord,
  type Operation,
  type OperationName,
  type ParamsOf,
  type PrinterAccess,
  type PrinterRecord,
  type ProblemRecord,
  type QueryOf,
  type SaidOfPaper,
  type SeriesFile,
} from '@foglio/api';
import { OwnName } from './own-name';
import { SendingKeys } from './sending-keys';

/** Characters, each at most three bytes, that are well under what may be under way when a page is left. */
const LONGEST_KEPT_ALIVE = 16_000;

/** What puts sheets on paper anew, and must not do so twice where an answer was lost. */
const MOVES_PAPER: readonly SendingAct[] = ['again', 'other-sets', 'first-pass', 'second-pass'];

/** A job as the person saw it when pressing Send. */
export interface ToSend {
  readonly jobId: string;
  readonly title: string;
  readonly revision: number;
  readonly sheets: number;
  readonly seal: Seal;
  /** Codes of the cautions that were confirmed. */
  readonly confirmed: readonly string[];
}

/** A series as the person saw it when pressing Send. */
export interface SeriesSeen {
  readonly sheets: number;
  readonly confirmed: readonly string[];
  readonly seal: SealOfMany;
}

/** What can be done at the front panel of a simulated printer, at one of its trays or none. */
type PanelName = 'loadTray' | 'pullTray' | 'setFault' | 'refeed' | 'takeOutput' | 'pausePrinter';
export type PanelWork = {
  readonly [Name in PanelName]: { readonly name: Name; readonly tray?: string; readonly body: Body<Name> };
}[PanelName];

/** What goes with a request, by the operation that takes it. */
type Given<Name extends OperationName> = Requests[Name] & How;
type Requests = {
  readonly [Name in OperationName]: Part<'params', ParamsOf<(typeof OPERATIONS)[Name]>> &
    Part<'query', QueryOf<(typeof OPERATIONS)[Name]>> &
    Part<'body', Bodies[Name]>;
};
interface How {
  readonly headers?: Record<string, string>;
  readonly keepalive?: boolean;
}

/** Of whichever operation. */
interface AnyGiven {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Record<string, string | number>;
  readonly body?: unknown;
}

type Part<Name extends string, T> = [T] extends [undefined]
  ? unknown
  : Record<never, never> extends T
    ? { readonly [N in Name]?: T }
    : { readonly [N in Name]: T };

/** What is told, by the operation that tells it. */
type Told<Name extends OperationName> = Observable<Answers[Name]>;
type Body<Name extends OperationName> = Bodies[Name];

/** The server, one method a request. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);
  private readonly keys = new SendingKeys();
  private readonly ownName = inject(OwnName);

  /** Asks for an operation, with what its description says that it takes. */
  private ask<Name extends OperationName>(name: Name, given: Given<Name>): Told<Name> {
    const operation: Operation = OPERATIONS[name];
    const { params = {}, query = {}, ...how } = given as AnyGiven;
    return this.http.request(operation.method, addressOf(operation, params), { params: query, ...how }) as Told<Name>;
  }

  /**
   * @param password of a locked file; in a header, since addresses are logged
   * @param form how it is laid out, where it has no pages of its own
   * @param first whether the first pages of what takes long are enough for now
   */
  upload(file: File, password: string | null, form: Form = {}, first = false) {
    const headers: Record<string, string> = { 'Content-Type': 'application/octet-stream' };
    if (password !== null) headers['Document-Password'] = encodeURIComponent(password.toWellFormed());
    const asked = Object.keys(form).length > 0 ? { form: JSON.stringify(form) } : {};
    return this.ask('uploadFile', {
      // Halves of letters, which some systems let names have, cannot be asked for.
      query: { name: file.name.toWellFormed(), ...asked, ...(first ? { first } : {}) },
      body: file,
      headers,
    });
  }

  /** The same document in another form, as a file of its own; of what takes long, its first pages. */
  readonly layOut = (id: string, form: Form) =>
    this.ask('layOutFile', { params: { id }, body: { form: { ...form }, first: true } });

  readonly stopLayingOut = (id: string) => this.ask('stopLayingOut', { params: { id } });

  readonly file = (id: string) => this.ask('file', { params: { id } });

  /** The files of that name, each content once. */
  readonly filesNamed = (name: string) => this.ask('filesNamed', { query: { name } });

  /** Facts of the pages after so many that are known. @param look a page that is looked at, and not known yet */
  readonly facts = (id: string, from: number, look?: number) =>
    this.ask('newFacts', { params: { id }, query: { from, ...(look === undefined ? {} : { look }) } });

  readonly jobs = (which: QueryOf<(typeof OPERATIONS)['jobs']>) => this.ask('jobs', { query: which });

  /** Without a printer it is set up for the first one known. */
  readonly createJob = (ticket: TicketInput, printerId?: string) =>
    this.ask('createJob', { body: { ticket: { ...ticket }, ...(printerId === undefined ? {} : { printerId }) } });

  readonly job = (id: string) => this.ask('job', { params: { id } });

  saveTicket(id: string, ticket: Ticket, revision: number): Told<'saveTicket'> {
    const body = { ticket: { ...ticket }, revision };
    // Goes on although the page is left; browsers hold back longer ones (Fetch standard, 64 KiB in all).
    const keepalive = JSON.stringify(body).length < LONGEST_KEPT_ALIVE;
    return this.ask('saveTicket', { params: { id }, body, keepalive });
  }

  /** Has the job printed elsewhere. */
  readonly changePrinter = (id: string, printerId: string, revision: number) =>
    this.ask('changePrinter', { params: { id }, body: { printerId, revision } });

  readonly removeJob = (id: string) => this.ask('removeJob', { params: { id } });

  readonly setups = () => this.ask('setups', {});

  readonly saveSetup = (body: Body<'saveSetup'>) => this.ask('saveSetup', { body });

  readonly changeSetup = (id: string, body: Body<'changeSetup'>) => this.ask('changeSetup', { params: { id }, body });

  readonly removeSetup = (id: string) => this.ask('removeSetup', { params: { id } });

  readonly queues = () => this.ask('queues', {});

  readonly incoming = () => this.ask('incoming', {});

  readonly allSeries = () => this.ask('allSeries', {});

  readonly createSeries = (title: string, setup: Ticket, printerId: string) =>
    this.ask('createSeries', { body: { title, setup: { ...setup }, printerId } });

  readonly series = (id: string) => this.ask('series', { params: { id } });

  readonly seriesDocuments = (id: string) => this.ask('seriesDocuments', { params: { id } });

  readonly changeSeries = (id: string, body: Body<'changeSeries'>) =>
    this.ask('changeSeries', { params: { id }, body });

  readonly removeSeries = (id: string) => this.ask('removeSeries', { params: { id } });

  readonly addSeriesFiles = (id: string, files: readonly SeriesFile[]) =>
    this.ask('addSeriesFiles', { params: { id }, body: { files: [...files] } });

  /** @param rows ids in their order @param out of those to be taken out */
  readonly orderSeries = (id: string, rows: readonly string[], out: readonly string[] = []) =>
    this.ask('orderSeries', { params: { id }, body: { rows: [...rows], out: [...out] } });

  readonly skipSeriesFile = (id: string, row: string, skipped: boolean) =>
    this.ask('skipSeriesFile', { params: { id, row }, body: { skipped } });

  readonly startSeries = (id: string, seen: SeriesSeen) =>
    this.keys.once(id, (key) =>
      this.ask('startSeries', { params: { id }, body: { ...seen, confirmed: [...seen.confirmed], key, ...this.by() } }),
    );

  readonly pauseSeries = (id: string) => this.ask('pauseSeries', { params: { id } });

  readonly resumeSeries = (id: string, again: boolean) => this.ask('resumeSeries', { params: { id }, body: { again } });

  readonly printer = (id: string) => this.ask('printer', { params: { id } });

  readonly printers = () => this.ask('printers', {});

  /** Those that announce themselves on the net. */
  readonly nearbyPrinters = () => this.ask('nearbyPrinters', {});

  readonly addPrinter = (uri: string, access: PrinterAccess = {}) =>
    this.ask('addPrinter', { body: { uri, ...access } });

  /** Says what it takes to ask a printer. */
  readonly letIn = (id: string, body: PrinterAccess) => this.ask('letIn', { params: { id }, body });

  /** Holds back what is to be sent to a printer, or sends on. */
  readonly holdBack = (id: string, held: boolean) => this.ask('holdBack', { params: { id }, body: { held } });

  readonly removePrinter = (id: string) => this.ask('removePrinter', { params: { id } });

  /** Notes what a person says of a tray's paper. */
  readonly describePaper = (id: string, tray: string, body: SaidOfPaper) =>
    this.ask('describePaper', { params: { id, tray }, body });

  /** Does something at the front panel of a simulated printer. */
  readonly atPanel = (id: string, { name, tray = '', body }: PanelWork): Told<PanelName> =>
    this.ask(name, { params: { id, tray }, body } as Given<PanelName>);

  /** Who sends, where a person has said. */
  private by(): { readonly by?: string } {
    const name = this.ownName.name();
    return name === '' ? {} : { by: name };
  }

  /** What was delivered between two days, added up. */
  readonly spend = (which: QueryOf<(typeof OPERATIONS)['spend']>) => this.ask('spend', { query: which });

  readonly sendings = () => this.ask('sendings', {});

  readonly send = ({ jobId, revision, sheets, seal, confirmed }: ToSend) =>
    this.keys.once(`${jobId} ${revision}`, (key) =>
      this.ask('send', { body: { jobId, revision, sheets, seal, confirmed: [...confirmed], key, ...this.by() } }),
    );

  /** @param marks of "again": sheets of it; null: all that it printed */
  actOnSending(id: string, how: SendingAct, marks: Marks | null = null): Told<SendingAct> {
    const act = (body: Body<'again'>): Told<SendingAct> => this.ask(how, { params: { id }, body });
    const what = `${id} ${how} ${marks ? writeMarks(marks) : ''}`;
    const sheets = marks ? { marks } : {};
    return MOVES_PAPER.includes(how) ? this.keys.once(what, (key) => act({ key, ...sheets, ...this.by() })) : act({});
  }

  /** Puts one that waits here before another, or after all. */
  readonly placeSending = (id: string, before: string | null) =>
    this.ask('placeSending', { params: { id }, body: { before } });

  /** The sheets of a set, and which of them it prints. */
  readonly sheetsOf = (id: string) => this.ask('sheets', { params: { id } });

  /** What the printer is told of each sheet. */
  readonly seen = (id: string) => this.ask('seen', { params: { id } });

  /** What one sending came to. */
  readonly stack = (id: string) => this.ask('stack', { params: { id } });

  /** What lies in a simulated printer's output. */
  readonly output = (id: string) => this.ask('output', { params: { id } });

  /** What changes, as it changes, after a word that the connection stands. It ends with the connection. */
  news(): Observable<NewsRecord | 'opened'> {
    return new Observable((subscriber) => {
      const url = location.origin.replace(/^http/, 'ws') + OPERATIONS.news.path;
      const openObserver = { next: () => subscriber.next('opened') };
      return webSocket<NewsRecord>({ url, openObserver }).subscribe(subscriber);
    });
  }
}

/** What went wrong, in a sentence for the screen. */
export function sayError(error: unknown): string {
  if (error instanceof HttpErrorResponse) {
    if (error.status === 0) return 'Foglio’s server does not answer. Start it again; nothing you saved is lost.';
    const problem = error.error as Partial<ProblemRecord> | null;
    return problem?.detail ?? `The server answered with status ${error.status}.`;
  }
  // A resource of Angular wraps what is no Error, and an answer of HTTP is none.
  if (error instanceof Error && error.cause instanceof HttpErrorResponse) return sayError(error.cause);
  return error instanceof Error ? error.message : String(error);
}

/** Whether the server was away or broken, and the same may go well a moment later. */
export const isPassing = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && (error.status === 0 || error.status >= 500);

/** A full disk does not pass by itself: a person has to make room (RFC 4918, 11.5). */
const NO_ROOM = 507;

/** Where the server is away it is tried again, for half a minute. */
export const WHILE_AWAY = {
  count: 30,
  delay: (error: unknown) =>
    isPassing(error) && (error as HttpErrorResponse).status !== NO_ROOM ? timer(1_000) : throwError(() => error),
};

/** Why a file cannot be used, in the server's word for it; null where that is not the matter. */
export function fileTrouble(error: unknown): string | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.trouble ?? null) : null;
}

/** What must be confirmed before the server does it; null where that is not the matter. */
export function cautionsIn(error: unknown): readonly Caution[] | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.cautions ?? null) : null;
}

/** The certificate that a printer shows and nobody vouches for; null where that is not the matter. */
export function certificateIn(error: unknown): PrinterRecord['certificate'] {
  return error instanceof HttpErrorResponse
    ? ((error.error as Partial<ProblemRecord> | null)?.certificate ?? null)
    : null;
}

/** The code of a problem the server named, or null. */
export function problemCode(error: unknown): string | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.code ?? null) : null;
}
