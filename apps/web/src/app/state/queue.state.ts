import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import { catchError, concatMap, exhaustMap, map, of } from 'rxjs';
import { Api, sayError } from '../api/api';
import type { DeliveryAct, DeliveryRecord } from '@foglio/api';
import { BenchActions } from './bench.actions';

export const QueueActions = createActionGroup({
  source: 'Queue',
  events: {
    Opened: emptyProps(),
    Listed: props<{ deliveries: readonly DeliveryRecord[] }>(),
    Changed: props<{ delivery: DeliveryRecord }>(),
    Act: props<{ id: string; how: DeliveryAct }>(),
    Refused: props<{ message: string }>(),
  },
});

export interface QueueState {
  /** The latest first; null before the first answer. */
  readonly deliveries: readonly DeliveryRecord[] | null;
  readonly message: string | null;
}

const put = (state: QueueState, delivery: DeliveryRecord): QueueState => {
  const known = state.deliveries ?? [];
  const older = known.find(({ id }) => id === delivery.id);
  // Events and answers may cross; the later word counts.
  if (older && older.updatedAt > delivery.updatedAt) return state;
  const deliveries = older ? known.map((one) => (one === older ? delivery : one)) : [delivery, ...known];
  return { ...state, deliveries };
};

export const queueFeature = createFeature({
  name: 'queue',
  reducer: createReducer<QueueState>(
    { deliveries: null, message: null },
    on(QueueActions.listed, (state, { deliveries }): QueueState => ({ ...state, deliveries })),
    on(QueueActions.changed, (state, { delivery }) => put({ ...state, message: null }, delivery)),
    on(BenchActions.sent, (state, { delivery }) => put(state, delivery)),
    on(QueueActions.refused, (state, { message }): QueueState => ({ ...state, message })),
  ),
});

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
      exhaustMap(({ id, how }) =>
        api.actOnDelivery(id, how).pipe(
          map((delivery) => QueueActions.changed({ delivery })),
          catchError((error: unknown) => of(QueueActions.refused({ message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);
