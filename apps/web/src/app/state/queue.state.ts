import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { SendingAct, SendingRecord } from '@foglio/api';
import type { Marks } from '@foglio/core';
import { withSendings } from '../news/sendings-now';

/** What is to be sent before another. */
export interface Move {
  readonly id: string;
  /** Another that waits; null: after all of its printer. */
  readonly before: string | null;
}

export const QueueActions = createActionGroup({
  source: 'Queue',
  events: {
    Opened: emptyProps(),
    Listed: props<{ sendings: readonly SendingRecord[] }>(),
    Changed: props<{ sending: SendingRecord }>(),
    Act: props<{ id: string; how: SendingAct; /** Sheets of it to print again. */ marks?: Marks }>(),
    Place: props<Move>(),
    Placed: props<{ sending: SendingRecord }>(),
    PlaceRefused: props<{ message: string }>(),
    Refused: props<{ message: string }>(),
  },
});

export interface QueueState {
  /** The latest first; null before the first answer. */
  readonly sendings: readonly SendingRecord[] | null;
  readonly message: string | null;
  /** Those that the server was asked for and has not answered, in their order: the list shows them as done. */
  readonly moves: readonly Move[];
}

const put = (state: QueueState, sendings: readonly SendingRecord[]): QueueState => ({
  ...state,
  sendings: withSendings(state.sendings ?? [], sendings),
});

export const queueFeature = createFeature({
  name: 'queue',
  reducer: createReducer<QueueState>(
    { sendings: null, message: null, moves: [] },
    on(QueueActions.listed, (state, { sendings }) => put({ ...state, message: null }, sendings)),
    on(QueueActions.changed, (state, { sending }) => put({ ...state, message: null }, [sending])),
    // What was said of the try before is over.
    on(QueueActions.act, (state): QueueState => ({ ...state, message: null })),
    on(QueueActions.place, (state, { id, before }): QueueState => {
      return { ...state, message: null, moves: [...state.moves, { id, before }] };
    }),
    // They are asked for one after the other, so it is the first that is answered.
    on(QueueActions.placed, (state, { sending }) => {
      return put({ ...state, moves: state.moves.slice(1) }, [sending]);
    }),
    on(QueueActions.placeRefused, (state, { message }): QueueState => {
      return { ...state, message, moves: state.moves.slice(1) };
    }),
    on(QueueActions.refused, (state, { message }): QueueState => ({ ...state, message })),
  ),
});
