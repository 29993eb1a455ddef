import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { saySize, trayName, writeSelection, type Sheet } from '@foglio/core';
import { Store } from '@ngrx/store';
import { SideView, type PageSource } from '../pages/side-view';
import { BenchActions } from '../state/bench.actions';
import { benchFeature, pagesOf } from '../state/bench.state';
import { COLUMN_GAP, FACE_GAP, layOutLanes, NO_TRAY, saySheet, visibleRange, type Lane } from './lanes-layout';
import { pageSourceOf } from './page-source';
import { sayType } from './paper-words';
import { trayColour, trayInk, trayMark } from './tray-mark';

interface ColumnView {
  readonly sheet: Sheet;
  readonly left: number;
  readonly width: number;
  readonly lane: Lane;
  readonly chosen: boolean;
  readonly label: string;
  readonly front: string;
  readonly back: string;
}

const HEAD = 168;
const NUMBERS = 30;

/** One lane a tray, one column a sheet, in the order they come out. Only what can be seen is drawn. */
@Component({
  selector: 'fo-lanes',
  imports: [CdkDrag, CdkDropList, CdkDropListGroup, SideView],
  templateUrl: './lanes.html',
  styleUrl: './lanes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Lanes {
  /** Whether the other ways lie over the lanes. */
  readonly waysOpen = input(false);
  readonly waysWanted = output<void>();
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly scroller = viewChild.required<ElementRef<HTMLElement>>('scroller');
  private readonly viewport = signal({ left: 0, width: 0, height: 0 });

  protected readonly head = HEAD;
  protected readonly numbers = NUMBERS;
  protected readonly faceGap = FACE_GAP;
  protected readonly columnGap = COLUMN_GAP;
  protected readonly plan = this.store.selectSignal(benchFeature.selectPlan);
  protected readonly shown = this.store.selectSignal(benchFeature.selectSheet);
  private readonly anchor = this.store.selectSignal(benchFeature.selectAnchor);
  protected readonly stale = computed(() => this.bench().trouble !== null);
  protected readonly grey = computed(() => this.bench().ticket?.color === 'monochrome');
  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));

  private readonly profile = computed(() => this.bench().printer?.profile ?? null);
  private readonly viewHeight = computed(() => this.viewport().height);
  private readonly viewWidth = computed(() => this.viewport().width);
  protected readonly layout = computed(() => {
    const plan = this.plan();
    const profile = this.profile();
    return plan && profile ? layOutLanes(plan, profile, this.viewHeight() - NUMBERS, this.viewWidth() - HEAD) : null;
  });

  protected readonly width = computed(() => this.layout()?.columns.at(-1) ?? 0);

  protected readonly columns = computed<readonly ColumnView[]>(() => {
    const plan = this.plan();
    const layout = this.layout();
    if (!plan || !layout || plan.sheets.length + 1 !== layout.columns.length) return [];
    const { left, width } = this.viewport();
    const [from, to] = visibleRange(layout.columns, left, Math.max(0, width - HEAD));
    const [first, last] = [Math.min(this.shown(), this.anchor()), Math.max(this.shown(), this.anchor())];
    return plan.sheets.slice(from, to).map((sheet) => {
      const lane = layout.lanes.find(({ id }) => id === (sheet.tray ?? NO_TRAY)) as Lane;
      const start = layout.columns[sheet.index - 1] as number;
      return {
        sheet,
        left: start,
        width: (layout.columns[sheet.index] as number) - start,
        lane,
        chosen: sheet.index >= first && sheet.index <= last,
        label: saySheet(sheet, plan.sheets.length, this.nameOf(lane)),
        front: sheet.slip ? 'slip' : label(sheet.front.cells),
        back: sheet.back ? label(sheet.back.cells) : '',
      };
    });
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  constructor() {
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const element = this.scroller().nativeElement;
      const observer = new ResizeObserver(() => this.look());
      observer.observe(element);
      destroyed.onDestroy(() => observer.disconnect());
      this.look();
    });
    // Only a newly chosen sheet is scrolled to; a new plan leaves the lanes where the person has them.
    effect(() => {
      const shown = this.shown();
      untracked(() => this.bringIntoView(shown));
    });
  }

  protected look(): void {
    const { scrollLeft: left, clientWidth: width, clientHeight: height } = this.scroller().nativeElement;
    this.viewport.set({ left, width, height });
  }

  protected nameOf(lane: Lane): string {
    if (lane.tray) return trayName(lane.tray);
    return lane.id === NO_TRAY ? 'No tray' : `“${lane.id}”`;
  }

  /** "A4 letterhead 90 g" */
  protected paperOf({ tray }: Lane): string {
    if (!tray) return 'not in this printer';
    const type = tray.type === null ? '' : ` ${sayType(tray.type)}`;
    return `${saySize(tray.size)}${type}${tray.weight === null ? '' : `, ${tray.weight} g/m²`}`;
  }

  protected amountOf({ tray, needed }: Lane): string {
    if (tray === null || tray.loaded === null) return `takes ${needed}`;
    return needed > tray.loaded ? `needs ${needed}, holds ${tray.loaded}` : `takes ${needed} of ${tray.loaded} loaded`;
  }

  protected filled({ tray, needed }: Lane): number {
    return tray?.loaded ? Math.min(100, (100 * needed) / tray.loaded) : 100;
  }

  protected isShort({ tray, needed }: Lane): boolean {
    return tray !== null && tray.loaded !== null && needed > tray.loaded;
  }

  protected choose(event: MouseEvent, sheet: Sheet): void {
    this.store.dispatch(BenchActions.sheetChosen({ sheet: sheet.index, extend: event.shiftKey }));
  }

  protected drop(event: CdkDragDrop<Lane, Lane, Sheet>): void {
    const lane = event.container.data;
    if (event.container === event.previousContainer || !lane.tray) return;
    const dragged = event.item.data;
    const chosen = this.columns().find(({ sheet }) => sheet === dragged)?.chosen;
    const { plan, sheet, anchor } = this.bench();
    const sheets = chosen
      ? (plan?.sheets.slice(Math.min(sheet, anchor) - 1, Math.max(sheet, anchor)) ?? [])
      : [dragged];
    this.store.dispatch(BenchActions.pagesRouted({ pages: pagesOf(sheets), change: { tray: lane.tray.id } }));
  }

  private bringIntoView(index: number): void {
    const layout = this.layout();
    const element = this.scroller().nativeElement;
    const start = layout?.columns[index - 1];
    const end = layout?.columns[index];
    if (start === undefined || end === undefined) return;
    const room = element.clientWidth - HEAD;
    if (start < element.scrollLeft) element.scrollLeft = start;
    else if (end > element.scrollLeft + room) element.scrollLeft = end - room;
  }
}

/** The page numbers on a side; several in their shortest form, since a small sheet has no room for more. */
function label(cells: Sheet['front']['cells']): string {
  const pages = cells.map(({ page }) => page);
  return pages.length > 2 ? writeSelection(pages, Infinity).replaceAll('-', '–') : pages.join(' ');
}
