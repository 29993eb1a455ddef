import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { JobDocument, SeriesBrief, SeriesRecord, SeriesRow, SetupRecord } from '@foglio/api';
import type { RowOutcome } from '@foglio/core';
import { patchState, signalState } from '@ngrx/signals';
import { defer, filter, firstValueFrom, merge, of, switchMap } from 'rxjs';
import { Api, problemCode, sayError } from '../api/api';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { SeriesPlanner, type Outcomes } from './series-planner';
import { areSameRows, keepSame, rowsToPlan, rowViews, sealSeen, wholeOf, type SeriesParts } from './series-view';

interface State {
  readonly listed: readonly SeriesBrief[] | null;
  readonly setups: readonly SetupRecord[];
  readonly series: SeriesRecord | null;
  readonly documents: readonly JobDocument[];
  /** What went wrong in the last thing that was done. */
  readonly message: string | null;
  /** Changes that the server has not answered yet. */
  readonly waiting: number;
}

const NOTHING: State = { listed: null, setups: [], series: null, documents: [], message: null, waiting: 0 };

/** What the screen of many files holds. It ends with the screen; an answer about another series than is shown is not taken. */
@Injectable()
export class SeriesStore {
  private readonly api = inject(Api);
  private readonly planner = inject(SeriesPlanner);
  private readonly news = inject(News);
  private readonly printersNow = inject(PrintersNow);
  private readonly left = inject(DestroyRef);
  private readonly state = signalState(NOTHING);
  private line = Promise.resolve();
  /** Which series is shown; undefined: none, a new one is begun. */
  readonly id = signal<string | undefined>(undefined);

  readonly listed = this.state.listed;
  readonly setups = this.state.setups;
  readonly series = this.state.series;
  readonly message = this.state.message;
  readonly busy = computed(() => this.state.waiting() > 0);
  readonly printers = computed(() => this.printersNow.all() ?? []);
  readonly printer = computed(() => this.printers().find(({ id }) => id === this.series()?.printerId) ?? null);
  readonly profile = computed(() => this.printer()?.profile ?? null);
  private readonly uri = computed(() => this.printer()?.uri ?? '');

  /** The same for as long as nothing of it is different: a file that is being printed is not planned anew. */
  private readonly toPlan = computed(() => rowsToPlan({ series: this.series(), documents: this.state.documents() }), {
    equal: areSameRows,
  });
  private readonly outcomes = toSignal(
    toObservable(computed(() => ({ rows: this.toPlan(), profile: this.profile(), uri: this.uri() }))).pipe(
      switchMap(({ rows, profile, uri }) =>
        profile ? this.planner.plan(rows, { profile, uri }) : of<Outcomes>(new Map()),
      ),
    ),
    { initialValue: new Map<string, RowOutcome>() },
  );
  private readonly parts = computed<SeriesParts>(() => ({
    series: this.series(),
    documents: this.state.documents(),
    outcomes: this.outcomes(),
    profile: this.profile(),
  }));
  readonly rows = computed(() => rowViews(this.parts()));
  readonly whole = computed(() => wholeOf(this.parts()));
  readonly isReading = computed(() => this.state.documents().some(({ read, pages }) => read < pages.length));
  /** The seal of all that is on the screen. */
  readonly seal = () => sealSeen(this.parts());

  constructor() {
    void this.try(async () => patchState(this.state, { setups: await firstValueFrom(this.api.setups()) }));
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    this.follow();
  }

  /** Shows a series, or none. */
  open(id: string | undefined): void {
    this.id.set(id);
    if (id !== this.series()?.id) patchState(this.state, { series: null, documents: [] });
    if (id) void this.load(id);
    else void this.list();
  }

  /** Shows the rows in this order at once; the server's word then counts. @param out ids of those to be taken out */
  order(rows: readonly SeriesRow[], out: readonly string[] = []): Promise<void> {
    patchState(this.state, ({ series }) => ({ series: series && { ...series, rows: [...rows] } }));
    return this.change(({ id }) =>
      this.api.orderSeries(
        id,
        rows.map((row) => row.id),
        out,
      ),
    );
  }

