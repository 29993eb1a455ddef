import { MatButton } from '@angular/material/button';
import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { NgTemplateOutlet } from '@angular/common';
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
import { facingOf, isInformationSheet, trayName, type Sheet } from '@foglio/core';
import { Store } from '@ngrx/store';
import { SideView, type PageSource } from '../../pages/side-view';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature, pagesOf } from '../../state/bench.state';
import type { ColumnView } from './column-view';
import { columnOf } from './columns';
import {
  isShort,
  passLines,
  runOuts,
  sayAmount,
  sayBlock,
  sayLanePaper,
  sayMaking,
  saySets,
  documentNames,
  numbersOn,
  saySheet,
} from './lane-words';
import { BLOCK_WIDTH, COLUMN_GAP, FACE_GAP, layOutLanes, NO_TRAY, visibleRange, type Lane } from './lanes-layout';
import { sheetAt, sheetsBetween } from '../shown-sheets';
import { joinedPlaces } from '../leafing/joined';
import { pageSourceOf } from '../page-source';
import { trayColour, trayInk, trayMark } from '../tray-mark';

const HEAD = 168;
const NUMBERS = 30;
/** Room for the slip after a set. */
const SLIP = 84;
/** The line over the numbers that tells of sets, folding and passes. */
const BRACKET = 22;

