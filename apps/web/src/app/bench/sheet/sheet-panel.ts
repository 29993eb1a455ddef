import { NgTemplateOutlet } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  output,
  signal,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  marginAt,
  findTray,
  isInformationSheet,
  legibility,
  saySize,
  trayName,
  type Check,
  type Repair,
  type Sheet,
  type Side,
  type Sides,
} from '@foglio/core';
import { Store } from '@ngrx/store';
import { sayTrayHolding, sayType } from '@foglio/sentence';
import { SideView, type PageSource } from '../../pages/side-view';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { BenchDialogs } from '../bench-dialogs';
import { pageSourceOf } from '../page-source';
import { PaperOffer } from '../paper-offer';
import { trayColour, trayInk, trayMark } from '../tray-mark';
import { Loupe, type PlaceOnSide } from './loupe';
import { RepeatOffer } from './repeat-offer';
import { faceWords, sayCaption, sayFinished, sayScales, sayTurning, turnsLikeBook } from './sheet-words';

/** Room for a sheet's sides in the narrowest panel, and the panel's own edges, in CSS pixels. */
const LEAST_ROOM = 284;
const EDGES = 32;
const GAP = 14;
/** Of the room's width: landscape sides lie below each other, one side alone is turned over; both leave room for the facts. */
const LANDSCAPE = 0.79;
const ALONE = { height: 1.13, besideLoupe: 0.81 };

