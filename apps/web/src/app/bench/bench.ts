import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatButton } from '@angular/material/button';
import { MatSnackBar } from '@angular/material/snack-bar';
import { addressOf, OPERATIONS, type Caution, type SetupRecord } from '@foglio/api';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom, take } from 'rxjs';
import { nameWithoutKind } from '@foglio/sentence';
import { PrintersNow } from '../news/printers-now';
import { BenchActions } from '../state/bench.actions';
import { benchFeature, type BenchState } from '../state/bench.state';
import { OnBench } from '../state/on-bench';
import { sendable } from '../state/sendable';
import type { Seen } from '../state/seen';
import { Arrivals, withFile, type Attendant } from '../documents/arrivals';
import { titleOf } from '../documents/job-title';
import { ConfirmDialog, type ConfirmData } from './confirm-dialog';
import { saveText } from '../documents/save-text';
import { writeSetup } from '../documents/setup-file';
import { KeysDialog } from './keys-dialog';
import { Lanes } from './lanes/lanes';
import type { LeafData } from './leafing/leaf-dialog';
import { pageSourceOf } from './page-source';
import { SaveDialog, type SaveData, type Saving } from './save-dialog';
import { SentenceBar } from './sentence/sentence-bar';
import { firstShown } from './shown-sheets';
import { SheetPanel } from './sheet/sheet-panel';
import { Shelf } from './shelf/shelf';
import { TallyBar } from './tally-bar';
import { WaysDrawer } from './ways/ways-drawer';