/** One lane a tray, one column a sheet, in the order they come out. Only what can be seen is drawn. */
@Component({
  selector: 'fo-lanes',
  imports: [CdkDrag, CdkDropList, CdkDropListGroup, MatButton, NgTemplateOutlet, SideView],
  templateUrl: './lanes.html',
  styleUrl: './lanes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Lanes {
  /** Whether the other ways lie over the lanes. */
  readonly waysOpen = input(false);
  /** Whether only the lanes are wanted, as of a set-up or of one file among many. */
  readonly isSample = input(false);
  readonly waysWanted = output<void>();
  readonly leafingWanted = output<void>();
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly scroller = viewChild.required<ElementRef<HTMLElement>>('scroller');
  private readonly viewport = signal({ left: 0, width: 0, height: 0 });

  protected readonly head = HEAD;
  protected readonly numbers = NUMBERS;
  protected readonly blockWidth = BLOCK_WIDTH;
  protected readonly faceGap = FACE_GAP;
  protected readonly columnGap = COLUMN_GAP;
  protected readonly plan = this.store.selectSignal(benchFeature.selectPlan);
  protected readonly shown = this.store.selectSignal(benchFeature.selectSheet);
  private readonly anchor = this.store.selectSignal(benchFeature.selectAnchor);
  protected readonly stale = computed(() => this.bench().trouble !== null);
  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));

  private readonly profile = computed(() => this.bench().printer?.profile ?? null);
  private readonly viewHeight = computed(() => this.viewport().height);
  private readonly viewWidth = computed(() => this.viewport().width);
  /** The first sheet of each folded block that was opened. */
  private readonly opened = signal<ReadonlySet<number>>(new Set());
  protected readonly bracket = computed(() => {
    const plan = this.plan();
    const said = plan ? [saySets(plan), sayMaking(plan)].filter((part) => part !== null) : [];
    return said.length === 0 ? null : said.join('; ');
  });
  protected readonly passes = computed(() => {
    const plan = this.plan();
    return plan ? passLines(plan) : null;
  });
  /** Whether the stack would lie with its last sheet on top, which printing the other way round settles. */
  protected readonly comesBackwards = computed(() => {
    const [plan, profile] = [this.plan(), this.profile()];
    const first = plan?.sheets[0];
    if (!plan || !profile || !first || plan.sheets.length < 2 || plan.passes) return false;
    return plan.delivery === 'first-to-last' && facingOf(profile, first) === 'face-up';
  });
  protected readonly above = computed(() => NUMBERS + (this.bracket() === null ? 0 : BRACKET));

  protected readonly layout = computed(() => {
    const plan = this.plan();
    const profile = this.profile();
    if (!plan || !profile) return null;
    return layOutLanes(plan, profile, this.viewHeight() - this.above(), this.viewWidth() - HEAD, this.opened());
  });

  protected readonly width = computed(() => this.layout()?.edges.at(-1) ?? 0);
  /** Room of the information sheet, which stands before the set. */
  protected readonly before = computed(() => (this.plan()?.informationSheet ? (this.layout()?.edges[1] ?? 0) : 0));
  /** The lane of the slips between sets, which have no column of their own. */
  protected readonly slipLane = computed(() => {
    const slip = this.plan()?.slipBetweenSets;
    return slip ? (slip.tray ?? NO_TRAY) : null;
  });
  /** The sheets, and a slip after them. */
  protected readonly wide = computed(() => this.width() + (this.slipLane() === null ? 0 : SLIP));
  /** Of one document none is needed. */
  private readonly names = computed(() => documentNames(this.bench().documents));
  private readonly joined = computed(() => joinedPlaces(this.plan() ?? { sheets: [] }));
  private readonly runOuts = computed(() => runOuts(this.plan()?.checks ?? []));

  protected readonly columns = computed<readonly ColumnView[]>(() => {
    const plan = this.plan();
    const layout = this.layout();
    if (!plan || !layout || layout.columns.at(-1)?.to !== plan.sheets.length) return [];
    const { left, width } = this.viewport();
    const [first, last] = visibleRange(layout.edges, left, Math.max(0, width - HEAD));
    return Array.from({ length: last - first }, (_, index) => this.view(first + index));
  });

  private view(place: number): ColumnView {
    const plan = this.plan()!;
    const layout = this.layout()!;
    const { from, to } = layout.columns[place]!;
    const sheet = sheetAt(plan, from) as Sheet;
    const lane = layout.lanes.find(({ id }) => id === (sheet.tray ?? NO_TRAY)) as Lane;
    const names = this.names();
    const joined = this.joined().get(from);
    const number = numbersOn(sheet.front, names) + (joined ? `, ${joined}` : '');
    const start = layout.edges[place] as number;
    const [first, last] = [Math.min(this.shown(), this.anchor()), Math.max(this.shown(), this.anchor())];
    return {
      sheet,
      block:
        to > from ? { to, ...sayBlock(plan.sheets.slice(from - 1, to)), runsOutAt: this.runOutWithin(from, to) } : null,
      number: to > from ? `${from}–${to}` : from === 0 ? 'Info' : String(from),
      runsOutIn: this.runOuts().get(from) ?? null,
      left: start,
      width: (layout.edges[place + 1] as number) - start,
      lane,
      chosen: from <= last && to >= first,
      label: saySheet(sheet, plan, this.nameOf(lane), names) + (joined ? `, ${joined} to be joined` : ''),
      front: sheet.slip ? 'slip' : from === 0 ? '' : number || (plan.passes ? 'blank' : ''),
      back: sheet.back ? numbersOn(sheet.back, names) : '',
    };
  }

  private runOutWithin(from: number, to: number): number | null {
    return [...this.runOuts().keys()].find((sheet) => sheet >= from && sheet <= to) ?? null;
  }

  protected printBackwards(): void {
    const ticket = this.bench().ticket;
    if (ticket) this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, delivery: 'last-to-first' } }));
  }

  /** Opens a folded block and goes to its first sheet. */
  protected open(sheet: Sheet): void {
    this.opened.update((opened) => new Set([...opened, sheet.index]));
    this.store.dispatch(BenchActions.sheetChosen({ sheet: sheet.index, extend: false }));
  }

  protected readonly hasOpened = computed(() => this.opened().size > 0);

  protected foldAll(): void {
    this.opened.set(new Set());
  }

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
    return lane.id === NO_TRAY ? 'No tray' : 'Not in this printer';
  }

  protected readonly paperOf = sayLanePaper;
  protected readonly amountOf = sayAmount;
  protected readonly isShort = isShort;

  protected filled({ tray, needed }: Lane): number {
    return tray?.loaded ? Math.min(100, (100 * needed) / tray.loaded) : 100;
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
    const sheets = chosen && plan ? sheetsBetween(plan, sheet, anchor) : [dragged];
    if (isInformationSheet(dragged)) this.store.dispatch(BenchActions.sheetChosen({ sheet: 0, extend: false }));
    this.store.dispatch(BenchActions.pagesRouted({ pages: pagesOf(sheets), change: { tray: lane.tray.id } }));
  }

  private bringIntoView(index: number): void {
    const layout = this.layout();
    const element = this.scroller().nativeElement;
    const place = layout ? columnOf(layout.columns, index) : 0;
    const start = layout?.edges[place];
    const end = layout?.edges[place + 1];
    if (start === undefined || end === undefined) return;
    const room = element.clientWidth - HEAD;
    if (start < element.scrollLeft) element.scrollLeft = start;
    else if (end > element.scrollLeft + room) element.scrollLeft = end - room;
  }
}
