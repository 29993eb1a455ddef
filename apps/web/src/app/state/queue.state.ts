import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { DeliveryAct, DeliveryRecord } from '@foglio/api';

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
    on(QueueActions.refused, (state, { message }): QueueState => ({ ...state, message })),
  ),
});
