import { inject } from '@angular/core';
import { Router } from '@angular/router';
import type { PrinterRecord } from '@foglio/api';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  catchError,
  combineLatest,
  concat,
  concatMap,
  defer,
  distinctUntilChanged,
  EMPTY,
  exhaustMap,
  filter,
  finalize,
  forkJoin,
  from,
  map,
  merge,
  of,
  retry,
  skip,
  switchMap,
  take,
  tap,
  throwError,
  timer,
  withLatestFrom,
} from 'rxjs';
import { isPageKnown } from '../documents/read-file';
import { Api, cautionsIn, isPassing, problemCode, sayError } from '../api/api';
import { Outbox } from '../api/outbox';
import { titleOf } from '../documents/job-title';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { Planner } from '../workers/planner';
import { BenchActions } from './bench.actions';
import { benchFeature } from './bench.state';
import type { Changed } from './change-line';
import { Changes } from './changes';
import { whyNotSent } from './sendable';
import { sealSeen } from './seen';

/** How long after the server was away it is asked again, in milliseconds. */
const ASK_AGAIN_MS = 1_000;

/** A job is loaded once the server has all that was changed of it here. */
export const load = createEffect(
  (actions = inject(Actions), api = inject(Api), changes = inject(Changes)) =>
    actions.pipe(
      ofType(BenchActions.opened),
      switchMap(({ jobId }) =>
        changes.settled({ kind: 'job', id: jobId }).pipe(
          switchMap(() => api.job(jobId)),
          tap(({ revision, ticket, printerId }) =>
            changes.begin({ kind: 'job', id: jobId }, revision, { ticket, printerId }),
          ),
          switchMap((job) => forkJoin({ job: of(job), printer: api.printer(job.printerId), setups: api.setups() })),
          map((loaded) => BenchActions.loaded(loaded)),
          catchError((error: unknown) => of(BenchActions.loadFailed({ jobId, message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);

/** What is loaded in the trays changes while one works, and printers stop: the one that is chosen is followed. */
export const watchPrinter = createEffect(
  (store = inject(Store), printers = inject(PrintersNow)) =>
    store.select(benchFeature.selectPrinter).pipe(
      map((printer) => printer?.id ?? null),
      distinctUntilChanged(),
      // Another printer, or none, ends the question about the one before, also where its answer is on its way.
      switchMap((id) => (id === null ? EMPTY : printers.follow(id))),
      map((printer) => BenchActions.printerSeen({ printer })),
    ),
  { functional: true },
);

/** Another window may change the job that is open here, or remove it. */
export const hearOfJob = createEffect(
  (store = inject(Store), api = inject(Api), news = inject(News)) =>
    store.select(benchFeature.selectJobId).pipe(
      distinctUntilChanged(),
      switchMap((jobId) => {
        if (jobId === null) return EMPTY;
        const told = news.of('job').pipe(filter(({ id }) => id === jobId));
        return merge(
          told,
          keepAsking(news.opened, () => api.job(jobId)),
        ).pipe(map(({ revision }) => BenchActions.jobHeardOf({ jobId, revision })));
      }),
    ),
  { functional: true },
);

/** What is on the pages becomes known little by little after an upload: what is new is asked for until it is whole. */
export const followReading = createEffect(
  (store = inject(Store), api = inject(Api), news = inject(News)) => {
    const lookedAt = store
      .select(benchFeature.selectLookedAt)
      .pipe(distinctUntilChanged((a, b) => a?.file === b?.file && a?.page === b?.page));
    // One that is looked at before others.
    const unread = combineLatest([store.select(benchFeature.selectDocuments), lookedAt]).pipe(
      map(([documents, looked]) => {
        const those = documents.filter(({ read, pages }) => read < pages.length);
        return those.find(({ id }) => id === looked?.file) ?? those[0];
      }),
    );
    return unread.pipe(
      distinctUntilChanged((a, b) => a?.id === b?.id),
      switchMap((document) => {
        if (!document) return EMPTY;
        const { id: file, sha256 } = document;
        const told = news.of('file').pipe(filter(({ id }) => id === sha256));
        const ask = () =>
          combineLatest([unread, lookedAt]).pipe(
            take(1),
            filter(([now]) => now?.id === file),
            switchMap(([now, looked]) => {
              const page = looked?.file === file ? looked.page : undefined;
              return api.facts(file, now!.read, page).pipe(map((facts) => ({ now: now!, facts })));
            }),
          );
        const looking = lookedAt.pipe(
          skip(1),
          filter((looked) => looked?.file === file),
        );
        return keepAsking(merge(news.asking(told), looking), ask).pipe(
          filter(
            ({ now, facts: { read, outline, ahead } }) =>
              read > now.read ||
              (outline !== undefined && !now.outline) ||
              (ahead !== undefined &&
                ahead.pages.some(
                  (page, index) => isPageKnown(page) && !isPageKnown(now.pages[ahead.from - 1 + index]!),
                )),
          ),
          map(({ now, facts }) => BenchActions.factsRead({ file, from: now.read, facts })),
        );
      }),
    );
  },
  { functional: true },
);

/**
 * What is not laid out as the ticket asks is laid out: the latest wish alone, tried again where the server was away. One
 * that cannot be laid out so is told, and what it was stands until something else is asked.
 */
export const layOut = createEffect(
  (store = inject(Store), api = inject(Api)) =>
    store.select(benchFeature.selectToLayOut).pipe(
      distinctUntilChanged((one, other) => JSON.stringify(one) === JSON.stringify(other)),
      switchMap((all) =>
        from(all).pipe(
          concatMap(({ file, name, form }) =>
            defer(() => api.layOut(file, form)).pipe(
              retry({ delay: (error: unknown) => (isPassing(error) ? timer(ASK_AGAIN_MS) : throwError(() => error)) }),
              map(({ bytes: _, ...laid }) => BenchActions.laidOut({ file, form, laid })),
              catchError((error: unknown) => of(BenchActions.refused({ message: `${name}: ${sayError(error)}` }))),
            ),
          ),
        ),
      ),
    ),
  { functional: true },
);

/** Of what takes long the first pages came; the whole takes their place as soon as it is there. */
export const followLayingOut = createEffect(
  (store = inject(Store), api = inject(Api), news = inject(News)) =>
    store.select(benchFeature.selectDocuments).pipe(
      map((documents) => documents.find(({ laid }) => laid?.unfinished?.trouble === null)),
      distinctUntilChanged((one, other) => one?.id === other?.id),
      switchMap((begun) => {
        if (!begun) return EMPTY;
        const told = news.of('file').pipe(filter(({ id }) => id === begun.sha256));
        return keepAsking(news.asking(told), () => api.file(begun.id)).pipe(
          // How far it is is told too.
          filter(({ laid }) => laid?.unfinished?.trouble !== null || laid.unfinished.done !== undefined),
          map(({ bytes: _, ...file }) => BenchActions.fileTaken({ file })),
        );
      }),
    ),
  { functional: true },
);

/** A change of ticket, documents or printer is planned at once; a newer one takes the place of an older. */
export const plan = createEffect(
  (store = inject(Store), planner = inject(Planner)) =>
    store.select(benchFeature.selectBenchState).pipe(
      distinctUntilChanged(
        (a, b) => a.ticket === b.ticket && a.documents === b.documents && isSamePrinter(a.printer, b.printer),
      ),
      switchMap(({ ticket, documents, printer }) => {
        if (ticket === null || printer === null) return EMPTY;
        return planner
          .ask<'plan'>({ kind: 'plan' }, ticket, documents, printer.profile)
          .pipe(map((answer) => BenchActions.planned({ answer, of: { ticket, documents, printer } })));
      }),
    ),
  { functional: true },
);

/** To the plan it is the same while its profile is. */
const isSamePrinter = (one: PrinterRecord | null, other: PrinterRecord | null): boolean =>
  one?.id === other?.id && one?.profile === other?.profile;

/** What stands here goes to the server; {@link Changes} sees to it, also where this is closed meanwhile. */
export const save = createEffect(
  (actions = inject(Actions), store = inject(Store), changes = inject(Changes)) =>
    actions.pipe(
      ofType(
        BenchActions.ticketChanged,
        BenchActions.pagesRouted,
        BenchActions.undone,
        BenchActions.redone,
        BenchActions.laidOut,
        BenchActions.printerWanted,
      ),
      withLatestFrom(store.select(benchFeature.selectBenchState)),
      filter(([, { ticket, saving }]) => ticket !== null && saving === 'unsaved'),
      tap(([, { jobId, setupId, ticket, printer }]) =>
        changes.put(openedOf({ jobId, setupId })!, { ticket: ticket!, printerId: printer!.id }),
      ),
    ),
  { functional: true, dispatch: false },
);

/** What became of the changes of what is open. */
export const hearSaved = createEffect(
  (store = inject(Store), changes = inject(Changes)) =>
    store.select(benchFeature.selectBenchState).pipe(
      map(openedOf),
      distinctUntilChanged((a, b) => a?.kind === b?.kind && a?.id === b?.id),
      switchMap((opened) => {
        if (!opened) return EMPTY;
        return changes.news(opened).pipe(
          map((news) => {
            if (news.kind === 'saved') return BenchActions.saved({ of: opened, news });
            const { message, conflict } = news;
            return BenchActions.saveFailed({ of: opened, message, conflict });
          }),
        );
      }),
    ),
  { functional: true },
);

/** The job or set-up that is open. */
function openedOf({ jobId, setupId }: { jobId: string | null; setupId: string | null }): Changed | null {
  if (jobId !== null) return { kind: 'job', id: jobId };
  return setupId === null ? null : { kind: 'set-up', id: setupId };
}

/** Sending waits until the server has the ticket the person saw, and goes only if it is still that one. */
export const send = createEffect(
  (actions = inject(Actions), store = inject(Store), outbox = inject(Outbox), api = inject(Api)) =>
    actions.pipe(
      ofType(BenchActions.sendingWanted),
      exhaustMap(({ seen, confirmed }) => {
        let isSaved = false;
        return store.select(benchFeature.selectBenchState).pipe(
          filter(({ saving }) => saving !== 'unsaved'),
          take(1),
          tap(() => (isSaved = true)),
          switchMap((state) => {
            const why = whyNotSent(seen, state);
            if (why !== null) return of(BenchActions.sendingRefused({ message: why }));
            const { jobId, revision } = state;
            const { ticket, documents, plan: planned } = seen;
            const title = titleOf(ticket, documents);
            const { sheets } = planned.tally;
            return outbox
              .send({ jobId: jobId!, title, revision, sheets, seal: sealSeen(seen), confirmed })
              .pipe(map((sending) => BenchActions.sent({ sending })));
          }),
          catchError((error: unknown) => {
            const cautions = cautionsIn(error);
            if (cautions) return of(BenchActions.cautionsFound({ cautions, seen, confirmed }));
            const refused = of(BenchActions.sendingRefused({ message: sayError(error) }));
            if (problemCode(error) !== 'plan-changed') return refused;
            // The server knows something of the printer that is not on the screen yet.
            const now = api.printer(seen.printer.id).pipe(
              map((printer) => BenchActions.printerSeen({ printer })),
              catchError(() => EMPTY),
            );
            return concat(refused, now);
          }),
          // Whoever is gone by then has to hear that nothing is printed.
          finalize(() => isSaved || outbox.leftUnsaved(titleOf(seen.ticket, seen.documents))),
        );
      }),
    ),
  { functional: true },
);

export const showQueue = createEffect(
  (actions = inject(Actions), router = inject(Router)) =>
    actions.pipe(
      ofType(BenchActions.sent),
      // Whoever went elsewhere while it was being entered is left there.
      filter(({ sending }) => router.url.startsWith(`/jobs/${sending.jobId}`)),
      tap(({ sending }) => void router.navigate(['/queue', sending.id])),
    ),
  { functional: true, dispatch: false },
);
