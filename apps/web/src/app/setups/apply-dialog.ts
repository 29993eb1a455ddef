import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import {
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import type { SetupRecord } from '@foglio/api';
import {
  applySetup,
  isMonochrome,
  openSelections,
  SelectionError,
  selectPages,
  sayPages,
  withSelection,
  type OpenSelection,
  type Plan,
  type Ticket,
} from '@foglio/core';
import { Store } from '@ngrx/store';
import { combineLatest, firstValueFrom, of, switchMap } from 'rxjs';
import { sayRoute } from '@foglio/sentence';
import { Api, sayError } from '../api/api';
import { sayChange, sayOutcome } from '../bench/sentence/outcome-words';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import { Planner } from '../workers/planner';
import { changesBetween } from './changes';
import { SetupPicture } from './setup-picture';
import { SetupPlans } from './setup-plans';

/** A selection that is asked for: pages of one document alone, named for another. */
interface Asked extends OpenSelection {
  readonly label: string;
  readonly value: string;
  readonly error: string | null;
  readonly said: string;
}

/** Has a saved set-up taken for the job on the Bench, with what it changes before it is taken. Closes with "save" to save one. */
@Component({
  selector: 'fo-apply-dialog',
  imports: [
    MatButton,
    MatDialogActions,
    MatDialogClose,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    SetupPicture,
  ],
  templateUrl: './apply-dialog.html',
  styleUrl: './apply-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ApplyDialog {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly planner = inject(Planner);
  private readonly plans = inject(SetupPlans);
  private readonly dialog = inject<MatDialogRef<ApplyDialog, 'save'>>(MatDialogRef);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly situation = this.store.selectSignal(benchFeature.selectSituation);
  protected readonly printer = computed(() => this.bench().printer!);
  protected readonly setups = signal<readonly SetupRecord[] | null>(null);
  protected readonly message = signal<string | null>(null);
  protected readonly chosen = signal<SetupRecord | null>(null);
  protected readonly pictures = signal<ReadonlyMap<string, Plan | null>>(new Map());
  /** What was typed in the place of selections that are asked for; by "routes 0". */
  private readonly answers = signal<Readonly<Record<string, string>>>({});
  /** The printer that the set-up was made for, where it is another. */
  protected readonly elsewhere = signal<string | null>(null);
  protected readonly thither = signal(true);

  private readonly files = computed(() => [...new Map(this.bench().documents.map((one) => [one.id, one])).values()]);

  /** The ticket that the chosen set-up makes of the job's files. */
  private readonly applied = computed<Ticket | null>(() => {
    const setup = this.chosen();
    if (!setup) return null;
    const ticket = openSelections(setup.ticket).reduce(
      (one, open) => withSelection(one, open, this.answers()[keyOf(open)] ?? open.text),
      setup.ticket,
    );
    return applySetup(ticket, this.files(), this.bench().ticket!.title);
  });

  protected readonly asked = computed<readonly Asked[]>(() => {
    const setup = this.chosen();
    if (!setup) return [];
    return openSelections(setup.ticket).map((open) => {
      const value = this.answers()[keyOf(open)] ?? open.text;
      const { error, said } = this.read(setup.ticket, open, value);
      return { ...open, label: this.labelOf(setup.ticket, open), value, error, said };
    });
  });

  protected readonly changes = computed(() => {
    const [now, ticket] = [this.situation(), this.applied()];
    if (!now || !ticket) return [];
    const documents = ticket.documents.flatMap(({ file }) => this.bench().files[file] ?? []);
    return changesBetween(now, { ...now, ticket, documents });
  });

  /** What it would come to, and how that differs from now. */
  protected readonly outcome = toSignal(
    toObservable(this.applied).pipe(
      switchMap((ticket) => {
        const { ticket: now, printer } = this.bench();
        if (!ticket || !now || !printer) return of('');
        const documents = ticket.documents.flatMap(({ file }) => this.bench().files[file] ?? []);
        const ask = (one: Ticket, facts = documents) =>
          this.planner.ask<'outcome'>({ kind: 'outcome', patch: {} }, one, facts, printer.profile);
        return combineLatest([ask(ticket), ask(now, [...this.bench().documents])]).pipe(
          switchMap(([then, before]) => {
            if (!then) return of('It cannot be printed so yet.');
            return of(before ? `${sayOutcome(then)} (${sayChange(then, before)})` : sayOutcome(then));
          }),
        );
      }),
    ),
    { initialValue: '' },
  );

  protected readonly isReady = computed(
    () => this.chosen() !== null && this.asked().every(({ error }) => error === null),
  );
  protected readonly inGrey = ({ ticket }: SetupRecord): boolean => isMonochrome(ticket);

  constructor() {
    void this.load();
  }

  protected choose(setup: SetupRecord): void {
    this.answers.set({});
    this.chosen.set(setup);
    const { printerId } = setup;
    this.elsewhere.set(printerId !== null && printerId !== this.printer().id ? printerId : null);
  }

  protected type({ of: what, at }: OpenSelection, text: string): void {
    this.answers.update((all) => ({ ...all, [keyOf({ of: what, at })]: text }));
  }

  protected async take(): Promise<void> {
    const [ticket, elsewhere] = [this.applied(), this.elsewhere()];
    if (!ticket) return;
    this.store.dispatch(BenchActions.ticketChanged({ ticket }));
    if (elsewhere !== null && this.thither()) {
      try {
        const printer = await firstValueFrom(this.api.printer(elsewhere));
        this.store.dispatch(BenchActions.printerWanted({ printer }));
      } catch (error) {
        this.store.dispatch(BenchActions.refused({ message: sayError(error) }));
      }
    }
    this.dialog.close();
  }

  private labelOf(setup: Ticket, { of: what, at }: OpenSelection): string {
    if (what === 'documents') return 'Which pages of the file';
    // In the place of the pages that are asked for.
    const route = { ...setup.routes[at]!, pages: '?' };
    return `Which ${sayRoute(route, { ...this.situation()!, ticket: setup, documents: [] }).replace('pages “?”', 'pages')}`;
  }

  /** The text read against the first file, which is the one that a set-up is mostly applied to. */
  private read(setup: Ticket, { of: what, at }: OpenSelection, text: string): Pick<Asked, 'error' | 'said'> {
    const [facts] = this.files();
    const { rotate, numbering } = setup.documents[what === 'documents' ? at : 0]!;
    if (!facts) return { error: null, said: '' };
    try {
      const pages = selectPages(text, { facts, rotate, numbering, forgiving: false });
      return { error: null, said: sayPages(pages) };
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
      return { error: `${error.message}; expected ${error.expected}`, said: '' };
    }
  }

  private async load(): Promise<void> {
    try {
      const setups = await firstValueFrom(this.api.setups());
      this.setups.set(setups);
      this.pictures.set(await this.plans.ofAll(setups, () => this.printer().profile));
    } catch (error) {
      this.setups.set([]);
      this.message.set(sayError(error));
    }
  }
}

const keyOf = ({ of: what, at }: Pick<OpenSelection, 'of' | 'at'>): string => `${what} ${at}`;
