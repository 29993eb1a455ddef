import { defer, tap, type Observable } from 'rxjs';

/**
 * Keys of outbox. One whose answer was lost may have been entered all the same: the person presses Send once more, and the
 * key tells the server that it is the same sending. Once it is known to be entered, the next press is another one.
 */
export class SendingKeys {
  private readonly open = new Map<string, string>();

  /** @param what what is sent, as the person saw it: of another revision it is another sending */
  once<T>(what: string, send: (key: string) => Observable<T>): Observable<T> {
    return defer(() => {
      const key = this.open.get(what) ?? crypto.randomUUID();
      this.open.set(what, key);
      return send(key).pipe(tap(() => this.open.delete(what)));
    });
  }
}
