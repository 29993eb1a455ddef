import { Injectable, signal } from '@angular/core';

const KEY = 'foglio own name';

/** As printers show who sent something (RFC 8011, 5.3.6), where a person has said; kept in this browser. */
@Injectable({ providedIn: 'root' })
export class OwnName {
  readonly name = signal(localStorage.getItem(KEY) ?? '');

  say(name: string): void {
    const told = name.trim();
    this.name.set(told);
    localStorage.setItem(KEY, told);
  }
}