/** The chosen sheet as it will be printed, what is to be known of it, and where its pages come from. */
@Component({
  selector: 'fo-sheet-panel',
  imports: [Loupe, MatButton, NgTemplateOutlet, PaperOffer, SideView, RepeatOffer],
  templateUrl: './sheet-panel.html',
  styleUrl: './sheet-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SheetPanel {
  readonly goTo = output<number>();
  private readonly store = inject(Store);
  protected readonly dialogs = inject(BenchDialogs, { optional: true });
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly sheet = this.store.selectSignal(benchFeature.selectShownSheet);
  protected readonly plan = computed(() => this.bench().plan);
  protected readonly count = computed(() => this.bench().plan?.sheets.length ?? 0);
  protected readonly first = computed(() => (this.bench().plan?.informationSheet ? 0 : 1));
  protected readonly isInformation = computed(() => {
    const sheet = this.sheet();
    return sheet !== null && isInformationSheet(sheet);
  });
  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));
  protected readonly margin = computed(() => {
    const { printer } = this.bench();
    return printer ? marginAt(printer.profile, this.sheet()?.tray ?? null) : null;
  });
  protected readonly trays = computed(() => this.bench().printer?.profile.trays ?? []);
  protected readonly routable = this.store.selectSignal(benchFeature.selectRoutable);
  /** Whether either side is read across. */
  protected readonly landscape = computed(() => {
    const sheet = this.sheet();
    return [sheet?.front, sheet?.back].some((side) => side?.orientation === 'landscape');
  });

  /** Portrait sides stand beside each other, landscape ones below each other. */
  protected readonly scale = computed(() => {
    const sheet = this.sheet();
    if (!sheet) return 0;
    const { width, height } = sheet.paper;
    const [across, up] = this.landscape() ? [height, width] : [width, height];
    const room = this.room();
    if (this.alone()) return room * Math.min(1 / across, (this.loupe() ? ALONE.besideLoupe : ALONE.height) / up);
    return this.landscape() ? (room * LANDSCAPE) / across : (room - GAP) / 2 / across;
  });

  /** Width for the sides, as the panel grows with the screen. */
  private readonly room = signal(LEAST_ROOM);

  constructor() {
    const { nativeElement } = inject<ElementRef<HTMLElement>>(ElementRef);
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const observer = new ResizeObserver(() => this.room.set(Math.max(LEAST_ROOM, nativeElement.clientWidth - EDGES)));
      observer.observe(nativeElement);
      destroyed.onDestroy(() => observer.disconnect());
    });
  }

  /** One side alone, which is turned over, in place of both beside each other. */
  protected readonly alone = signal(false);
  /** Whether the back lies up. */
  protected readonly turned = signal(false);
  /** Upward and not sideways: the sheet turns on its upper edge. */
  protected readonly turnsUpward = computed(() => {
    const sheet = this.sheet();
    return sheet !== null && sheet.sides !== 'one-sided' && !turnsLikeBook(sheet);
  });

  protected readonly loupe = signal(false);
  protected readonly pointed = signal<PlaceOnSide & { readonly back: boolean }>({ x: 0.3, y: 0.15, back: false });
  protected readonly pointedSide = computed(() => {
    const sheet = this.sheet();
    const back = this.alone() ? this.turned() : this.pointed().back;
    return back ? (sheet?.back ?? null) : (sheet?.front ?? null);
  });

  protected point(event: PointerEvent, back: boolean): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    this.pointed.set({ x, y, back });
  }

  /** Shows the other side of the sheet. */
  turnOver(): void {
    this.turned.set(this.alone() ? !this.turned() : true);
    this.alone.set(true);
  }

  /** Height of the smallest text on the sheet as it is printed, in points. */
  protected readonly smallestTextPt = computed(() => {
    const sheet = this.sheet();
    if (!sheet) return null;
    const { smallestTextPt, known } = legibility([sheet], this.bench().documents);
    return known ? smallestTextPt : null;
  });

  protected readonly tray = computed(() => {
    const id = this.sheet()?.tray;
    const profile = this.bench().printer?.profile;
    return id != null && profile ? findTray(profile, id) : null;
  });

  protected readonly trayLabel = computed(() => {
    const tray = this.tray();
    if (tray) return trayName(tray);
    return this.sheet()?.tray == null ? 'no tray' : 'a tray it has not';
  });

  protected readonly facts = computed<readonly (readonly [string, string])[]>(() => {
    const sheet = this.sheet();
    if (!sheet) return [];
    const tray = this.tray();
    const paper = [
      `${saySize(sheet.paper.size)} ${sheet.front.orientation}`,
      tray?.type ? sayType(tray.type) : '',
      tray?.weight ? `${tray.weight} g/m²` : '',
    ];
    const said = ['Paper', paper.filter((part) => part !== '').join(', ')] as const;
    const turns = ['Turns', sayTurning(sheet, this.bench().ticket?.bind ?? 'left')] as const;
    const finished = sayFinished(this.plan(), sheet);
    const last = finished === null ? [turns] : [turns, ['Finish', finished] as const];
    if (this.isInformation()) return [said, ...last];
    return [said, ['Scale', sayScales(sheet)], ['Text', this.sayText(sheet)], ...last];
  });

  private sayText(sheet: Sheet): string {
    const points = this.smallestTextPt();
    if (points !== null) return `from ${points.toFixed(1)} pt as printed`;
    return legibility([sheet], this.bench().documents).known ? 'none' : 'size not known yet';
  }

  protected readonly checks = computed<readonly Check[]>(() => {
    const index = this.sheet()?.index;
    return (this.bench().plan?.checks ?? []).filter(({ sheets }) => index !== undefined && sheets.includes(index));
  });

  /** "Page 1", "3 pages" */
  protected readonly subject = computed(() => {
    const pages = this.routable();
    if (this.isInformation()) return 'This sheet';
    return pages.length === 1 ? `Page ${pages[0]?.page}` : `These ${pages.length} pages`;
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;
  protected readonly holding = sayTrayHolding;

  protected caption(sheet: Sheet, back: boolean): string {
    const { documents, plan } = this.bench();
    return sayCaption(sheet, back, faceWords(sheet, documents, plan));
  }

  /** Of the document whose page lies on the sheet: all its pages, or those that are chosen. */
  protected drawPart(): void {
    const pages = this.routable();
    const [first] = pages;
    if (first) void this.dialogs?.drawPart({ document: first.document - 1, pages });
  }

  protected giveTray(tray: string | null): void {
    this.store.dispatch(BenchActions.pagesRouted({ pages: this.routable(), change: { tray } }));
  }

  protected giveSides(sides: Sides): void {
    const own = this.bench().ticket?.sides;
    this.store.dispatch(
      BenchActions.pagesRouted({ pages: this.routable(), change: { sides: sides === own ? null : sides } }),
    );
  }

  /** A repair is a change of the ticket like any other, and undone like any other. */
  protected mend({ patch }: Repair): void {
    const ticket = this.bench().ticket;
    if (ticket) this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, ...patch } }));
  }

  protected step(by: number): void {
    const target = (this.sheet()?.index ?? 1) + by;
    if (target >= this.first() && target <= this.count()) this.goTo.emit(target);
  }

  /** A sheet by its number, or by a page on it: "7", "page 12", "p12". */
  protected typed(text: string): void {
    const [, byPage, digits] = /^\s*(p(?:age)?)?\s*(\d+)\s*$/i.exec(text) ?? [];
    const number = Number(digits);
    const target = byPage ? this.sheetOfPage(number) : number;
    if (target !== undefined && target >= 1 && target <= this.count()) this.goTo.emit(target);
  }

  private sheetOfPage(page: number): number | undefined {
    const carries = ({ cells }: Side): boolean => cells.some((cell) => cell.page === page);
    return this.bench().plan?.sheets.find(({ front, back }) => carries(front) || (back !== null && carries(back)))
      ?.index;
  }

  protected readonly twoSided = computed(() => this.sheet()?.sides !== 'one-sided');
}
