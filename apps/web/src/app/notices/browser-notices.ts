import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { PrintersNow } from '../news/printers-now';
import type { Notice } from './notice-of';

/** Where a browser remembers that its person wants to be told. */
const KEY = 'foglio notices';

/** Notices by the browser, seen where another window is in front; for whoever wants them and is allowed them. */
@Injectable({ providedIn: 'root' })
export class BrowserNotices {
  private readonly router = inject(Router);
  private readonly printersNow = inject(PrintersNow);
  readonly isOn = signal(localStorage.getItem(KEY) === 'on' && permission() === 'granted');
  /** Why they cannot be had; null: they can, or it was not tried. */
  readonly refused = signal<string | null>(null);

  async switch(): Promise<void> {
    const isWanted = !this.isOn();
    const answer = isWanted ? await askPermission() : permission();
    const isOn = isWanted && answer === 'granted';
    this.isOn.set(isOn);
    localStorage.setItem(KEY, isOn ? 'on' : 'off');
    this.refused.set(isWanted && !isOn ? REFUSALS[answer] : null);
  }

  /** Says it, unless Foglio itself is in front, where it stands on the page. */
  tell({ sendingId, printerId, kind, text }: Notice): void {
    if (!this.isOn() || document.hasFocus()) return;
    // Several that are ready at one printer take each other's place; and so do those of several windows.
    const tag = kind === 'ready' ? `ready at ${printerId}` : sendingId;
    const said = new Notification(this.printersNow.of(printerId)?.name ?? 'Foglio', { body: text, tag });
    said.onclick = () => {
      window.focus();
      void this.router.navigate(['/queue', sendingId]);
      said.close();
    };
  }
}

type Answer = NotificationPermission | 'none';

const permission = (): Answer => ('Notification' in window ? Notification.permission : 'none');

const askPermission = async (): Promise<Answer> =>
  'Notification' in window ? Notification.requestPermission() : 'none';

const REFUSALS: Record<Answer, string | null> = {
  granted: null,
  default: 'The browser was not told whether it may: try again, and answer its question.',
  denied: 'The browser does not allow it: allow notifications for this page in its settings.',
  none: 'This browser has no notifications.',
};