  /** One change after the other, each as soon as the one before it is answered. */
  change(ask: (series: SeriesRecord) => ReturnType<Api['series']>): Promise<void> {
    const series = this.series();
    if (!series) return Promise.resolve();
    // What went wrong before is told until now, and not only until another change in the line has its turn.
    patchState(this.state, ({ waiting }) => ({ waiting: waiting + 1, message: null }));
    this.line = this.line.then(async () => {
      await this.try(async () => {
        const record = await firstValueFrom(ask(series));
        // While another change waits, the screen is ahead of the server.
        if (this.state.waiting() === 1 && series.id === this.id()) this.show(record);
      });
      patchState(this.state, ({ waiting }) => ({ waiting: waiting - 1 }));
      // Of the one that is shown by then.
      if (!this.busy()) await this.load(this.id());
    });
    return this.line;
  }

  /**
   * Leaves files out, or takes them in again. All stand in the line at once, so that what goes wrong with one is told until
   * the end, and the series is asked for once, after the last.
   */
  async leaveOut(rows: readonly Pick<SeriesRow, 'id'>[], skipped: boolean): Promise<void> {
    await Promise.all(rows.map((row) => this.change(({ id }) => this.api.skipSeriesFile(id, row.id, skipped))));
  }

  /** What goes wrong in something that a person does is told until the next thing is done. */
  async tell(work: () => Promise<void>): Promise<void> {
    patchState(this.state, { message: null });
    await this.try(work);
  }

  async try(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
    } catch (error) {
      patchState(this.state, { message: sayError(error) });
      // The server knows something of the printer that is not on the screen yet.
      if (problemCode(error) === 'plan-changed') this.askPrinter();
    }
  }

  async load(id: string | undefined): Promise<void> {
    if (!id) return;
    await Promise.all([this.loadRecord(id), this.loadDocuments(id)]);
    await this.list();
  }

  private show(record: SeriesRecord): void {
    patchState(this.state, ({ series }) => ({ series: keepSame(series, record) }));
  }

  private askPrinter(): void {
    const id = this.series()?.printerId;
    if (id === undefined) return;
    this.api.printer(id).subscribe({ next: (printer) => this.printersNow.see(printer), error: () => undefined });
  }

  /** What becomes known of the pages, how files are printed, and what other windows do is asked for as it is told of. */
  private follow(): void {
    const isHere = ({ id }: { id: string }): boolean => id === this.id();
    const isUnread = ({ id }: { id: string }): boolean =>
      this.state.documents().some(({ sha256, read, pages }) => sha256 === id && read < pages.length);
    const isOfList = (): boolean => this.id() === undefined;
    const told = this.news.of('series');
    const whole = keepAsking(this.news.opened, () => defer(() => this.load(this.id())));
    const record = keepAsking(told.pipe(filter(isHere)), () => defer(() => this.hear()));
    const documents = keepAsking(this.news.of('file').pipe(filter(isUnread)), () =>
      defer(() => this.loadDocuments(this.id())),
    );
    const list = keepAsking(told.pipe(filter(isOfList)), () => defer(() => this.list()));
    merge(whole, record, documents, list).pipe(takeUntilDestroyed(this.left)).subscribe();
  }

  /** How its files are printed changes often, what they are only with its revision. */
  private async hear(): Promise<void> {
    const id = this.id();
    if (!id) return;
    const { revision } = this.series() ?? {};
    await this.loadRecord(id);
    if (revision !== this.series()?.revision) await this.loadDocuments(id);
  }

  private loadRecord(id: string): Promise<void> {
    return this.try(async () => {
      const record = await firstValueFrom(this.api.series(id));
      // While changes wait, the screen is ahead of the server; of another series they are not.
      const isAhead = this.busy() && this.series()?.id === id;
      if (id === this.id() && !isAhead) this.show(record);
    });
  }

  private async loadDocuments(id: string | undefined): Promise<void> {
    if (!id) return;
    await this.try(async () => {
      const documents = await firstValueFrom(this.api.seriesDocuments(id));
      const known = new Map(this.state.documents().map((one) => [one.id, one]));
      const isKnown = ({ id: file, read, outline }: JobDocument): boolean =>
        known.get(file)?.read === read && !known.get(file)?.outline === !outline;
      const news = !documents.every(isKnown);
      if (id !== this.id() || (!news && documents.length === known.size)) return;
      // Of which nothing is new stays the very same, so that it need not be looked at again.
      patchState(this.state, { documents: documents.map((one) => (isKnown(one) ? known.get(one.id)! : one)) });
    });
  }

  list(): Promise<void> {
    return this.try(async () => patchState(this.state, { listed: await firstValueFrom(this.api.allSeries()) }));
  }
}
