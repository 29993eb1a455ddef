import { Directive, inject, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import { BenchDialogs } from './bench-dialogs';
import { firstShown, sheetAt } from './shown-sheets';

/** The keys that work on the whole Bench, wherever the focus is; not within fields, popovers and dialogs. */
@Directive({ selector: '[foBenchKeys]', host: { '(document:keydown)': 'onKey($event)' } })
export class BenchKeys {
  readonly sendWanted = output<void>();
  readonly turnWanted = output<void>();
  private readonly store = inject(Store);
  private readonly dialogs = inject(BenchDialogs);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly routable = this.store.selectSignal(benchFeature.selectRoutable);

  protected onKey(event: KeyboardEvent): void {
    if (event.defaultPrevented || this.dialogs.isOpen) return;
    const target = event.target as HTMLElement;
    const typing = /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key === 'Enter') return this.take(event, () => this.sendWanted.emit());
    if (typing || target.closest('.cdk-overlay-container')) return;
    if (command && event.key.toLowerCase() === 'z') {
      const action = event.shiftKey ? BenchActions.redone() : BenchActions.undone();
      return this.take(event, () => this.store.dispatch(action));
    }
    if (command || event.altKey) return;
    if (/^[0-9]$/.test(event.key)) return this.take(event, () => this.giveTray(Number(event.key)));
    const act = this.plain[event.key];
    if (act) return this.take(event, act);
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step !== 0 && !target.closest('mat-radio-group')) this.take(event, () => this.step(step, event.shiftKey));
  }

  private readonly plain: Readonly<Record<string, () => void>> = {
    b: () => this.turnSides(),
    o: () => void this.dialogs.openLarge(),
    p: () => void this.dialogs.leafThrough(),
    f: () => this.turnWanted.emit(),
    '/': () => document.querySelector<HTMLElement>('#selection')?.focus(),
    '?': () => this.dialogs.showKeys(),
  };

  private take(event: KeyboardEvent, act: () => void): void {
    event.preventDefault();
    act();
  }

  private giveTray(number: number): void {
    const tray = number === 0 ? null : this.bench().printer?.profile.trays[number - 1]?.id;
    if (tray === undefined) return;
    this.store.dispatch(BenchActions.pagesRouted({ pages: this.routable(), change: { tray } }));
  }

  /** The chosen pages on both sides, or on one again. */
  private turnSides(): void {
    const { plan, sheet, ticket } = this.bench();
    const shown = plan && sheetAt(plan, sheet);
    if (!shown || !ticket) return;
    const sides = shown.sides === 'one-sided' ? 'two-sided' : 'one-sided';
    const change = { sides: sides === ticket.sides ? null : sides } as const;
    this.store.dispatch(BenchActions.pagesRouted({ pages: this.routable(), change }));
  }

  private step(by: number, extend: boolean): void {
    const { sheet, plan } = this.bench();
    const target = sheet + by;
    if (!plan || target < firstShown(plan) || target > plan.sheets.length) return;
    this.store.dispatch(BenchActions.sheetChosen({ sheet: target, extend }));
    const focused = document.activeElement;
    if (focused?.classList.contains('sheet')) {
      setTimeout(() => document.querySelector<HTMLElement>(`[data-sheet="${target}"]`)?.focus());
    }
  }
}
