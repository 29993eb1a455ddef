import { inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { NewsRecord } from '@foglio/api';
import {
  BehaviorSubject,
  defer,
  distinctUntilChanged,
  filter,
  finalize,
  map,
  merge,
  type Observable,
  of,
  repeat,
  retry,
  skip,
  Subject,
  switchMap,
  timeout,
  timer,
} from 'rxjs';
import { Api } from '../api/api';

/** The server says a word every 15 s; a connection on which nothing comes for so long is dead. */
const SILENT_MS = 40_000;

const AGAIN_MS = 1_000;

/** A connection that is back at once has not been missed. */
const LOST_AFTER_MS = 2_000;

export type Topic = NewsRecord['topic'];
export type NewsOf<T extends Topic> = Extract<NewsRecord, { topic: T }>;

/** What changes on the server, told as it changes, to every screen by one connection. */
@Injectable({ providedIn: 'root' })
export class News {
  private readonly api = inject(Api);
  private readonly told = new Subject<NewsRecord>();
  private readonly stands = new BehaviorSubject(false);

  private readonly away = signal(false);

  /** Whether the server's database does not answer, so that nothing can be asked for or kept; it goes on by itself. */
  readonly isDatabaseAway = this.away.asReadonly();

  /** Comes with every connection: what changed before it was not told. */
  readonly opened: Observable<unknown> = this.stands.pipe(skip(1), filter(Boolean));

  /** Whether there has been no connection for a while, so that what is on the screen may be out of date. */
  readonly isLost = toSignal(
    this.stands.pipe(
      distinctUntilChanged(),
      switchMap((stands) => (stands ? of(false) : timer(LOST_AFTER_MS).pipe(map(() => true)))),
    ),
    { initialValue: false },
  );

  constructor() {
    defer(() => this.api.news())
      .pipe(
        timeout({ each: SILENT_MS }),
        finalize(() => this.stands.next(false)),
        repeat({ delay: AGAIN_MS }),
        retry({ delay: AGAIN_MS }),
      )
      .subscribe((news) => {
        if (news === 'opened') {
          this.away.set(false);
          this.stands.next(true);
        } else if (news.topic === 'database away') this.away.set(true);
        else this.told.next(news);
      });
  }

  of<T extends Topic>(topic: T): Observable<NewsOf<T>> {
    return this.told.pipe(filter((news): news is NewsOf<T> => news.topic === topic));
  }

  /** Whenever what is on a screen has to be asked for: at once, after every new connection, and with every such news. */
  asking(...news: readonly Observable<unknown>[]): Observable<unknown> {
    return merge(of(null), this.opened, ...news);
  }
}
