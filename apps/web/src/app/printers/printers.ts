import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatListModule } from '@angular/material/list';
import { Router, RouterLink } from '@angular/router';
import { merge, type Observable } from 'rxjs';
import { Api, certificateIn, problemCode, sayError, type PanelWork } from '../api/api';
import type { PrinterAccess, PrinterRecord } from '@foglio/api';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { outputStack } from '../stack/stack-source';
import { StackViewer } from '../stack/stack-viewer';
import { AccessForm } from './access-form';
import { Cabinet, type PaperSaid } from './cabinet';
import { FrontPanel } from './front-panel';
import { NearbyPrinters } from './nearby-printers';
import { PrinterWorks } from './printer-works';
import { listAbilities, sayAbilities, sayState, sayWell } from './printer-words';
import { Supplies } from './supplies';

/** A printer that is to be taken up. */
interface Asked {
  readonly uri: string;
  readonly access: PrinterAccess;
  readonly done?: () => void;
}

/** One that wants more than its address. */
interface Wanting extends Asked {
  /** That it shows; null: it wants a name and a password. */
  readonly certificate: PrinterRecord['certificate'];
}

/** The printers: what lies in their trays, how they stand, and what they can do. */
@Component({
  selector: 'fo-printers',
  imports: [
    AccessForm,
    Cabinet,
    FrontPanel,
    MatButton,
    MatFormField,
    MatInput,
    MatListModule,
    NearbyPrinters,
    RouterLink,
    StackViewer,
    Supplies,
  ],
  templateUrl: './printers.html',
  styleUrl: './printers.scss',
  providers: [PrinterWorks],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Printers {
  /** From the route; without it the first is shown. */
  readonly id = input<string>();
  private readonly api = inject(Api);
  private readonly news = inject(News);
  private readonly printersNow = inject(PrintersNow);
  protected readonly printers = this.printersNow.all;
  protected readonly away = this.printersNow.away;
  protected readonly works = inject(PrinterWorks);
  /** Why what was done last was not taken. */
  protected readonly message = this.works.message;
  private readonly router = inject(Router);
  /** Whether a printer is being asked at an address just given, and why it was not taken. */
  protected readonly adding = signal(false);
  protected readonly refused = signal<string | null>(null);
  /** What a printer at an address just given wants beside. */
  protected readonly wanting = signal<Wanting | null>(null);
  protected readonly shown = computed(() => {
    const all = this.printers() ?? [];
    return all.find(({ id }) => id === this.id()) ?? all[0] ?? null;
  });
  protected readonly abilities = computed(() => listAbilities(this.shown()!.profile));
  protected readonly addresses = computed(() => (this.printers() ?? []).map(({ uri }) => uri));
  /** Whether the output is shown rather than the trays. */
  protected readonly atOutput = signal(false);
  /** How often something changed: what lies in the output is asked for as often. */
  protected readonly asked = signal(0);
  protected readonly outputOf = outputStack;
  private readonly destroyed = inject(DestroyRef);
  protected readonly sayState = sayState;
  protected readonly sayWell = sayWell;
  protected readonly sayAbilities = sayAbilities;

  constructor() {
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    // What lies in a printer's output changes with what it prints, and with what is done at it.
    merge(toObservable(this.printers), toObservable(this.works.done), this.news.of('sending'))
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.asked.update((times) => times + 1));
  }

  protected addWritten(address: HTMLInputElement): void {
    this.add({ uri: address.value, access: {}, done: () => (address.value = '') });
  }

  /** What more a printer wants is said over what was said before. */
  protected say(wanting: Wanting, access: PrinterAccess): void {
    this.add({ ...wanting, access: { ...wanting.access, ...access } });
  }

  protected add(asked: Asked): void {
    if (this.adding()) return;
    this.adding.set(true);
    this.refused.set(null);
    // Whoever has gone elsewhere meanwhile is not called back: the list hears of it by news.
    this.whileHere(this.api.addPrinter(asked.uri, asked.access)).subscribe({
      next: (printer) => {
        this.adding.set(false);
        this.wanting.set(null);
        asked.done?.();
        this.printersNow.see(printer);
        void this.router.navigate(['/printers', printer.id]);
      },
      error: (error: unknown) => {
        this.adding.set(false);
        this.refused.set(sayError(error));
        const code = problemCode(error);
        const wants = code === 'login-wanted' || code === 'certificate-unknown';
        this.wanting.set(wants ? { ...asked, certificate: certificateIn(error) } : null);
      },
    });
  }

  private whileHere<T>(answer: Observable<T>): Observable<T> {
    return answer.pipe(takeUntilDestroyed(this.destroyed));
  }

  protected letIn({ id }: PrinterRecord, access: PrinterAccess): void {
    this.works.do(this.api.letIn(id, access));
  }

  protected remove({ id }: PrinterRecord): void {
    this.whileHere(this.api.removePrinter(id)).subscribe({
      next: () => {
        this.printersNow.forget(id);
        void this.router.navigate(['/printers']);
      },
      error: (error: unknown) => this.message.set(sayError(error)),
    });
  }

  protected describe({ id }: PrinterRecord, { tray, said }: PaperSaid): void {
    this.works.do(this.api.describePaper(id, tray, said));
  }

  protected takeOutput(printer: PrinterRecord): void {
    this.work(printer, { name: 'takeOutput', body: { taken: true } });
  }

  protected work({ id }: PrinterRecord, what: PanelWork): void {
    this.works.do(this.api.atPanel(id, what));
  }
}
