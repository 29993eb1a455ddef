import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { Sheet } from '@foglio/core';
import { Store } from '@ngrx/store';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { rulesOf } from '../rules-of';

/** Beside places of a side that stay empty although one design could be repeated in them. */
@Component({
  selector: 'fo-repeat-offer',
  imports: [MatButton],
  template: `
    @if (empty(); as places) {
      <p>
        {{ places === 1 ? '1 place of this side is empty.' : places + ' places of this side are empty.' }}
        <button mat-button type="button" class="inline" (click)="repeat()">Repeat each page over its side</button>
      </p>
    }
  `,
  styles: `
    p {
      margin-top: 8px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RepeatOffer {
  readonly sheet = input.required<Sheet>();
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);

  protected readonly empty = computed(() => {
    const { ticket, documents, trouble } = this.bench();
    const { cells } = this.sheet().front;
    const [cell] = cells;
    if (!cell || !ticket || trouble || ticket.pieces || !ticket.documents[cell.document - 1]) return 0;
    const layout = rulesOf(ticket, documents)?.settingsOf(cell.document, cell.page).layout;
    // A route's own layout is changed in its route.
    if (layout !== ticket.layout || layout?.kind !== 'grid' || layout.repeat === 'fill-side') return 0;
    const { columns, rows, pagesPerSide } = layout;
    const places = columns !== null && rows !== null ? columns * rows : pagesPerSide;
    return Math.max(0, places - cells.length);
  });

  protected repeat(): void {
    const ticket = this.bench().ticket;
    if (ticket?.layout.kind !== 'grid') return;
    const layout = { ...ticket.layout, repeat: 'fill-side' as const };
    this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, layout } }));
  }
}
