import { inject } from '@angular/core';
import { Router } from '@angular/router';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  catchError,
  concatMap,
  distinctUntilChanged,
  EMPTY,
  exhaustMap,
  filter,
  forkJoin,
  fromEvent,
  map,
  merge,
  of,
  switchMap,
  take,
  tap,
  timer,
  withLatestFrom,
} from 'rxjs';
import { Api, cautionsIn, problemCode, sayError } from '../api/api';
import { Planner } from '../workers/planner';
import { BenchActions } from './bench.actions';
import { benchFeature } from './bench.state';

const SAVE_AFTER_MS = 250;
const ASK_FACTS_AFTER_MS = 300;
const ASK_FACTS_EVERY_MS = 700;
const ASK_PRINTER_EVERY_MS = 10_000;

/** Loading the page anew would lose the change, so it is not what is told. */
const NOT_SAVED =
  'Nothing was sent: the last change could not be saved. Change anything once more, and it is saved again.';
const CHANGED_ELSEWHERE = 'Nothing was sent: another window changed this job. Look at how it stands now first.';

export const load = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(BenchActions.opened),
      switchMap(({ jobId }) =>
        api.job(jobId).pipe(
          switchMap((job) => forkJoin({ job: of(job), printer: api.printer(job.printerId), setups: api.setups() })),
          map((loaded) => BenchActions.loaded(loaded)),
          catchError((error: unknown) => of(BenchActions.loadFailed({ message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);

/** What is loaded in the trays changes while one works, so the printer that is chosen is asked again now and then. */
export const watchPrinter = createEffect(
  (store = inject(Store), api = inject(Api)) =>
    store.select(benchFeature.selectPrinter).pipe(
      map((printer) => printer?.id ?? null),
      distinctUntilChanged(),
      // Another printer, or none, ends the question about the one before, also where its answer is on its way.
      switchMap((id) => {
        if (id === null) return EMPTY;
        return timer(ASK_PRINTER_EVERY_MS, ASK_PRINTER_EVERY_MS).pipe(
          exhaustMap(() => api.printer(id).pipe(catchError(() => EMPTY))),
        );
      }),
      map((printer) => BenchActions.printerSeen({ printer })),
    ),
  { functional: true },
);

/** What is on the pages becomes known little by little after an upload; it is asked for until it is whole. */
export const followReading = createEffect(
  (store = inject(Store), api = inject(Api)) =>
    store.select(benchFeature.selectDocuments).pipe(
      map((documents) => documents.find(({ read, pages }) => read < pages.length)),
      distinctUntilChanged((a, b) => a?.id === b?.id && a?.read === b?.read && a?.outline === b?.outline),
      switchMap((document) => {
        if (!document) return EMPTY;
        const { id: file, read: from, outline } = document;
        return timer(ASK_FACTS_AFTER_MS, ASK_FACTS_EVERY_MS).pipe(
          exhaustMap(() => api.facts(file, from).pipe(catchError(() => EMPTY))),
          filter((facts) => facts.read > from || (facts.outline !== undefined && outline === undefined)),
          take(1),
          map((facts) => BenchActions.factsRead({ file, from, facts })),
        );
      }),
    ),
  { functional: true },
);

/** A change of ticket, documents or printer is planned at once; a newer one takes the place of an older. */
export const plan = createEffect(
  (store = inject(Store), planner = inject(Planner)) =>
    store.select(benchFeature.selectBenchState).pipe(
      distinctUntilChanged((a, b) => a.ticket === b.ticket && a.documents === b.documents && a.printer === b.printer),
      filter(({ ticket, printer }) => ticket !== null && printer !== null),
      switchMap(({ ticket, documents, printer }) =>
        planner.ask<'plan'>({ kind: 'plan' }, ticket!, documents, printer!.profile),
      ),
      map((answer) => BenchActions.planned({ answer })),
    ),
  { functional: true },
);

/**
 * The ticket is saved as it changes, one request after another. What is to be saved is taken at the change itself, so
 * that nothing is lost where the person goes to another job, or leaves the page, before the short wait is over.
 */
export const save = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api)) => {
    const leaving = merge(
      actions.pipe(ofType(BenchActions.opened, BenchActions.setupOpened)),
      fromEvent(window, 'pagehide'),
    );
    // Each request begins from the revision the one before it gave, also where its answer has not reached the store.
    let latest = { jobId: '', revision: 0 };
    return actions.pipe(
      ofType(BenchActions.ticketChanged, BenchActions.pagesRouted, BenchActions.undone, BenchActions.redone),
      withLatestFrom(store.select(benchFeature.selectBenchState)),
      filter(([, { ticket, saving }]) => ticket !== null && saving !== 'saved' && saving !== 'conflict'),
      switchMap(([, state]) =>
        merge(timer(SAVE_AFTER_MS), leaving).pipe(
          take(1),
          map(() => ({ jobId: state.jobId, setupId: state.setupId, ticket: state.ticket!, known: state.revision })),
        ),
      ),
      concatMap(({ jobId, setupId, ticket, known }) => {
        const failed = (error: unknown) => {
          const conflict = problemCode(error) === 'job-changed';
          return of(BenchActions.saveFailed({ jobId, message: sayError(error), conflict }));
        };
        if (jobId === null) {
          return api.changeSetup(setupId!, { ticket }).pipe(
            map((setup) => BenchActions.setupSaved({ setup, ticket })),
            catchError(failed),
          );
        }
        const revision = latest.jobId === jobId ? Math.max(latest.revision, known) : known;
        return api.saveTicket(jobId, ticket, revision).pipe(
          tap((saved) => (latest = { jobId, revision: saved.revision })),
          map((saved) => BenchActions.saved({ jobId, ticket, revision: saved.revision })),
          catchError(failed),
        );
      }),
    );
  },
  { functional: true },
);

/** The printer is changed once the server has the ticket the person sees. */
export const changePrinter = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api)) =>
    actions.pipe(
      ofType(BenchActions.printerWanted),
      switchMap(({ printer }) =>
        store.select(benchFeature.selectBenchState).pipe(
          filter(({ saving }) => saving !== 'unsaved'),
          take(1),
          switchMap(({ jobId, setupId, setups, revision }) =>
            jobId === null
              ? api.changeSetup(setupId!, { printerId: printer.id }).pipe(
                  map((setup) => {
                    const others = setups.map((one) => (one.id === setup.id ? setup : one));
                    return BenchActions.setupOpened({ setup, printer, setups: others });
                  }),
                )
              : api
                  .changePrinter(jobId, printer.id, revision)
                  .pipe(
                    map((saved) => BenchActions.printerChanged({ jobId: jobId, printer, revision: saved.revision })),
                  ),
          ),
          catchError((error: unknown) => of(BenchActions.printerRefused({ message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);

/** Sending waits until the server has the ticket the person sees. */
export const send = createEffect(
  (actions = inject(Actions), store = inject(Store), api = inject(Api)) =>
    actions.pipe(
      ofType(BenchActions.sendingWanted),
      exhaustMap(({ sheets, confirmed }) =>
        store.select(benchFeature.selectBenchState).pipe(
          filter(({ saving }) => saving !== 'unsaved'),
          take(1),
          switchMap(({ jobId, revision, saving }) => {
            // The server has the ticket of before: what the person sees would not be what is printed.
            if (saving !== 'saved') {
              const message = saving === 'conflict' ? CHANGED_ELSEWHERE : NOT_SAVED;
              return of(BenchActions.sendingRefused({ message }));
            }
            return api
              .send(jobId!, revision, sheets, confirmed)
              .pipe(map((delivery) => BenchActions.sent({ delivery })));
          }),
          catchError((error: unknown) => {
            const cautions = cautionsIn(error);
            if (cautions) return of(BenchActions.cautionsFound({ cautions, sheets, confirmed }));
            return of(BenchActions.sendingRefused({ message: sayError(error) }));
          }),
        ),
      ),
    ),
  { functional: true },
);

export const showQueue = createEffect(
  (actions = inject(Actions), router = inject(Router)) =>
    actions.pipe(
      ofType(BenchActions.sent),
      // Whoever went elsewhere while it was being entered is left there.
      filter(({ delivery }) => router.url.startsWith(`/jobs/${delivery.jobId}`)),
      tap(({ delivery }) => void router.navigate(['/queue', delivery.id])),
    ),
  { functional: true, dispatch: false },
);
