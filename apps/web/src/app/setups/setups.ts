import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatListModule } from '@angular/material/list';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router, RouterLink } from '@angular/router';
import type { QueueRecord, PrinterRecord, SetupRecord } from '@foglio/api';
import { isMonochrome, type Plan, type Printer } from '@foglio/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { nameWithoutKind } from '@foglio/sentence';
import { Api, sayError } from '../api/api';
import { Lanes } from '../bench/lanes/lanes';
import { SentenceBar } from '../bench/sentence/sentence-bar';
import { FileDrop } from '../documents/file-drop';
import { saveText } from '../documents/save-text';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import { Changes } from '../state/changes';
import { SetupPicture } from './setup-picture';
import { SetupPlans } from './setup-plans';

/** Saved set-ups: what each does, and from which of them new jobs start. The chosen one is changed as a job is. */
@Component({
  selector: 'fo-setups',
  imports: [FileDrop, Lanes, MatButton, MatListModule, RouterLink, SentenceBar, SetupPicture],
  templateUrl: './setups.html',
  styleUrl: './setups.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'onKey($event)' },
})
export class Setups {
  /** From the route; without it the house set-up is shown. */
  readonly id = input<string>();
  private readonly api = inject(Api);
  private readonly changes = inject(Changes);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly notices = inject(MatSnackBar);
  private readonly plans = inject(SetupPlans);
  private readonly printers = signal<readonly PrinterRecord[]>([]);
  private readonly listed = signal<readonly SetupRecord[] | null>(null);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  /** Where other programs can print to. */
  private readonly queues = signal<readonly QueueRecord[]>([]);
  protected readonly message = signal<string | null>(null);
  protected readonly pictures = signal<ReadonlyMap<string, Plan | null>>(new Map());

  /** The one on the screen is listed as it is changed. */
  protected readonly setups = computed(() => {
    const changed = this.bench().setups.find(({ id }) => id === this.bench().setupId);
    return this.listed()?.map((one) => (one.id === changed?.id ? { ...one, ticket: changed.ticket } : one)) ?? null;
  });
  protected readonly shown = computed(() => {
    const all = this.setups() ?? [];
    return (this.id() ? all.find(({ id }) => id === this.id()) : all[0]) ?? null;
  });
  protected readonly isOpen = computed(
    () => this.bench().setupId !== null && this.bench().setupId === this.shown()?.id,
  );
  protected readonly state = computed(() => {
    const { saving, trouble, message } = this.bench();
    if (trouble) return `${trouble.problem}; ${trouble.repair}`;
    if (saving === 'failed' || saving === 'conflict') return `Not saved. ${message ?? ''}`;
    return saving === 'unsaved' ? 'Saving' : 'Saved';
  });
  /** Another window was faster: how it stands has to be looked at before it can be changed here. */
  protected readonly isOvertaken = computed(() => this.bench().saving === 'conflict');

  constructor() {
    void this.load();
    effect(() => {
      const shown = this.shown();
      const printer = shown && this.printerOf(shown);
      // Only another one is opened anew: its own changes come from here.
      if (!shown || !printer || untracked(() => this.bench().setupId) === shown.id) return;
      untracked(() => {
        const setups = this.listed() ?? [];
        this.store.dispatch(BenchActions.setupOpened({ setup: shown, printer, setups }));
      });
    });
    effect(() => {
      const all = this.setups();
      if (!all || this.printers().length === 0) return;
      void this.plans.ofAll(all, (setup) => this.printerOf(setup)!.profile).then((plans) => this.pictures.set(plans));
    });
  }

  /** The set-up as the server has it. */
  protected async reload(): Promise<void> {
    await this.load();
    const setup = this.shown();
    const printer = setup && this.printerOf(setup);
    if (setup && printer)
      this.store.dispatch(BenchActions.setupOpened({ setup, printer, setups: this.listed() ?? [] }));
  }

  protected printerOf({ printerId }: SetupRecord): PrinterRecord | undefined {
    return this.printers().find(({ id }) => id === printerId) ?? this.printers()[0];
  }

  protected profileOf(setup: SetupRecord): Printer {
    return this.printerOf(setup)!.profile;
  }

  protected inGrey = ({ ticket }: SetupRecord): boolean => isMonochrome(ticket);

  protected sayStart(setup: SetupRecord): string {
    if (setup.starts === 'house') return 'House set-up: new jobs start from it';
    if (setup.starts === 'printer') return `New jobs for ${this.printerOf(setup)?.name} start from it`;
    return `for ${this.printerOf(setup)?.name ?? 'any printer'}`;
  }

