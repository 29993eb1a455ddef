import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { pageRules, type Sheet, type Ticket, type WayToPrint } from '@foglio/core';
import { Store } from '@ngrx/store';
import { debounceTime, filter, switchMap } from 'rxjs';
import { SideView, type PageSource } from '../../pages/side-view';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { Planner } from '../../workers/planner';
import { pageSourceOf } from '../page-source';
import { sayChange, sayOutcome } from '../sentence/outcome-words';
import { saySetUp, sayWay } from './way-words';
import { WaysChart, type ChartPoint } from './ways-chart';

/** The longer edge of the picture of a first sheet, in CSS pixels. */
const PICTURE = 27;

/** Text this large is read without effort; the usual wish when sheets are to be saved. */
const WANTED_PT = 7;

const ASK_AFTER_MS = 60;

/** The same pages printed in other ways, side by side: sheets, cost, smallest text and sheet 1. */
@Component({
  selector: 'fo-ways-drawer',
  imports: [MatButton, MatFormField, MatIcon, MatIconButton, MatInput, SideView, WaysChart],
  templateUrl: './ways-drawer.html',
  styleUrl: './ways-drawer.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', 'aria-label': 'Other ways', '(keydown.escape)': 'closed.emit()' },
})
export class WaysDrawer {
  readonly closed = output<void>();
  private readonly store = inject(Store);
  private readonly planner = inject(Planner);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));
  private readonly inGrey = computed<PageSource>(() => {
    const source = this.source();
    return (document, page) => ({ ...source(document, page), grey: true });
  });
  /** Where all is set to be grey: what a route leaves grey stays so. */
  private readonly inColour = computed<PageSource>(() => {
    const { ticket, documents, printer } = this.bench();
    const source = this.source();
    if (!ticket || !printer?.profile.color) return source;
    const { settingsOf } = pageRules({ ...ticket, color: 'auto' }, documents);
    return (document, page) => ({
      ...source(document, page),
      grey: settingsOf(document, page).color === 'monochrome',
    });
  });
  protected readonly wanted = signal(WANTED_PT);

  private readonly asked = computed(() => {
    const { ticket, documents, printer } = this.bench();
    return ticket && printer ? { ticket, documents, printer: printer.profile } : null;
  });

  /** Null where the ticket as it stands cannot be planned; undefined before the answer. */
  protected readonly ways = toSignal(
    toObservable(this.asked).pipe(
      filter((asked) => asked !== null),
      debounceTime(ASK_AFTER_MS),
      switchMap(({ ticket, documents, printer }) =>
        this.planner.ask<'ways'>({ kind: 'ways' }, ticket, documents, printer),
      ),
    ),
  );

  protected readonly fewest = toSignal(
    toObservable(computed(() => ({ asked: this.asked(), minimumTextPt: this.wanted() }))).pipe(
      debounceTime(ASK_AFTER_MS),
      filter(({ asked }) => asked !== null),
      switchMap(({ asked, minimumTextPt }) =>
        this.planner.ask<'fewest'>({ kind: 'fewest', minimumTextPt }, asked!.ticket, asked!.documents, asked!.printer),
      ),
    ),
  );

  protected readonly points = computed<readonly ChartPoint[]>(() =>
    (this.ways() ?? []).flatMap((way) =>
      way.smallestTextPt === null
        ? []
        : [
            {
              name: way.name === 'as-set' ? 'now' : sayWay(way).toLowerCase(),
              sheets: way.sheets,
              smallestTextPt: way.smallestTextPt,
              now: way.name === 'as-set',
            },
          ],
    ),
  );

  protected readonly name = sayWay;
  protected readonly outcome = sayOutcome;

  protected change(way: WayToPrint): string {
    const now = this.ways()?.[0];
    return now && way !== now ? sayChange(way, now) : '';
  }

  /** "on both sides, 4 pages a side" */
  protected setUp(patch: Partial<Ticket>): string {
    const { ticket, documents, printer } = this.asked()!;
    return saySetUp(patch, { ticket, documents, printer, at: 0, house: ticket });
  }

  protected pictureScale({ paper }: Sheet): number {
    return PICTURE / Math.max(paper.width, paper.height);
  }

  protected sourceOf(way: WayToPrint): PageSource {
    if (way.name === 'in-grey') return this.inGrey();
    return way.name === 'in-color' ? this.inColour() : this.source();
  }

  protected isNow(patch: Partial<Ticket>): boolean {
    const ticket = this.bench().ticket;
    return Object.entries(patch).every(
      ([part, value]) => JSON.stringify(ticket?.[part as keyof Ticket]) === JSON.stringify(value),
    );
  }

  protected take(patch: Partial<Ticket>): void {
    const ticket = this.bench().ticket;
    if (ticket) this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, ...patch } }));
  }

  protected want(text: string): void {
    const points = Number(text);
    if (text !== '' && points > 0 && points <= 72) this.wanted.set(points);
  }
}
