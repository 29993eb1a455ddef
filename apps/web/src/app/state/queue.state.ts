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

/** With these, the latest first. News and answers may cross: of each sending the later word counts. */
const put = (state: QueueState, deliveries: readonly DeliveryRecord[]): QueueState => {
  const byId = new Map(state.deliveries?.map((one) => [one.id, one]));
  for (const one of deliveries) {
    const known = byId.get(one.id);
    if (!known || known.updatedAt <= one.updatedAt) byId.set(one.id, one);
  }
  const all = [...byId.values()].sort((one, other) => other.createdAt.localeCompare(one.createdAt));
  return { ...state, deliveries: all };
};

export const queueFeature = createFeature({
  name: 'queue',
  reducer: createReducer<QueueState>(
    { deliveries: null, message: null },
    on(QueueActions.listed, (state, { deliveries }) => put({ ...state, message: null }, deliveries)),
    on(QueueActions.changed, (state, { delivery }) => put({ ...state, message: null }, [delivery])),
    on(QueueActions.refused, (state, { message }): QueueState => ({ ...state, message })),
  ),
});
