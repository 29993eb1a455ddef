import type { SetupRecord } from '@foglio/api';
import { isSameTicket, type Ticket } from '@foglio/core';
import {
  BehaviorSubject,
  concat,
  defer,
  EMPTY,
  filter,
  last,
  map,
  of,
  Subject,
  take,
  tap,
  timer,
  type MonoTypeOperatorFunction,
  type Observable,
  type Subscription,
} from 'rxjs';
import { isPassing, problemCode, sayError, type Api } from '../api/api';

/** What is changed: a job, or a saved set-up. */
export interface Changed {
  readonly kind: 'job' | 'set-up';
  readonly id: string;
}

/** The latest of what is wanted; what is left out stays. */
export interface Change {
  readonly ticket?: Ticket;
  readonly printerId?: string | null;
  /** Of a set-up alone. */
  readonly name?: string;
  readonly starts?: SetupRecord['starts'];
  readonly offered?: boolean;
}

/** What became of a change. */
export type ChangeNews =
  | {
      readonly kind: 'saved';
      readonly change: Change;
      /** Of what was changed, as it now stands. */
      readonly revision: number;
      readonly setup: SetupRecord | null;
    }
  | { readonly kind: 'failed'; readonly message: string; readonly conflict: boolean };

/** What the server says where another window was faster. */
const OVERTAKEN: readonly (string | null)[] = ['job-changed', 'setup-changed'];

const SAVE_AFTER_MS = 250;
/** What the server could not do just now is tried again, with growing waits. */
const AGAIN_AFTER_MS = 2_000;
const AGAIN_AT_MOST_MS = 30_000;

type State = 'settled' | 'waiting' | 'asking' | 'failed';

/** The changes of one job or set-up, one after the other. */
export class ChangeLine {
  readonly news = new Subject<ChangeNews>();
  private readonly state = new BehaviorSubject<State>('settled');
  private revision = 0;
  /** What the server has. */
  private known: Change = {};
  private wanted: Change | null = null;
  private due: Subscription | null = null;
  private attempts = 0;
  private error: unknown = null;
  /** What the server may have although its answer never came. */
  private unsure: Change | null = null;

  constructor(
    private readonly api: Api,
    private readonly of: Changed,
  ) {}

  /** Whether leaving the page would lose something. */
  get isStuck(): boolean {
    return this.wanted !== null;
  }

  /** Throws when the next answer is that it could not be saved. */
  get failed(): Observable<never> {
    return this.state.pipe(
      filter((state) => state === 'failed'),
      map(() => {
        throw this.error;
      }),
    );
  }

  begin(revision: number, known: Change): void {
    this.attempts = 0;
    // What was loaded before the last change was answered is past already.
    if (revision < this.revision) return;
    this.revision = revision;
    this.known = known;
  }

  put(change: Change): void {
    this.wanted = { ...this.wanted, ...change };
    if (this.state.value === 'asking') return;
    this.waitFor(SAVE_AFTER_MS);
    this.state.next('waiting');
  }

  hurry(): void {
    if (this.wanted !== null && this.state.value !== 'asking') this.ask();
  }

  settled(): Observable<void> {
    return defer(() => {
      this.hurry();
      return this.state.pipe(
        filter((state) => state === 'settled' || state === 'failed'),
        take(1),
        map((state) => {
          if (state === 'failed' && this.wanted !== null) throw this.error;
        }),
      );
    });
  }

  private waitFor(milliseconds: number): void {
    this.due?.unsubscribe();
    this.due = timer(milliseconds).subscribe(() => this.ask());
  }

  private ask(): void {
    this.due?.unsubscribe();
    const change = this.wanted;
    if (change === null) return;
    this.wanted = null;
    this.state.next('asking');
    this.request(change).subscribe({
      next: (setup) => {
        this.attempts = 0;
        this.unsure = null;
        this.known = { ...this.known, ...change };
        this.news.next({ kind: 'saved', change, revision: this.revision, setup });
        if (this.wanted === null) this.state.next('settled');
        else this.ask();
      },
      error: (error: unknown) => this.lookAgain(error, change),
    });
  }

  /** Another window may have been faster; or it was this one, and the answer to its earlier try was lost. */
  private lookAgain(error: unknown, change: Change): void {
    const { unsure } = this;
    this.unsure = null;
    if (unsure?.ticket === undefined || problemCode(error) !== 'job-changed') return this.fail(error, change);
    const sent = unsure.ticket;
    this.api.job(this.of.id).subscribe({
      next: ({ ticket, printerId, revision }) => {
        if (!isSameTicket(ticket, sent)) return this.fail(error, change);
        this.begin(revision, { ticket: sent, printerId });
        this.wanted = { ...change, ...this.wanted };
        this.ask();
      },
      error: (away: unknown) => {
        this.fail(away, change);
        this.unsure = unsure;
      },
    });
  }

  private fail(error: unknown, change: Change): void {
    const conflict = OVERTAKEN.includes(problemCode(error));
    const isKept = !conflict && isPassing(error);
    // What is refused is refused again; where another window was faster, how it stands now has to be looked at first.
    this.wanted = isKept ? { ...change, ...this.wanted } : null;
    this.error = error;
    this.state.next('failed');
    this.news.next({ kind: 'failed', message: sayError(error), conflict });
    if (isKept) this.unsure = change;
    if (isKept) this.waitFor(Math.min(AGAIN_AFTER_MS * 2 ** this.attempts++, AGAIN_AT_MOST_MS));
  }

  /**
   * Asks for what the server has not got. Of a job the ticket goes before the printer, so that the printer is given the ticket
   * that was made for it.
   */
  private request(change: Change): Observable<SetupRecord | null> {
    const { kind, id } = this.of;
    const fresh = Object.fromEntries(
      Object.entries(change).filter(([name, value]) => value !== this.known[name as keyof Change]),
    ) as Change;
    if (Object.keys(fresh).length === 0) return of(null);
    const know = <T extends { revision: number }>(): MonoTypeOperatorFunction<T> =>
      tap(({ revision }) => (this.revision = revision));
    if (kind === 'set-up') return this.api.changeSetup(id, { ...fresh, revision: this.revision }).pipe(know());
    const { ticket, printerId } = fresh;
    return concat(
      ticket ? defer(() => this.api.saveTicket(id, ticket, this.revision)).pipe(know()) : EMPTY,
      printerId ? defer(() => this.api.changePrinter(id, printerId, this.revision)).pipe(know()) : EMPTY,
    ).pipe(
      last(),
      map(() => null),
    );
  }
}
