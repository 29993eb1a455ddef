import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatIcon } from '@angular/material/icon';
import { MatInput } from '@angular/material/input';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';
import { saySize, trayName, type Route, type Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import type { Control } from './sentence';

interface Choice {
  readonly value: string;
  readonly label: string;
}

/** What a phrase changes, and what the change comes to. Changes take effect at once and can be undone. */
@Component({
  selector: 'fo-phrase-popover',
  imports: [
    FormsModule,
    MatButton,
    MatFormField,
    MatIcon,
    MatIconButton,
    MatInput,
    MatLabel,
    MatRadioButton,
    MatRadioGroup,
  ],
  templateUrl: './phrase-popover.html',
  styleUrl: './phrase-popover.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'dialog', '[attr.aria-label]': 'titles[control()]' },
})
export class PhrasePopover {
  readonly control = input.required<Control>();
  /** Sheets in all when the popover was opened. */
  readonly sheetsBefore = input.required<number>();
  readonly closed = output<void>();

  protected readonly titles: Record<Control, string> = {
    pages: 'Which pages',
    copies: 'How many copies',
    sets: 'In what order copies come out',
    sides: 'One side or both',
    bind: 'How the sheets turn over',
    tray: 'Which tray, for all that no route names',
    routes: 'Pages with paper of their own',
  };

  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly ticket = computed(() => this.bench().ticket as Ticket);
  protected readonly documents = computed(() => this.bench().documents);

  protected readonly choices = computed<readonly Choice[]>(() => {
    switch (this.control()) {
      case 'sets':
        return [
          { value: 'true', label: 'Complete sets: the whole job, then the whole job again' },
          { value: 'false', label: 'The same sheet again: all copies of sheet 1, then of sheet 2' },
        ];
      case 'sides':
        return [
          { value: 'two-sided', label: 'Both sides of the sheet' },
          { value: 'one-sided', label: 'One side; backs stay blank' },
        ];
      case 'bind':
        return [
          { value: 'left', label: 'Like a book, held on the left' },
          { value: 'right', label: 'Like a book read from the right, held on the right' },
          { value: 'top', label: 'Like a pad, held at the top' },
        ];
      case 'tray':
        return [{ value: 'auto', label: 'Whichever tray holds its paper' }, ...this.trays()];
      default:
        return [];
    }
  });

  protected readonly trays = computed<readonly Choice[]>(() =>
    (this.bench().printer?.profile.trays ?? []).map((tray) => ({
      value: tray.id,
      label: `${trayName(tray)}, ${saySize(tray.size)}${tray.loaded === null ? '' : `, ${tray.loaded} sheets loaded`}`,
    })),
  );

  protected readonly value = computed(() => {
    const { collate, sides, bind, tray } = this.ticket();
    const values: Partial<Record<Control, string>> = { sets: String(collate), sides, bind, tray };
    return values[this.control()] ?? '';
  });

  /** "18 sheets, 4 fewer" */
  protected readonly effect = computed(() => {
    const tally = this.bench().plan?.tally;
    if (!tally) return '';
    const difference = tally.sheets - this.sheetsBefore();
    const change = difference === 0 ? 'as before' : difference < 0 ? `${-difference} fewer` : `${difference} more`;
    return `${tally.sheets === 1 ? '1 sheet' : `${tally.sheets} sheets`}, ${change}`;
  });

  protected choose(value: string): void {
    switch (this.control()) {
      case 'sets':
        return this.change({ collate: value === 'true' });
      case 'sides':
        return this.change({ sides: value as Ticket['sides'] });
      case 'bind':
        return this.change({ bind: value as Ticket['bind'] });
      case 'tray':
        return this.change({ tray: value });
    }
  }

  protected setCopies(text: string): void {
    const copies = Number(text);
    if (Number.isInteger(copies) && copies >= 1 && copies <= 9999) this.change({ copies }, 'copies');
  }

  protected changeRoute(index: number, change: Partial<Route>, typing?: string): void {
    const routes = this.ticket().routes.map((route, place) =>
      place === index ? tidy({ ...route, ...change }) : route,
    );
    this.change({ routes }, typing);
  }

  protected removeRoute(index: number): void {
    const routes = this.ticket().routes.filter((_, place) => place !== index);
    this.change({ routes });
    if (routes.length === 0) this.closed.emit();
  }

  private change(change: Partial<Ticket>, typing?: string): void {
    const ticket = { ...this.ticket(), ...change };
    this.store.dispatch(BenchActions.ticketChanged(typing === undefined ? { ticket } : { ticket, typing }));
  }
}

/** A route says only what is different; an empty choice means that the ticket's own holds. */
function tidy(route: Route): Route {
  return Object.fromEntries(Object.entries(route).filter(([, value]) => value !== undefined)) as Route;
}