/** One job: sentence, shelf, lanes, sheet and tally, and the keys that work on all of them. */
@Component({
  selector: 'fo-bench',
  imports: [Lanes, MatButton, SentenceBar, SheetPanel, Shelf, TallyBar, WaysDrawer],
  template: `
    @if (bench().loadError; as message) {
      <main class="state">
        <p role="alert">{{ message }}</p>
        <button mat-flat-button (click)="reload()">Try again</button>
      </main>
    } @else if (bench().ticket) {
      @if (bench().message; as message) {
        <p class="message" role="alert">
          {{ message }}
          @if (bench().saving === 'conflict') {
            <button mat-button (click)="reload()">Show how it stands now</button>
          }
        </p>
      }
      <main>
        <fo-sentence-bar (setupsWanted)="takeSetup()" />
        <div class="regions">
          <fo-shelf />
          <div class="middle">
            <fo-lanes
              [waysOpen]="waysOpen()"
              (waysWanted)="waysOpen.set(!waysOpen())"
              (leafingWanted)="leafThrough()"
            />
            @if (waysOpen()) {
              <fo-ways-drawer (closed)="waysOpen.set(false)" />
            }
          </div>
          <fo-sheet-panel (goTo)="goTo($event, false)" />
        </div>
        <fo-tally-bar (send)="send()" (save)="save()" />
      </main>
    } @else {
      <main class="state"><p role="status">Opening the job</p></main>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      flex-direction: column;
      min-height: 0;
    }
    main {
      display: flex;
      flex: 1;
      flex-direction: column;
      min-height: 0;
    }
    .regions {
      display: grid;
      flex: 1;
      grid-template: minmax(0, 1fr) / 244px minmax(0, 1fr) clamp(316px, 24vw, 620px);
      min-height: 0;
    }
    .middle {
      display: grid;
      position: relative;
      min-width: 0;
      min-height: 0;
    }
    fo-ways-drawer {
      position: absolute;
      inset: 44px 0 0;
      z-index: 5;
    }
    @media (width < 760px) {
      main {
        overflow: auto;
      }
      .regions {
        display: flex;
        flex: none;
        flex-direction: column;
      }
      fo-shelf {
        height: 400px;
      }
      .middle {
        height: 420px;
      }
      fo-tally-bar {
        position: sticky;
        bottom: 0;
        z-index: 6;
      }
    }
    .state {
      gap: 16px;
      align-items: center;
      justify-content: center;
      color: var(--soft);
    }
    .message {
      flex: none;
      padding: 8px 20px;
      border-left: 4px solid var(--stop);
      background: var(--stop-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'onKey($event)' },
})
export class Bench {
  /** From the route. */
  readonly id = input.required<string>();
  private readonly panel = viewChild(SheetPanel);
  protected readonly waysOpen = signal(false);
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly notices = inject(MatSnackBar);
  private readonly injector = inject(Injector);
  private readonly arrivals = inject(Arrivals);
  private readonly onBench = inject(OnBench);
  private readonly printersNow = inject(PrintersNow);
  private readonly destroyed = inject(DestroyRef);
  protected readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly routable = this.store.selectSignal(benchFeature.selectRoutable);

  constructor() {
    // What the server knows of and the page did not: paper taken out a moment ago, pages still being read.
    inject(Actions)
      .pipe(ofType(BenchActions.cautionsFound), takeUntilDestroyed())
      .subscribe(({ cautions, seen, confirmed }) => void this.sendOnceConfirmed(cautions, seen, confirmed));
    effect(() => this.keepPlace());
    effect(() => this.tellOnBar());
    effect((onCleanup) => {
      const jobId = this.id();
      untracked(() => this.store.dispatch(BenchActions.opened({ jobId, sheet: placeIn(jobId) })));
      onCleanup(this.arrivals.attend(jobId, this.attendantOf(jobId)));
    });
  }

  /** What arrives while the job is being loaded waits for it. */
  private attendantOf(jobId: string): Attendant {
    const left = new Promise<null>((resolve) => this.destroyed.onDestroy(() => resolve(null)));
    const isHere = ({ jobId: opened, ticket }: BenchState): boolean => opened === jobId && ticket !== null;
    const opened = this.store.select(benchFeature.selectBenchState).pipe(filter(isHere));
    return {
      take: async (file, replaced) => {
        const state = await Promise.race([firstValueFrom(opened, { defaultValue: null }), left]);
        if (state === null) return false;
        this.store.dispatch(BenchActions.fileTaken({ file }));
        this.store.dispatch(BenchActions.ticketChanged({ ticket: withFile(state.ticket!, file.id, replaced) }));
        return true;
      },
      refuse: (message) => this.store.dispatch(BenchActions.refused({ message })),
      reload: () => this.reload(),
    };
  }

  private tellOnBar(): void {
    const { jobId, ticket, documents, printer } = this.bench();
    if (jobId === null || !ticket) return;
    this.onBench.job.set({ id: jobId, title: titleOf(ticket, documents) });
    if (printer) this.printersNow.see(printer);
    this.onBench.printer.set(printer?.id ?? null);
  }

  /** A reload comes back to the same sheet. */
  private keepPlace(): void {
    const { jobId, sheet, plan } = this.bench();
    if (jobId !== null && plan) sessionStorage.setItem(placeKey(jobId), String(sheet));
  }

  protected reload(): void {
    this.store.dispatch(BenchActions.opened({ jobId: this.id(), sheet: placeIn(this.id()) }));
  }

  protected goTo(sheet: number, extend: boolean): void {
    this.store.dispatch(BenchActions.sheetChosen({ sheet, extend }));
  }

  /** Sends what is on the screen now, after its cautions have been seen. */
  protected async send(): Promise<void> {
    if (this.bench().sending) return;
    const { seen, why } = sendable(this.bench());
    if (!seen) return this.store.dispatch(BenchActions.refused({ message: why }));
    const cautions = seen.plan.checks.filter(({ level }) => level === 'caution');
    await this.sendOnceConfirmed(cautions, seen, []);
  }

  private async sendOnceConfirmed(cautions: readonly Caution[], seen: Seen, before: readonly string[]): Promise<void> {
    if (cautions.length > 0) {
      const data: ConfirmData = { cautions, sheets: seen.plan.tally.sheets };
      const dialog = this.dialog.open<ConfirmDialog, ConfirmData, boolean>(ConfirmDialog, { data, width: '520px' });
      const agreed = await firstValueFrom(dialog.afterClosed());
      if (agreed !== true) return;
    }
    const confirmed = [...before, ...cautions.map(({ code }) => code)];
    this.store.dispatch(BenchActions.sendingWanted({ seen, confirmed }));
  }

  /** Asks what to save; the server imposes the ticket it has, so what is still on its way is waited for. */
  protected async save(): Promise<void> {
    const { ticket, documents } = this.bench();
    if (!ticket) return;
    const data: SaveData = { name: ticket.title || nameWithoutKind(documents[0]?.name ?? 'Job'), sets: ticket.copies };
    const dialog = this.dialog.open<SaveDialog, SaveData, Saving>(SaveDialog, { data, width: '480px' });
    const saving = await firstValueFrom(dialog.afterClosed());
    if (saving?.what === 'set-up') return saveText(`${saving.name}.json`, writeSetup(ticket, documents));
    if (saving) this.download(saving.what === 'pdf' ? 'imposedPdf' : 'sheetList', saving.name);
  }

  /** Takes a saved set-up, or saves what is set now as one. */
  protected async takeSetup(): Promise<void> {
    const { ApplyDialog } = await import('../setups/apply-dialog');
    // They change what is open here.
    const { injector } = this;
    const apply = this.dialog.open<unknown, unknown, 'save'>(ApplyDialog, {
      width: '860px',
      maxWidth: '96vw',
      injector,
    });
    if ((await firstValueFrom(apply.afterClosed())) !== 'save') return;
    const { KeepDialog } = await import('../setups/keep-dialog');
    const keep = this.dialog.open<unknown, unknown, SetupRecord>(KeepDialog, { width: '480px', injector });
    const saved = await firstValueFrom(keep.afterClosed());
    if (saved) this.notices.open(`Saved as “${saved.name}”`, undefined, { duration: 5_000 });
  }

  private download(what: 'imposedPdf' | 'sheetList', name: string): void {
    this.store
      .select(benchFeature.selectBenchState)
      .pipe(
        filter(({ saving }) => saving !== 'unsaved'),
        take(1),
      )
      .subscribe(({ jobId, saving }) => {
        if (saving !== 'saved' || jobId === null) return;
        window.location.assign(`${addressOf(OPERATIONS[what], { id: jobId })}?name=${encodeURIComponent(name)}`);
      });
  }

  /** Loaded when it is first wanted. */
  protected async leafThrough(): Promise<void> {
    const { plan, ticket, printer, trouble } = this.bench();
    if (!plan || !ticket || !printer || trouble) return;
    const { LeafDialog } = await import('./leafing/leaf-dialog');
    const data: LeafData = { plan, ticket, printer: printer.profile, source: pageSourceOf(this.bench()) };
    this.dialog.open(LeafDialog, { data, width: '1040px', maxWidth: '96vw' });
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.defaultPrevented || this.dialog.openDialogs.length > 0) return;
    const target = event.target as HTMLElement;
    const typing = /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key === 'Enter') return this.take(event, () => void this.send());
    if (typing || target.closest('.cdk-overlay-container')) return;
    if (command && event.key.toLowerCase() === 'z') {
      const action = event.shiftKey ? BenchActions.redone() : BenchActions.undone();
      return this.take(event, () => this.store.dispatch(action));
    }
    if (command || event.altKey) return;
    if (/^[0-9]$/.test(event.key)) return this.take(event, () => this.giveTray(Number(event.key)));
    if (event.key === 'p') return this.take(event, () => void this.leafThrough());
    if (event.key === 'f') return this.take(event, () => this.panel()?.turnOver());
    if (event.key === '/') return this.take(event, () => document.querySelector<HTMLElement>('#selection')?.focus());
    if (event.key === '?') return this.take(event, () => void this.dialog.open(KeysDialog, { width: '480px' }));
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step !== 0 && !target.closest('mat-radio-group')) this.take(event, () => this.step(step, event.shiftKey));
  }

  private take(event: KeyboardEvent, act: () => void): void {
    event.preventDefault();
    act();
  }

  private giveTray(number: number): void {
    const tray = number === 0 ? null : this.bench().printer?.profile.trays[number - 1]?.id;
    if (tray === undefined) return;
    this.store.dispatch(BenchActions.pagesRouted({ pages: this.routable(), change: { tray } }));
  }

  private step(by: number, extend: boolean): void {
    const { sheet, plan } = this.bench();
    const target = sheet + by;
    if (!plan || target < firstShown(plan) || target > plan.sheets.length) return;
    this.goTo(target, extend);
    const focused = document.activeElement;
    if (focused?.classList.contains('sheet')) {
      setTimeout(() => document.querySelector<HTMLElement>(`[data-sheet="${target}"]`)?.focus());
    }
  }
}

const placeKey = (jobId: string): string => `place in ${jobId}`;

/** The sheet shown when the job was last on this screen. */
const placeIn = (jobId: string): number => Number(sessionStorage.getItem(placeKey(jobId)) ?? 1);
