import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import type { Action } from '@ngrx/store';
import { catchError, concatMap, exhaustMap, map, merge, of, Subject } from 'rxjs';
import { Api, sayError } from '../api/api';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { QueueActions } from './queue.state';

/** Listens from the first look at the queue on; after every new connection the whole list is asked for. */
export const listen = createEffect(
  (actions = inject(Actions), api = inject(Api), news = inject(News)) =>
    actions.pipe(
      ofType(QueueActions.opened),
      exhaustMap(() => {
        const refused = new Subject<Action>();
        const failed = (error: unknown): void => refused.next(QueueActions.refused({ message: sayError(error) }));
        const listed = keepAsking(news.asking(), () => api.sendings(), failed);
        return merge(
          news.of('sending').pipe(map(({ sending }) => QueueActions.changed({ sending }))),
          listed.pipe(map((sendings) => QueueActions.listed({ sendings }))),
          refused,
        );
      }),
    ),
  { functional: true },
);

/** Where those stand that change their places with it is told as news. */
export const place = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(QueueActions.place),
      concatMap(({ id, before }) =>
        api.placeSending(id, before).pipe(
          map((sending) => QueueActions.placed({ sending })),
          catchError((error: unknown) => of(QueueActions.placeRefused({ message: sayError(error) }))),
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
      concatMap(({ id, how, marks }) =>
        api.actOnSending(id, how, marks).pipe(
          map((sending) => QueueActions.changed({ sending })),
          catchError((error: unknown) => of(QueueActions.refused({ message: sayError(error) }))),
        ),
      ),
    ),
  { functional: true },
);
