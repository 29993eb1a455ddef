import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { SendingAct, SendingRecord } from '@foglio/api';
import type { Marks } from '@foglio/core';
import { withSendings } from '../news/sendings-now';

export const QueueActions = createActionGroup({
  source: 'Queue',
  events: {
    Opened: emptyProps(),
    Listed: props<{ sendings: readonly SendingRecord[] }>(),
    Changed: props<{ sending: SendingRecord }>(),
    Act: props<{ id: string; how: SendingAct; /** Sheets of it to print again. */ marks?: Marks }>(),
    Place: props<{ id: string; /** Another that waits; null: after all. */ before: string | null }>(),
    Refused: props<{ message: string }>(),
  },
});

export interface QueueState {
  /** The latest first; null before the first answer. */
  readonly sendings: readonly SendingRecord[] | null;
  readonly message: string | null;
}

const put = (state: QueueState, sendings: readonly SendingRecord[]): QueueState => ({
  ...state,
  sendings: withSendings(state.sendings ?? [], sendings),
});

export const queueFeature = createFeature({
  name: 'queue',
  reducer: createReducer<QueueState>(
    { sendings: null, message: null },
    on(QueueActions.listed, (state, { sendings }) => put({ ...state, message: null }, sendings)),
    on(QueueActions.changed, (state, { sending }) => put({ ...state, message: null }, [sending])),
    // What was said of the try before is over.
    on(QueueActions.act, QueueActions.place, (state): QueueState => ({ ...state, message: null })),
    on(QueueActions.refused, (state, { message }): QueueState => ({ ...state, message })),
  ),
});
