import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { SendingRecord } from '@foglio/api';
import { SendingsNow } from '../news/sendings-now';
import { BrowserNotices } from './browser-notices';
import { noticeOf, type Notice } from './notice-of';

/** How long it is told that something is ready, in milliseconds: there is nothing to do about it. */
const READY_MS = 15_000;

/**
 * What is to be heard of what was sent: what became of it since its list was first known, and not what stood there already.
 * What asks for somebody stays until that is done, or the notice is closed.
 */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly browser = inject(BrowserNotices);
  /** The latest last. */
  readonly shown = signal<readonly Notice[]>([]);
  /** Of each sending what was to be heard, in words; null before the list is known. */
  private heard: ReadonlyMap<string, string | null> | null = null;
  /** When what is known last changed. */
  private until = '';

  constructor() {
    const { all } = inject(SendingsNow);
    effect(() => {
      const sendings = all();
      if (sendings) untracked(() => this.hear(sendings));
    });
  }

  close(closed: readonly Notice[]): void {
    this.shown.update((shown) => shown.filter((one) => !closed.includes(one)));
  }

  private hear(sendings: readonly SendingRecord[]): void {
    const { heard, until } = this;
    for (const sending of sendings) if (sending.updatedAt > this.until) this.until = sending.updatedAt;
    const notices = sendings.map((sending) => [sending, noticeOf(sending)] as const);
    this.heard = new Map(notices.map(([{ id }, notice]) => [id, notice && notice.text]));
    if (!heard) return;
    for (const [{ id, updatedAt }, notice] of notices) {
      // One that was not listed is new, unless it is an old one for which there was no room.
      const isNew = heard.has(id) ? heard.get(id) !== (notice && notice.text) : updatedAt > until;
      if (isNew) this.take(id, notice);
    }
  }

  private take(id: string, notice: Notice | null): void {
    this.shown.update((shown) => [...shown.filter(({ sendingId }) => sendingId !== id), ...(notice ? [notice] : [])]);
    if (!notice) return;
    this.browser.tell(notice);
    if (notice.kind === 'ready') setTimeout(() => this.close([notice]), READY_MS);
  }
}
