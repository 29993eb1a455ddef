import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { DatePipe } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  EnvironmentInjector,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import {
  addressOf,
  OPERATIONS,
  type JobDocument,
  type SeriesBrief,
  type SeriesRecord,
  type SeriesRow,
  type SetupRecord,
} from '@foglio/api';
import type { RowOutcome } from '@foglio/core';
import { defer, filter, firstValueFrom, merge, of, switchMap } from 'rxjs';
import { sentence } from '@foglio/sentence';
import { Api, problemCode, sayError } from '../api/api';
import { inOrder, isHidden } from '../documents/dropped-files';
import { FileDrop } from '../documents/file-drop';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { houseTicket } from '../setups/house';
import { Changes } from '../state/changes';
import { benchStore } from '../state/own-store';
import { SeriesIntake } from './intake';
import { RowBench, type RowBenchData } from './row-bench';
import { SeriesBegin, type Beginning } from './series-begin';
import { SeriesPlanner, type Outcomes } from './series-planner';
import { SeriesTotals, type Sending } from './series-totals';
import {
  areSameRows,
  keepSame,
  rowsToPlan,
  rowViews,
  sealSeen,
  wholeOf,
  type RowView,
  type SeriesParts,
} from './series-view';
import { countFiles, saySeriesState, titleOfFiles } from './series-words';

/** CSS pixels; rows are all alike, so that hundreds scroll smoothly. */
const ROW = 44;