  protected async rename(setup: SetupRecord, name: string): Promise<void> {
    if (name.trim() === '' || name.trim() === setup.name) return;
    await this.tell(async () => {
      await firstValueFrom(this.changes.make({ kind: 'set-up', id: setup.id }, { name }));
    });
  }

  protected async start(setup: SetupRecord, starts: SetupRecord['starts']): Promise<void> {
    const printerId = setup.printerId ?? this.printerOf(setup)?.id ?? null;
    await this.tell(async () => {
      await firstValueFrom(this.changes.make({ kind: 'set-up', id: setup.id }, { starts, printerId }));
    });
  }

  /** Whether other programs can print to it. */
  protected async offer({ id }: SetupRecord, box: HTMLInputElement): Promise<void> {
    const offered = box.checked;
    await this.tell(async () => {
      await firstValueFrom(this.changes.make({ kind: 'set-up', id }, { offered }));
    });
    // Of the set-up that is shown by then: a binding whose value stays the same leaves what a person chose.
    box.checked = (this.shown()?.queue ?? null) !== null;
  }

  protected addressOf({ id }: SetupRecord): string | null {
    return this.queues().find(({ setupId }) => setupId === id)?.address ?? null;
  }

  protected async duplicate({ name, ticket, printerId }: SetupRecord): Promise<void> {
    const names = (this.listed() ?? []).map((one) => one.name.toLowerCase());
    let copy = `${name}, copy`;
    for (let number = 2; names.includes(copy.toLowerCase()); number += 1) copy = `${name}, copy ${number}`;
    await this.keep(copy, { ticket, printerId });
  }

  protected export({ name, ticket }: SetupRecord): void {
    saveText(`${name}.json`, JSON.stringify(ticket, null, 2));
  }

  protected async import(files: readonly File[]): Promise<void> {
    for (const file of files) {
      let ticket: SetupRecord['ticket'];
      try {
        ticket = JSON.parse(await file.text()) as SetupRecord['ticket'];
      } catch (error) {
        this.message.set(
          `${file.name}: this is not JSON (${(error as Error).message}); drop a set-up that was saved here.`,
        );
        continue;
      }
      await this.keep(nameWithoutKind(file.name), { ticket, printerId: this.printers()[0]?.id ?? null }, file.name);
    }
  }

  /** Removed at once, and brought back by one press while the notice stands. */
  protected async remove(setup: SetupRecord): Promise<void> {
    await this.tell(async () => {
      await firstValueFrom(this.api.removeSetup(setup.id));
      const notice = this.notices.open(`Removed “${setup.name}”`, 'Bring it back', { duration: 10_000 });
      notice.onAction().subscribe(() => void this.keep(setup.name, setup, setup.name, setup.starts));
      await this.router.navigate(['/set-ups']);
    });
  }

  private async keep(
    name: string,
    { ticket, printerId }: Pick<SetupRecord, 'ticket' | 'printerId'>,
    from = name,
    starts: SetupRecord['starts'] = null,
  ): Promise<void> {
    await this.tell(async () => {
      const saved = await firstValueFrom(this.api.saveSetup({ name, ticket, printerId }));
      if (starts !== null) await firstValueFrom(this.api.changeSetup(saved.id, { starts }));
      await this.load();
      await this.router.navigate(['/set-ups', saved.id]);
    }, from);
  }

  private async tell(work: () => Promise<void>, of?: string): Promise<void> {
    this.message.set(null);
    try {
      await work();
    } catch (error) {
      this.message.set(of === undefined ? sayError(error) : `${of}: ${sayError(error)}`);
    }
    await this.load();
  }

  private async load(): Promise<void> {
    try {
      this.printers.set(await firstValueFrom(this.api.printers()));
      const setups = await firstValueFrom(this.api.setups());
      this.queues.set(await firstValueFrom(this.api.queues()));
      setups.forEach(({ id, revision, queue, ...known }) =>
        this.changes.begin({ kind: 'set-up', id }, revision, { ...known, offered: queue !== null }),
      );
      this.listed.set(setups);
      this.store.dispatch(BenchActions.setupsSeen({ setups }));
    } catch (error) {
      this.listed.set([]);
      this.message.set(sayError(error));
    }
  }

  protected onKey(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey;
    if (event.defaultPrevented || !command || event.key.toLowerCase() !== 'z') return;
    if (/^(INPUT|TEXTAREA|SELECT)$/.test((event.target as HTMLElement).tagName)) return;
    event.preventDefault();
    this.store.dispatch(event.shiftKey ? BenchActions.redone() : BenchActions.undone());
  }
}
