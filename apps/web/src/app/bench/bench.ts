import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { sheetsAtFirst } from '@foglio/core';
import { MatButton } from '@angular/material/button';
import type { Caution } from '@foglio/api';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom } from 'rxjs';
import { PrintersNow } from '../news/printers-now';
import { BenchActions } from '../state/bench.actions';
import { SendingsNow } from '../news/sendings-now';
import { benchFeature, type BenchState } from '../state/bench.state';
import { OnBench } from '../state/on-bench';
import { sendable } from '../state/sendable';
import type { Seen } from '../state/seen';
import { Arrivals, withFile, type Attendant } from '../documents/arrivals';
import { titleOf } from '../documents/job-title';
import { BenchDialogs } from './bench-dialogs';
import { BenchKeys } from './bench-keys';
import { Lanes } from './lanes/lanes';
import { SentenceBar } from './sentence/sentence-bar';
import { SheetPanel } from './sheet/sheet-panel';
import { Shelf } from './shelf/shelf';
import { TallyBar } from './tally-bar';
import { WaysDrawer } from './ways/ways-drawer';

/** One job: sentence, shelf, lanes, sheet and tally, and the keys that work on all of them. */
@Component({
  selector: 'fo-bench',
  imports: [BenchKeys, Lanes, MatButton, SentenceBar, SheetPanel, Shelf, TallyBar, WaysDrawer],
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
      <main foBenchKeys (sendWanted)="send()" (turnWanted)="panel()?.turnOver()">
        <fo-sentence-bar (setupsWanted)="dialogs.takeSetup()" />
        <div class="regions">
          <fo-shelf />
          <div class="middle">
            <fo-lanes
              [waysOpen]="waysOpen()"
              (waysWanted)="waysOpen.set(!waysOpen())"
              (leafingWanted)="dialogs.leafThrough()"
            />
            @if (waysOpen()) {
              <fo-ways-drawer (closed)="waysOpen.set(false)" />
            }
          </div>
          <fo-sheet-panel (goTo)="goTo($event, false)" />
        </div>
        <fo-tally-bar (send)="send()" (save)="dialogs.save()" />
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
  providers: [BenchDialogs],
})
export class Bench {
  /** From the route. */
  readonly id = input.required<string>();
  protected readonly panel = viewChild(SheetPanel);
  protected readonly waysOpen = signal(false);
  private readonly store = inject(Store);
  protected readonly dialogs = inject(BenchDialogs);
  private readonly arrivals = inject(Arrivals);
  private readonly onBench = inject(OnBench);
  private readonly printersNow = inject(PrintersNow);
  private readonly destroyed = inject(DestroyRef);
  protected readonly bench = this.store.selectSignal(benchFeature.selectBenchState);

  constructor() {
    // When a job would be ready follows from what was sent before it.
    inject(SendingsNow).keepListed().pipe(takeUntilDestroyed()).subscribe();
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
        this.store.dispatch(BenchActions.ticketChanged({ ticket: withFile(state.ticket!, file, replaced) }));
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
    if (!(await this.dialogs.areConfirmed(cautions, sheetsAtFirst(seen.plan, seen.ticket)))) return;
    const confirmed = [...before, ...cautions.map(({ code }) => code)];
    this.store.dispatch(BenchActions.sendingWanted({ seen, confirmed }));
  }
}

const placeKey = (jobId: string): string => `place in ${jobId}`;

/** The sheet shown when the job was last on this screen. */
const placeIn = (jobId: string): number => Number(sessionStorage.getItem(placeKey(jobId)) ?? 1);
