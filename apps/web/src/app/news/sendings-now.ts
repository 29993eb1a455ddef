import { computed, inject, Injectable, signal } from '@angular/core';
import type { SendingRecord } from '@foglio/api';
import { type Observable, tap } from 'rxjs';
import { Api } from '../api/api';
import { keepAsking } from './keep-asking';
import { News } from './news';

/** With these, the latest first. News and answers may cross: of each sending the later word counts. */
export function withSendings(
  known: readonly SendingRecord[],
  told: readonly SendingRecord[],
): readonly SendingRecord[] {
  const byId = new Map(known.map((one) => [one.id, one]));
  for (const one of told) {
    const before = byId.get(one.id);
    if (!before || before.updatedAt <= one.updatedAt) byId.set(one.id, one);
  }
  return [...byId.values()].sort((one, other) => other.createdAt.localeCompare(one.createdAt));
}

/** What was sent, as it is now, for screens that show something else. */
@Injectable({ providedIn: 'root' })
export class SendingsNow {
  private readonly api = inject(Api);
  private readonly news = inject(News);
  private readonly known = signal<readonly SendingRecord[]>([]);
  private readonly isListed = signal(false);
  /** The latest first; null before the list is known. */
  readonly all = computed(() => (this.isListed() ? this.known() : null));

  constructor() {
    this.news.of('sending').subscribe(({ sending }) => this.see([sending]));
  }

  /** Keeps the list, for as long as one is subscribed. */
  keepListed(): Observable<unknown> {
    return keepAsking(this.news.asking(), () => this.api.sendings()).pipe(
      tap((sendings) => {
        this.see(sendings);
        this.isListed.set(true);
      }),
    );
  }

  private see(sendings: readonly SendingRecord[]): void {
    this.known.update((known) => withSendings(known, sendings));
  }
}
