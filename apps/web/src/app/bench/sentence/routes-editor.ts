import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { routeCatches, saySize, sectionsOf, TicketError, type Route, type RouteCatch, type Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { type RouteChange, type Situation, trayLabels } from '@foglio/sentence';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { BenchDialogs } from '../bench-dialogs';
import { trayColour, trayInk, trayMark } from '../tray-mark';
import { RouteSentence } from './route-sentence';

/** A rule that may be put in place of page numbers. */
interface Rule {
  readonly label: string;
  readonly pages: string;
}

/** The routes in the order in which they count: the first that names a page rules it. */
@Component({
  selector: 'fo-routes-editor',
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    MatButton,
    MatFormField,
    MatIcon,
    MatIconButton,
    MatInput,
    RouteSentence,
  ],
  templateUrl: './routes-editor.html',
  styleUrl: './routes-editor.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'popover', role: 'dialog', 'aria-label': 'Pages with paper or settings of their own' },
})
export class RoutesEditor {
  readonly closed = output<void>();
  private readonly store = inject(Store);
  private readonly dialogs = inject(BenchDialogs, { optional: true });
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly ticket = computed(() => this.bench().ticket as Ticket);
  protected readonly routes = computed(() => this.ticket().routes);
  protected readonly documents = computed(() => this.bench().documents);
  protected readonly trouble = computed(() => this.bench().trouble);
  private readonly known = this.store.selectSignal(benchFeature.selectSituation);
  protected readonly situation = computed(() => this.known() as Situation);

  /** Whether the pages of a new route are being asked. */
  protected readonly isAsking = signal(false);
  private readonly asked = viewChild<ElementRef<HTMLInputElement>>('asked');
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly trays = computed(() => trayLabels(this.situation()).map(([id, label]) => ({ id, label })));

  protected readonly rules = computed<readonly Rule[]>(() => {
    const pages = this.documents().flatMap((one) => one.pages);
    const sizes = new Set(this.bench().plan?.sheets.map(({ paper }) => paper.size));
    const only = this.documents().length === 1 ? this.documents()[0] : undefined;
    const sections = only ? sectionsOf(only).slice(0, 12) : [];
    return [
      { label: 'the first page', pages: '1' },
      { label: 'the last page', pages: 'last' },
      { label: 'odd pages', pages: 'odd' },
      { label: 'even pages', pages: 'even' },
      { label: 'landscape pages', pages: 'landscape' },
      { label: 'portrait pages', pages: 'portrait' },
      ...[...sizes].flatMap((size) => {
        const short = size.split('_')[1];
        return short && !size.startsWith('custom') ? [{ label: `${saySize(size)} pages`, pages: `size ${short}` }] : [];
      }),
      ...(pages.some(({ color }) => color) ? [{ label: 'pages with colour', pages: 'color' }] : []),
      ...sections.map((_, index) => ({ label: `section ${index + 1}`, pages: `${index + 1}:` })),
    ];
  });

  /** Null while some selection cannot be read. */
  private readonly catches = computed<readonly RouteCatch[] | null>(() => {
    try {
      return routeCatches(this.ticket(), this.documents());
    } catch (error) {
      if (error instanceof TicketError) return null;
      throw error;
    }
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  /** "3 pages; route 1 takes 2 more" */
  protected caught(index: number): string {
    const one = this.catches()?.[index];
    if (!one) return '';
    const pages = one.rules === 0 ? 'no page' : countPages(one.rules);
    const taken = one.taken.map(
      ({ by, pages: count }) => `route ${by + 1} takes ${count}${one.rules > 0 ? ' more' : ''}`,
    );
    return [pages, ...taken].join('; ');
  }

  protected troubleOf(index: number) {
    const trouble = this.trouble();
    return trouble?.place === `routes[${index}].pages` ? trouble : null;
  }

  /** Writes the repair of a selection that cannot be read. */
  protected mend(index: number): void {
    const trouble = this.troubleOf(index);
    const text = this.routes()[index]?.pages ?? '';
    if (!trouble || trouble.position === null || trouble.replacement === null) return;
    const { position, length, replacement } = trouble;
    this.change(index, { pages: text.slice(0, position) + replacement + text.slice(position + length) });
  }

  protected placeOf(tray: string | undefined): number {
    return this.situation().printer.trays.findIndex(({ id }) => id === tray);
  }

  protected change(index: number, change: RouteChange): void {
    this.put(this.routes().map((route, place) => (place === index ? tidy({ ...route, ...change }) : route)));
  }

  protected drawPart(index: number): void {
    void this.dialogs?.drawPart({ route: index });
  }

  protected remove(index: number): void {
    this.put(this.routes().filter((_, place) => place !== index));
  }

  /** A new one is asked its pages first: nothing is changed before they are known. */
  protected add(): void {
    this.isAsking.set(true);
    afterNextRender(() => this.asked()?.nativeElement.focus(), { injector: this.injector });
  }

  /** It starts as the rest, so that it changes only what is then said of it. */
  protected begin(pages: string): void {
    if (pages.trim() === '') return this.giveUp();
    this.isAsking.set(false);
    this.put([...this.routes(), { pages, tray: this.ticket().tray }]);
    this.focus(`[aria-label="Tray of route ${this.routes().length}"]`);
  }

  protected giveUp(): void {
    this.isAsking.set(false);
    this.focus('.add');
  }

  /** What had the focus is gone: it goes to where one goes on. */
  private focus(selector: string): void {
    const find = (): HTMLElement | null => this.host.nativeElement.querySelector<HTMLElement>(selector);
    afterNextRender(() => find()?.focus(), { injector: this.injector });
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  protected move(from: number, to: number): void {
    if (to < 0 || to >= this.routes().length) return;
    const routes = [...this.routes()];
    moveItemInArray(routes, from, to);
    this.put(routes);
  }

  private put(routes: Route[]): void {
    this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...this.ticket(), routes } }));
  }
}

const countPages = (count: number): string => (count === 1 ? '1 page' : `${count} pages`);

/** A route says only what is different; what is left undefined is the ticket's. */
const tidy = (route: RouteChange): Route =>
  Object.fromEntries(Object.entries(route).filter(([, value]) => value !== undefined)) as Route;
