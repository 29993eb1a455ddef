import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { findTray, saySize, trayName, type Check, type Repair, type Sheet, type Sides } from '@foglio/core';
import { Store } from '@ngrx/store';
import { SideView, type PageSource } from '../pages/side-view';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import { sayFace } from './lanes-layout';
import { pageSourceOf } from './page-source';
import { sayType } from './paper-words';
import { trayColour, trayInk, trayMark } from './tray-mark';

/** Room for a sheet's sides, in CSS pixels. */
const ROOM = 284;
const GAP = 14;

/** The chosen sheet as it will be printed, what is to be known of it, and where its pages come from. */
@Component({
  selector: 'fo-sheet-panel',
  imports: [SideView],
  templateUrl: './sheet-panel.html',
  styleUrl: './sheet-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SheetPanel {
  readonly goTo = output<number>();
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly sheet = this.store.selectSignal(benchFeature.selectShownSheet);
  protected readonly count = computed(() => this.bench().plan?.sheets.length ?? 0);
  protected readonly grey = computed(() => this.bench().ticket?.color === 'monochrome');
  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));
  protected readonly margin = computed(() => this.bench().printer?.profile.margin ?? null);
  protected readonly trays = computed(() => this.bench().printer?.profile.trays ?? []);
  protected readonly routable = this.store.selectSignal(benchFeature.selectRoutable);
  protected readonly landscape = computed(() => this.sheet()?.front.orientation === 'landscape');

  /** Portrait sides stand beside each other, landscape ones below each other. */
  protected readonly scale = computed(() => {
    const sheet = this.sheet();
    if (!sheet) return 0;
    return this.landscape() ? ROOM / sheet.paper.height : (ROOM - GAP) / 2 / sheet.paper.width;
  });

  protected readonly tray = computed(() => {
    const id = this.sheet()?.tray;
    const profile = this.bench().printer?.profile;
    return id != null && profile ? findTray(profile, id) : null;
  });

  protected readonly trayLabel = computed(() => {
    const tray = this.tray();
    return tray ? trayName(tray) : (this.sheet()?.tray ?? 'no tray');
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
    return [
      ['Paper', paper.filter((part) => part !== '').join(', ')],
      ['Scale', sayScales(sheet)],
      ['Turns', sayTurning(sheet)],
    ];
  });

  protected readonly checks = computed<readonly Check[]>(() => {
    const index = this.sheet()?.index;
    return (this.bench().plan?.checks ?? []).filter(({ sheets }) => index !== undefined && sheets.includes(index));
  });

  /** "Page 1", "3 pages" */
  protected readonly subject = computed(() => {
    const pages = this.routable();
    return pages.length === 1 ? `Page ${pages[0]?.page}` : `These ${pages.length} pages`;
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  protected face(sheet: Sheet, side: Sheet['back']): string {
    if (!side) return sheet.sides === 'one-sided' ? 'not printed' : 'blank';
    return sayFace(side);
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
    if (target >= 1 && target <= this.count()) this.goTo.emit(target);
  }

  protected typed(text: string): void {
    const target = Number(text);
    if (Number.isInteger(target) && target >= 1 && target <= this.count()) this.goTo.emit(target);
  }

  protected readonly twoSided = computed(() => this.sheet()?.sides !== 'one-sided');
}

function sayScales(sheet: Sheet): string {
  const scales = new Set(
    [...sheet.front.cells, ...(sheet.back?.cells ?? [])].map(({ scale }) => (scale * 100).toFixed(1)),
  );
  const said = [...scales].map((scale) => `${scale.replace(/\.0$/, '')} %`);
  return said.length === 0 ? 'nothing printed' : said.join(' and ');
}

function sayTurning({ sides, front }: Sheet): string {
  if (sides === 'one-sided') return 'printed on one side';
  const alongLong = sides === 'two-sided-long-edge';
  const likeBook = (front.orientation === 'portrait') === alongLong;
  return `${likeBook ? 'like a book' : 'like a pad'}, on its ${alongLong ? 'long' : 'short'} edge`;
}
