import { ChangeDetectionStrategy, Component, computed, inject, output, resource, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';
import { inTwoPasses, type Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, sayError } from '../../api/api';
import { PrintersNow } from '../../news/printers-now';
import type { PrinterRecord } from '@foglio/api';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { Planner } from '../../workers/planner';
import type { PlanAnswer } from '../../workers/plan-messages';
import { countSheets, sayMoney } from '../amounts';
import { sayAbilities } from '../../printers/printer-words';

interface Choice {
  readonly printer: PrinterRecord;
  readonly abilities: string;
  /** What the job would come to there, or what would stop it. */
  readonly outcome: string;
  readonly stopped: boolean;
}

/** Where the job is printed: each printer with what it can do, and what the job would come to there. */
@Component({
  selector: 'fo-printer-choice',
  imports: [FormsModule, MatButton, MatRadioButton, MatRadioGroup],
  template: `
    <!-- There is nothing else to go to while the printers are asked. -->
    <h2 tabindex="-1" cdkFocusInitial>Printed at</h2>
    @if (found(); as found) {
      <mat-radio-group
        aria-label="Printed at"
        [ngModel]="marked() ?? now()"
        (ngModelChange)="choose($event)"
        (keydown)="onKey($event)"
        (pointerdown)="isByArrow = false"
      >
        @for (choice of found; track choice.printer.id) {
          <div class="choice" [class.taken]="choice.printer.id === (marked() ?? now())">
            <mat-radio-button [value]="choice.printer.id">
              {{ choice.printer.name }}{{ choice.printer.answers ? '' : ', does not answer' }}
            </mat-radio-button>
            <p class="abilities">{{ choice.abilities }}</p>
            <p class="outcome" [class.stopped]="choice.stopped">{{ choice.outcome }}</p>
          </div>
        }
      </mat-radio-group>
      @if (markedName(); as name) {
        <div class="end">
          <button mat-flat-button (click)="take(marked())">Print at {{ name }}</button>
        </div>
      }
    } @else {
      <p role="status">{{ trouble() ?? 'Asking the printers' }}</p>
    }
  `,
  styles: `
    :host {
      width: min(440px, 94vw);
    }
    h2 {
      outline: none;
    }
    .choice {
      padding: 4px 8px 8px;
      border-radius: var(--radius);
    }
    .choice.taken {
      background: var(--accent-soft);
    }
    .choice p {
      margin-left: 44px;
      font-size: 13px;
      color: #4d5a62;
    }
    .choice .outcome {
      color: var(--ink);
    }
    .choice .stopped {
      color: var(--stop);
    }
    .end {
      margin-top: 8px;
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'popover', role: 'dialog', 'aria-label': 'Printed at' },
})
export class PrinterChoice {
  readonly closed = output<void>();
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly printersNow = inject(PrintersNow);
  private readonly planner = inject(Planner);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly now = computed(() => this.bench().printer?.id ?? null);

  private readonly choices = resource({
    loader: async () => {
      const { ticket, documents } = this.bench();
      const found: Choice[] = [];
      for (const printer of await firstValueFrom(this.api.printers())) {
        this.printersNow.see(printer);
        const asked = this.planner.ask<'plan'>({ kind: 'plan' }, ticket as Ticket, documents, printer.profile);
        found.push({ printer, abilities: sayAbilities(printer.profile), ...outcomeOf(await firstValueFrom(asked)) });
      }
      return found;
    },
  });
  /** Null while they are asked, and where asking failed: the resource throws then. */
  protected readonly found = computed(() => (this.choices.hasValue() ? this.choices.value() : null));
  protected readonly trouble = computed(() => {
    const error = this.choices.error();
    return error ? sayError(error) : null;
  });

  /** Arrow keys go from one printer to the next; none is taken before Enter or Space. */
  protected readonly marked = signal<string | null>(null);
  protected readonly markedName = computed(
    () => this.found()?.find(({ printer }) => printer.id === this.marked())?.printer.name ?? null,
  );
  protected isByArrow = false;

  protected onKey(event: KeyboardEvent): void {
    this.isByArrow = event.key.startsWith('Arrow');
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    this.take(this.marked() ?? this.now());
  }

  protected choose(id: string): void {
    if (this.isByArrow) this.marked.set(id);
    else this.take(id);
    this.isByArrow = false;
  }

  protected take(id: string | null): void {
    const choice = this.found()?.find(({ printer }) => printer.id === id);
    if (choice) this.store.dispatch(BenchActions.printerWanted({ printer: choice.printer }));
    this.closed.emit();
  }
}

function outcomeOf({ plan, trouble }: PlanAnswer): Pick<Choice, 'outcome' | 'stopped'> {
  if (trouble) return { outcome: trouble.problem, stopped: true };
  const stop = plan.checks.find(({ level }) => level === 'stop');
  if (stop) return { outcome: stop.message, stopped: true };
  const { sheets, cost } = plan.tally;
  const passes = inTwoPasses(plan) ? ', in two passes by hand' : '';
  return { outcome: `${countSheets(sheets)}, ${sayMoney(cost)}${passes}`, stopped: false };
}
