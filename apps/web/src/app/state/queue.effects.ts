import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concatMap, exhaustMap, map, of } from 'rxjs';
import { Api, sayError } from '../api/api';
import { QueueActions } from './queue.state';

/** Listens from the first look at the queue on; after every new connection the whole list is asked for. */
export const listen = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(QueueActions.opened),
      exhaustMap(() =>
        api.deliveryEvents().pipe(
          // One after the other: news that comes while the list is on its way must not take its place.
          concatMap((event) =>
            event === 'opened'
              ? api.deliveries().pipe(
                  map((deliveries) => QueueActions.listed({ deliveries })),
                  catchError((error: unknown) => of(QueueActions.refused({ message: sayError(error) }))),
                )
              : of(QueueActions.changed({ delivery: event })),
          ),
        ),
      ),
    ),
  { functional: true },
);

/** What is done to a sending is shown by what the server then says of it. */
export const act = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(QueueActions.act),
      // Whatever is wanted meanwhile comes after it.
      concatMap(({ id, how }) =>
        api.actOnDelivery(id, how).pipe(
          map((delivery) => QueueActions.changed({ delivery })),
          catchError((error: unknown) => of(QueueActions.refused({ message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);
