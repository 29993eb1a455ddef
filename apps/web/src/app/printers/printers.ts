import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { catchError, concatMap, exhaustMap, of, Subject, takeUntil, timer, type Observable } from 'rxjs';
import { Api, sayError } from '../api/api';
import type { PrinterRecord } from '@foglio/api';
import { outputStack } from '../stack/stack-source';
import { StackViewer } from '../stack/stack-viewer';
import { Cabinet, type PaperSaid } from './cabinet';
import { FrontPanel, type PanelWork } from './front-panel';
import { listAbilities, sayAbilities, sayState } from './printer-words';

/** What lies in the trays changes while one looks. */
const ASK_EVERY_MS = 2_000;

/** The printers: what lies in their trays, how they stand, and what they can do. */
@Component({
  selector: 'fo-printers',
  imports: [Cabinet, FrontPanel, MatButton, RouterLink, StackViewer],
  templateUrl: './printers.html',
  styleUrl: './printers.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Printers {
  /** From the route; without it the first is shown. */
  readonly id = input<string>();
  private readonly api = inject(Api);
  protected readonly printers = signal<readonly PrinterRecord[] | null>(null);
  /** Why the printers could not be asked, the last time they were. */
  protected readonly away = signal<string | null>(null);
  /** Why what was done last was not taken. */
  protected readonly message = signal<string | null>(null);
  private readonly router = inject(Router);
  /** Whether a printer is being asked at an address just given, and why it was not taken. */
  protected readonly adding = signal(false);
  protected readonly refused = signal<string | null>(null);
  protected readonly shown = computed(() => {
    const all = this.printers() ?? [];
    return all.find(({ id }) => id === this.id()) ?? all[0] ?? null;
  });
  protected readonly abilities = computed(() => listAbilities(this.shown()!.profile));
  /** Whether the output is shown rather than the trays. */
  protected readonly atOutput = signal(false);
  /** How often the printers have been asked: what lies in the output is asked for as often. */
  protected readonly asked = signal(0);
  protected readonly outputOf = outputStack;
  protected readonly sayState = sayState;
  protected readonly sayAbilities = sayAbilities;

  /** What is done at a printer, in the order it was done: the last answer is the one that holds. */
  private readonly works = new Subject<Observable<PrinterRecord>>();

  constructor() {
    timer(0, ASK_EVERY_MS)
      .pipe(
        // An answer on its way while something is done tells of the time before.
        exhaustMap(() => orSaid(this.api.printers()).pipe(takeUntil(this.works))),
        takeUntilDestroyed(),
      )
      .subscribe((answer) => {
        this.away.set(typeof answer === 'string' ? answer : null);
        if (typeof answer !== 'string') this.show(answer);
      });
    this.works.pipe(concatMap(orSaid)).subscribe((answer) => {
      this.message.set(typeof answer === 'string' ? answer : null);
      if (typeof answer !== 'string') {
        this.show((this.printers() ?? []).map((one) => (one.id === answer.id ? answer : one)));
      }
    });
    // Not cut off: what was done before one leaves is done to its end.
    inject(DestroyRef).onDestroy(() => this.works.complete());
  }

  private show(printers: readonly PrinterRecord[]): void {
    this.printers.set(printers);
    this.asked.update((times) => times + 1);
  }

  protected add(address: HTMLInputElement): void {
    this.adding.set(true);
    this.refused.set(null);
    this.api.addPrinter(address.value).subscribe({
      next: (printer) => {
        this.adding.set(false);
        address.value = '';
        this.printers.update((all) => [...(all ?? []), printer]);
        void this.router.navigate(['/printers', printer.id]);
      },
      error: (error: unknown) => {
        this.adding.set(false);
        this.refused.set(sayError(error));
      },
    });
  }

  protected remove({ id }: PrinterRecord): void {
    this.api.removePrinter(id).subscribe({
      next: () => {
        this.printers.update((all) => all?.filter((one) => one.id !== id) ?? null);
        void this.router.navigate(['/printers']);
      },
      error: (error: unknown) => this.message.set(sayError(error)),
    });
  }

  protected describe({ id }: PrinterRecord, { tray, said }: PaperSaid): void {
    this.works.next(this.api.describePaper(id, tray, said));
  }

  protected takeOutput(printer: PrinterRecord): void {
    this.work(printer, { part: 'output', what: { taken: true } });
  }

  protected work({ id }: PrinterRecord, { part, what }: PanelWork): void {
    this.works.next(this.api.workPanel(id, part, what));
  }
}

/** An answer, or what to say where there is none. */
const orSaid = <T>(answer: Observable<T>): Observable<T | string> =>
  answer.pipe(catchError((error: unknown) => of(sayError(error))));
