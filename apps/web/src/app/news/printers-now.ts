import { inject, Injectable, signal } from '@angular/core';
import type { PrinterRecord } from '@foglio/api';
import { filter, ignoreElements, merge, type Observable, Subject, tap } from 'rxjs';
import { Api, sayError } from '../api/api';
import { keepAsking } from './keep-asking';
import { News } from './news';

/** What a printer says of itself; when it was asked is not part of it. */
const saidBy = ({ askedAt: _, seenAt: __, ...said }: PrinterRecord): string => JSON.stringify(said);

/** The printers as they are now. Of two answers that cross, the one to the later question holds. */
@Injectable({ providedIn: 'root' })
export class PrintersNow {
  private readonly api = inject(Api);
  private readonly news = inject(News);
  private readonly askedAt = new Map<string, string>();
  private readonly changed = new Subject<PrinterRecord>();
  /** In their order; null before the list is known. */
  readonly all = signal<readonly PrinterRecord[] | null>(null);
  /** Why the printers could not be asked, the last time they were. */
  readonly away = signal<string | null>(null);
  /** Those known, be the list or not, by id. */
  private readonly known = signal<ReadonlyMap<string, PrinterRecord>>(new Map());

  constructor() {
    this.news.of('printer').subscribe(({ printer }) => this.see(printer));
    this.news.of('no printer').subscribe(({ id }) => this.forget(id));
  }

  of(id: string | null): PrinterRecord | null {
    return (id !== null && this.known().get(id)) || null;
  }

  /** An answer about a printer, whoever asked for it. */
  see(printer: PrinterRecord): void {
    const { id, askedAt } = printer;
    if ((this.askedAt.get(id) ?? '') > askedAt) return;
    this.askedAt.set(id, askedAt);
    const before = this.known().get(id);
    if (before && saidBy(before) === saidBy(printer) && isListed(this.all(), id)) return;
    // A profile that says the same stays the very same, so that nothing is planned anew for it.
    const isSame = JSON.stringify(before?.profile) === JSON.stringify(printer.profile);
    const now = before && isSame ? { ...printer, profile: before.profile } : printer;
    this.known.update((known) => new Map(known).set(id, now));
    this.all.update(
      (all) => all && (isListed(all, id) ? all.map((one) => (one.id === id ? now : one)) : [...all, now]),
    );
    this.changed.next(now);
  }

  forget(id: string): void {
    this.all.update((all) => all && all.filter((one) => one.id !== id));
  }

  /** Keeps the list, for as long as one is subscribed; of each printer known it tells what changes by itself. */
  keepListed(): Observable<unknown> {
    const failed = (error: unknown): void => this.away.set(sayError(error));
    return keepAsking(this.news.asking(), () => this.api.printers(), failed).pipe(tap((all) => this.list(all)));
  }

  /** A printer as it changes, for as long as one is subscribed; it is asked again after every new connection. */
  follow(id: string): Observable<PrinterRecord> {
    const asked = keepAsking(this.news.opened, () => this.api.printer(id)).pipe(
      tap((printer) => this.see(printer)),
      ignoreElements(),
    );
    return merge(this.changed.pipe(filter((printer) => printer.id === id)), asked);
  }

  /** All there are. What was heard of one since they were asked holds. */
  private list(printers: readonly PrinterRecord[]): void {
    this.away.set(null);
    this.all.update((all) =>
      printers.map((one) => all?.find(({ id }) => id === one.id) ?? this.known().get(one.id) ?? one),
    );
    for (const printer of printers) this.see(printer);
  }
}

const isListed = (all: readonly PrinterRecord[] | null, id: string): boolean =>
  !all || all.some((one) => one.id === id);
