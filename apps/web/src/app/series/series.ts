import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { DatePipe } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  EnvironmentInjector,
  inject,
  Injector,
  input,
  untracked,
  viewChild,
} from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIcon } from '@angular/material/icon';
import { MatListModule } from '@angular/material/list';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import { addressOf, OPERATIONS, type SeriesBrief, type SeriesRecord, type SeriesRow } from '@foglio/api';
import { firstValueFrom } from 'rxjs';
import { sentence } from '@foglio/sentence';
import { Api } from '../api/api';
import { inOrder, isHidden } from '../documents/dropped-files';
import { FileDrop } from '../documents/file-drop';
import { houseTicket } from '../setups/house';
import { Changes } from '../state/changes';
import { benchStore } from '../state/own-store';
import { SeriesIntake } from './intake';
import { RowBench, type RowBenchData } from './row-bench';
import { SeriesBegin, type Beginning } from './series-begin';
import { SeriesStore } from './series-store';
import { SeriesTotals, type ToSend } from './series-totals';
import type { RowView } from './series-view';
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
    MatFormField,
    MatIcon,
    MatIconButton,
    MatInput,
    MatListModule,
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
  providers: [SeriesStore],
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
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly store = inject(SeriesStore);
  protected readonly intake = inject(SeriesIntake);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);

  protected readonly rowHeight = ROW;
  protected readonly isDraft = computed(() => this.store.series()?.state === 'draft');

  protected readonly said = computed(() => {
    const [series, printer] = [this.store.series(), this.store.printer()];
    if (!series || !printer) return '';
    const house = houseTicket(this.store.setups(), printer.id) ?? series.setup;
    const situation = { ticket: series.setup, documents: [], printer: printer.profile, at: 0, house };
    return sentence(situation)
      .map(({ text }) => text)
      .join('')
      .replace(/ of a document,/, ' of each file,');
  });

  protected readonly state = saySeriesState;
  protected readonly files = countFiles;
  protected readonly byId = (_: number, { row }: RowView): string => row.id;
  protected readonly reportAt = (report: 'seriesReport' | 'printableReport', { id }: SeriesRecord): string =>
    addressOf(OPERATIONS[report], { id });

  constructor() {
    // Loaded once for both: another series to show, and news of files that were put into this one.
    effect(() => {
      const id = this.id();
      this.intake.news();
      untracked(() => this.store.open(id));
    });
  }

  /** Begins a series with the files, in the order of their names. */
  protected async begin({ setup, printer, files }: Beginning): Promise<void> {
    await this.store.tell(async () => {
      const title = titleOfFiles(files, setup.name);
      const series = await firstValueFrom(this.api.createSeries(title, setup.ticket, printer.id));
      await this.router.navigate(['/series', series.id]);
      this.takeIn(series, files);
    });
  }

  protected addFiles(files: readonly File[]): void {
    const series = this.store.series();
    if (series) this.takeIn(series, files);
  }

  private takeIn(series: Pick<SeriesRecord, 'id' | 'setup'>, files: readonly File[]): void {
    void this.intake.takeIn(series, inOrder(files.filter(({ name }) => !isHidden(name))));
  }

  protected rename(title: string): Promise<void> {
    const { title: now } = this.store.series()!;
    if (title.trim() === '' || title.trim() === now) return Promise.resolve();
    return this.store.change(({ id }) => this.api.changeSeries(id, { title: title.trim() }));
  }

  protected retake(setupId: string): Promise<void> {
    const setup = this.store.setups().find(({ id }) => id === setupId);
    if (!setup) return Promise.resolve();
    return this.store.change(({ id }) => this.api.changeSeries(id, { setup: setup.ticket }));
  }

  protected moveTo(printerId: string): Promise<void> {
    return this.store.change(({ id }) => this.api.changeSeries(id, { printerId }));
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    // Only what can be seen is there to be dragged.
    const first = this.viewport()?.getRenderedRange().start ?? 0;
    void this.move(previousIndex + first, currentIndex + first);
  }

  protected move(from: number, to: number): Promise<void> {
    const rows = [...(this.store.series()?.rows ?? [])];
    if (from === to || to < 0 || to >= rows.length) return Promise.resolve();
    moveItemInArray(rows, from, to);
    return this.store.order(rows);
  }

  protected sortByName(): Promise<void> {
    return this.store.order(inOrder(this.store.series()?.rows ?? []));
  }

  protected takeOut({ id }: SeriesRow): Promise<void> {
    const rows = this.store.series()?.rows ?? [];
    return this.store.order(
      rows.filter((row) => row.id !== id),
      [id],
    );
  }

  protected skip(row: SeriesRow, skipped: boolean): Promise<void> {
    return this.store.leaveOut([row], skipped);
  }

  /** Those that cannot be printed so; each can be taken in again from its row. */
  protected leaveOutUnfit(): Promise<void> {
    const unfit = this.store.rows().flatMap(({ row, mark }) => (mark === 'unfit' ? [row] : []));
    return this.store.leaveOut(unfit, true);
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
    await this.store.try(() => firstValueFrom(this.changes.settled({ kind: 'job', id: jobId })));
    await this.store.load(this.id());
    // The button it was opened by was drawn anew meanwhile, so that it could not get the focus back by itself.
    afterNextRender(() => this.host.nativeElement.querySelector<HTMLElement>(`[data-row="${rowId}"] button`)?.focus(), {
      injector: this.injector,
    });
  }

  protected start({ sheets, confirmed }: ToSend): Promise<void> {
    const seal = this.store.seal();
    return this.store.change(({ id }) => this.api.startSeries(id, { sheets, confirmed, seal }));
  }

  /** Scrolls to the next file that cannot be printed so, and from the last to the first. */
  protected showUnfit(): void {
    const viewport = this.viewport();
    if (!viewport) return;
    const top = Math.round(viewport.measureScrollOffset() / ROW);
    const unfit = this.store.rows().flatMap(({ mark }, at) => (mark === 'unfit' ? [at] : []));
    viewport.scrollToIndex(unfit.find((at) => at > top) ?? unfit[0] ?? 0);
  }

  protected pause(): Promise<void> {
    return this.store.change(({ id }) => this.api.pauseSeries(id));
  }

  protected resume(again: boolean): Promise<void> {
    return this.store.change(({ id }) => this.api.resumeSeries(id, again));
  }

  protected async remove({ id }: Pick<SeriesBrief, 'id'>): Promise<void> {
    await this.store.tell(async () => {
      await firstValueFrom(this.api.removeSeries(id));
      if (id === this.id()) await this.router.navigate(['/series']);
      await this.store.list();
    });
  }
}
