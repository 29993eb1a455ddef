import { inject, Injectable } from '@angular/core';
import type { JobDocument, PrinterRecord } from '@foglio/api';
import type { RowOutcome, Ticket } from '@foglio/core';
import { concatMap, from, map, type Observable, scan, throttleTime } from 'rxjs';
import { Planner } from '../workers/planner';

/** A file of a series as it is planned. */
export interface RowToPlan {
  readonly id: string;
  readonly ticket: Ticket;
  readonly documents: readonly JobDocument[];
}

export type Outcomes = ReadonlyMap<string, RowOutcome>;

/** Often enough to be seen to go on, and seldom enough to leave the screen time for all else. */
const TELL_EVERY_MS = 100;

/** Plans the files of a series away from the screen's thread, one after the other. */
@Injectable({ providedIn: 'root' })
export class SeriesPlanner {
  private readonly planner = inject(Planner);

  /** What is known so far, again and again until all is. */
  plan(rows: readonly RowToPlan[], { profile, uri }: Pick<PrinterRecord, 'profile' | 'uri'>): Observable<Outcomes> {
    if (rows.length === 0) return from([new Map<string, RowOutcome>()]);
    return from(rows).pipe(
      concatMap(({ id, ticket, documents }) =>
        this.planner
          .ask<'row'>({ kind: 'row', address: uri }, ticket, documents, profile)
          .pipe(map((outcome) => ({ id, outcome }))),
      ),
      scan((known, { id, outcome }) => known.set(id, outcome), new Map<string, RowOutcome>()),
      throttleTime(TELL_EVERY_MS, undefined, { leading: true, trailing: true }),
      map((known) => new Map(known)),
    );
  }
}
