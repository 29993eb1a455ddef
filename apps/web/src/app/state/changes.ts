import { inject, Injectable } from '@angular/core';
import { defer, fromEvent, merge, take, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { ChangeLine, type Change, type Changed, type ChangeNews } from './change-line';

/**
 * Changes on their way to the server. They outlive the screen on which they were made; of each job one request is on its
 * way at a time, begins from the revision that the one before it gave, and carries the latest there is. A change that
 * the server could not take just now is kept and tried again.
 */
@Injectable({ providedIn: 'root' })
export class Changes {
  private readonly api = inject(Api);
  private readonly lines = new Map<string, ChangeLine>();

  constructor() {
    fromEvent(window, 'pagehide').subscribe(() => this.lines.forEach((line) => line.hurry()));
    fromEvent(window, 'beforeunload').subscribe((event) => {
      this.lines.forEach((line) => line.hurry());
      // A change that waits behind another one would not get away any more.
      if ([...this.lines.values()].some(({ isStuck }) => isStuck)) event.preventDefault();
    });
  }

  /** What the server has, as it was loaded: what is changed begins from there. */
  begin(of: Changed, revision: number, known: Change): void {
    this.lineOf(of).begin(revision, known);
  }

  put(of: Changed, change: Change): void {
    this.lineOf(of).put(change);
  }

  /** Puts a change and sends it at once. @throws the error where it could not be saved */
  make(of: Changed, change: Change): Observable<void> {
    return defer(() => {
      const line = this.lineOf(of);
      line.put(change);
      return merge(line.failed, line.settled()).pipe(take(1));
    });
  }

  news(of: Changed): Observable<ChangeNews> {
    return this.lineOf(of).news;
  }

  /** Sends what waits at once, and completes when the server has it all. @throws the error where it could not take it */
  settled(of: Changed): Observable<void> {
    return this.lineOf(of).settled();
  }

  private lineOf({ kind, id }: Changed): ChangeLine {
    const key = `${kind} ${id}`;
    const line = this.lines.get(key) ?? new ChangeLine(this.api, { kind, id });
    this.lines.set(key, line);
    return line;
  }
}