/** A set-up over many files: what each comes to, exceptions by row, one send, and the report. */
@Component({
  selector: 'fo-series',
  imports: [
    CdkDrag,
    CdkDragHandle,
    CdkDropList,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    DatePipe,
    FileDrop,
    MatButton,
    MatIcon,
    MatIconButton,
    MatMenu,
    MatMenuContent,
    MatMenuItem,
    MatMenuTrigger,
    RouterLink,
    SeriesBegin,
    SeriesTotals,
  ],
  templateUrl: './series.html',
  styleUrl: './series.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Series {
  /** From the route; without it a new one is begun. */
  readonly id = input<string>();
  private readonly api = inject(Api);
  private readonly changes = inject(Changes);
  private readonly environment = inject(EnvironmentInjector);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly planner = inject(SeriesPlanner);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly intake = inject(SeriesIntake);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);

  protected readonly rowHeight = ROW;
  protected readonly listed = signal<readonly SeriesBrief[] | null>(null);
  protected readonly setups = signal<readonly SetupRecord[]>([]);
  protected readonly printers = computed(() => this.printersNow.all() ?? []);
  protected readonly series = signal<SeriesRecord | null>(null);
  private readonly documents = signal<readonly JobDocument[]>([]);
  protected readonly message = signal<string | null>(null);
  /** Changes that the server has not answered yet. */
  private readonly waiting = signal(0);
  private line = Promise.resolve();
  protected readonly busy = computed(() => this.waiting() > 0);
  private readonly news = inject(News);
  private readonly printersNow = inject(PrintersNow);
  private readonly left = inject(DestroyRef);

  protected readonly printer = computed(
    () => this.printers().find(({ id }) => id === this.series()?.printerId) ?? null,
  );
  protected readonly profile = computed(() => this.printer()?.profile ?? null);
  private readonly uri = computed(() => this.printer()?.uri ?? '');
  protected readonly isDraft = computed(() => this.series()?.state === 'draft');
  /** The same for as long as nothing of it is different: a file that is being printed is not planned anew. */
  private readonly toPlan = computed(() => rowsToPlan({ series: this.series(), documents: this.documents() }), {
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
    documents: this.documents(),
    outcomes: this.outcomes(),
    profile: this.profile(),
  }));
  protected readonly rows = computed(() => rowViews(this.parts()));
  protected readonly whole = computed(() => wholeOf(this.parts()));
  protected readonly isReading = computed(() => this.documents().some(({ read, pages }) => read < pages.length));

  protected readonly said = computed(() => {
    const [series, printer] = [this.series(), this.printer()];
    if (!series || !printer) return '';
    const house = houseTicket(this.setups(), printer.id) ?? series.setup;
    const situation = { ticket: series.setup, documents: [], printer: printer.profile, at: 0, house };
    return sentence(situation)
      .map(({ text }) => text)
      .join('')
      .replace(/ of a document,/, ' of each file,');
  });

  protected readonly state = saySeriesState;
  protected readonly files = countFiles;
  protected readonly byId = (_: number, { row }: RowView): string => row.id;

  constructor() {
    void this.prepare();
    // Loaded once for both: another series to show, and news of files that were put into this one.
    effect(() => {
      const id = this.id();
      this.intake.news();
      untracked(() => {
        if (id !== this.series()?.id) {
          this.series.set(null);
          this.documents.set([]);
        }
        if (id) void this.load(id);
        else void this.list();
      });
    });
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    this.follow();
  }

  /** Begins a series with the files, in the order of their names. */
  protected async begin({ setup, printer, files }: Beginning): Promise<void> {
    await this.tell(async () => {
      const title = titleOfFiles(files, setup.name);
      const series = await firstValueFrom(this.api.createSeries(title, setup.ticket, printer.id));
      await this.router.navigate(['/series', series.id]);
      void this.intake.takeIn(series.id, inOrder(files.filter(({ name }) => !isHidden(name))));
    });
  }

  protected addFiles(files: readonly File[]): void {
    const id = this.id();
    if (id) void this.intake.takeIn(id, inOrder(files.filter(({ name }) => !isHidden(name))));
  }

  protected rename(title: string): Promise<void> {
    const { title: now } = this.series()!;
    if (title.trim() === '' || title.trim() === now) return Promise.resolve();
    return this.change(({ id }) => this.api.changeSeries(id, { title: title.trim() }));
  }

  protected retake(setupId: string): Promise<void> {
    const setup = this.setups().find(({ id }) => id === setupId);
    return setup ? this.change(({ id }) => this.api.changeSeries(id, { setup: setup.ticket })) : Promise.resolve();
  }

  protected moveTo(printerId: string): Promise<void> {
    return this.change(({ id }) => this.api.changeSeries(id, { printerId }));
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    // Only what can be seen is there to be dragged.
    const first = this.viewport()?.getRenderedRange().start ?? 0;
    void this.move(previousIndex + first, currentIndex + first);
  }

  protected move(from: number, to: number): Promise<void> {
    const rows = [...(this.series()?.rows ?? [])];
    if (from === to || to < 0 || to >= rows.length) return Promise.resolve();
    moveItemInArray(rows, from, to);
    return this.order(rows);
  }

  protected sortByName(): Promise<void> {
    return this.order(inOrder(this.series()?.rows ?? []));
  }

  protected takeOut({ id }: SeriesRow): Promise<void> {
    return this.order(
      (this.series()?.rows ?? []).filter((row) => row.id !== id),
      [id],
    );
  }

  /** Shown at once; the server's word then counts. */
  private order(rows: readonly SeriesRow[], out: readonly string[] = []): Promise<void> {
    this.series.update((now) => now && { ...now, rows: [...rows] });
    return this.change(({ id }) =>
      this.api.orderSeries(
        id,
        rows.map((row) => row.id),
        out,
      ),
    );
  }

  protected skip(row: SeriesRow, skipped: boolean): Promise<void> {
    return this.change(({ id }) => this.api.skipSeriesFile(id, row.id, skipped));
  }

  protected async setUp({ id: rowId, jobId, name }: SeriesRow): Promise<void> {
    if (jobId === null) return;
    const data: RowBenchData = { jobId, name };
    const own = benchStore(this.environment);
    const dialog = this.dialog.open<RowBench, RowBenchData>(RowBench, {
      data,
      width: '980px',
      maxWidth: '96vw',
      injector: own,
    });
    await firstValueFrom(dialog.afterClosed());
    own.destroy();
    // What is on its way to the server is waited for, so that the row shows it.
    await this.try(() => firstValueFrom(this.changes.settled({ kind: 'job', id: jobId })));
    await this.load(this.id());
    // The button it was opened by was drawn anew meanwhile, so that it could not get the focus back by itself.
    afterNextRender(() => this.host.nativeElement.querySelector<HTMLElement>(`[data-row="${rowId}"] button`)?.focus(), {
      injector: this.injector,
    });
  }

  protected start({ sheets, confirmed }: Sending): Promise<void> {
    const seal = sealSeen(this.parts());
    return this.change(({ id }) => this.api.startSeries(id, { sheets, confirmed, seal }));
  }

  /** Scrolls to the next file that cannot be printed so, and from the last to the first. */
  protected showUnfit(): void {
    const viewport = this.viewport();
    if (!viewport) return;
    const top = Math.round(viewport.measureScrollOffset() / ROW);
    const unfit = this.rows().flatMap(({ mark }, at) => (mark === 'unfit' ? [at] : []));
    viewport.scrollToIndex(unfit.find((at) => at > top) ?? unfit[0] ?? 0);
  }

  protected pause(): Promise<void> {
    return this.change(({ id }) => this.api.pauseSeries(id));
  }

  protected resume(again: boolean): Promise<void> {
    return this.change(({ id }) => this.api.resumeSeries(id, again));
  }

  protected async remove({ id }: Pick<SeriesBrief, 'id'>): Promise<void> {
    await this.tell(async () => {
      await firstValueFrom(this.api.removeSeries(id));
      if (id === this.id()) await this.router.navigate(['/series']);
      await this.list();
    });
  }

  /** One change after the other, each as soon as the one before it is answered. */
  private change(ask: (series: SeriesRecord) => ReturnType<Api['series']>): Promise<void> {
    const series = this.series();
    if (!series) return Promise.resolve();
    this.waiting.update((count) => count + 1);
    this.line = this.line.then(async () => {
      await this.tell(async () => {
        const record = await firstValueFrom(ask(series));
        // While another change waits, the screen is ahead of the server.
        if (this.waiting() === 1 && series.id === this.id()) this.series.set(keepSame(this.series(), record));
      });
      this.waiting.update((count) => count - 1);
      if (this.waiting() === 0) await this.load(series.id);
    });
    return this.line;
  }

  /** What goes wrong in something that a person does is told until the next thing is done. */
  private async tell(work: () => Promise<void>): Promise<void> {
    this.message.set(null);
    await this.try(work);
  }

  private async try(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
    } catch (error) {
      this.message.set(sayError(error));
      // The server knows something of the printer that is not on the screen yet.
      if (problemCode(error) === 'plan-changed') this.askPrinter();
    }
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
      this.documents().some(({ sha256, read, pages }) => sha256 === id && read < pages.length);
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

  private async load(id: string | undefined): Promise<void> {
    if (!id) return;
    await Promise.all([this.loadRecord(id), this.loadDocuments(id)]);
    await this.list();
  }

  private loadRecord(id: string): Promise<void> {
    return this.try(async () => {
      const record = await firstValueFrom(this.api.series(id));
      if (id === this.id() && !this.busy()) this.series.set(keepSame(this.series(), record));
    });
  }

  private async loadDocuments(id: string | undefined): Promise<void> {
    if (!id) return;
    await this.try(async () => {
      const documents = await firstValueFrom(this.api.seriesDocuments(id));
      const known = new Map(this.documents().map((one) => [one.id, one]));
      const isKnown = ({ id: file, read, outline }: JobDocument): boolean =>
        known.get(file)?.read === read && !known.get(file)?.outline === !outline;
      const news = !documents.every(isKnown);
      if (id !== this.id() || (!news && documents.length === known.size)) return;
      // Of which nothing is new stays the very same, so that it need not be looked at again.
      this.documents.set(documents.map((one) => (isKnown(one) ? known.get(one.id)! : one)));
    });
  }

  private list(): Promise<void> {
    return this.try(async () => this.listed.set(await firstValueFrom(this.api.allSeries())));
  }

  private prepare(): Promise<void> {
    return this.try(async () => {
      this.setups.set(await firstValueFrom(this.api.setups()));
    });
  }

  protected readonly reportAt = (report: 'seriesReport' | 'printableReport', { id }: SeriesRecord): string =>
    addressOf(OPERATIONS[report], { id });
}
