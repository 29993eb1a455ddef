import { inject, Injectable } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { SendingRecord } from '@foglio/api';
import { Observable, ReplaySubject } from 'rxjs';
import { Api, sayError, type ToSend } from './api';

/** Sendings on their way to the server. One goes on where its screen is left; that it was refused is then told anywhere. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly api = inject(Api);
  private readonly notices = inject(MatSnackBar);

  send(what: ToSend): Observable<SendingRecord> {
    const answer = new ReplaySubject<SendingRecord>(1);
    this.api.send(what).subscribe(answer);
    return new Observable((subscriber) => {
      const heard = answer.subscribe(subscriber);
      return () => {
        const isOpen = !heard.closed;
        heard.unsubscribe();
        // Whoever asked is gone before the answer came.
        if (isOpen) answer.subscribe({ error: (error: unknown) => this.tell(what, error) });
      };
    });
  }

  /** Send was pressed, and the screen was left while the last change was still on its way to the server. */
  leftUnsaved(title: string): void {
    this.tell({ title }, new Error('you left it while its last change was being saved. Open it and send it.'));
  }

  private tell({ title }: Pick<ToSend, 'title'>, error: unknown): void {
    this.notices.open(`“${title}” was not sent: ${sayError(error)}`, 'Close');
  }
}
