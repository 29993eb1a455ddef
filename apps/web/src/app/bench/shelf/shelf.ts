import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { byPosition, writeSelection, type PageRange, type PageToRoute, type Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { Arrivals, type Replaced } from '../../documents/arrivals';
import { FileDrop } from '../../documents/file-drop';
import { titleOf } from '../../documents/job-title';
import { PageImage } from '../../pages/page-image';
import { tellCame } from '../../programs/program-words';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { contentAddress } from '../page-source';
import { ContentsList } from './contents-list';
import { DocumentList } from './document-list';
import { picksOf, printedPages, sayPrinted, ticked } from './page-picks';
import { SelectionField } from './selection-field';
import { thumbOf, traysOfPages, type Thumb, type Thumbed } from './thumbs';
import { trayColour, trayInk, trayMark } from '../tray-mark';

const PER_ROW = 3;

/** The documents and their pages: what is printed, from which tray, and what is chosen. */
@Component({
  selector: 'fo-shelf',
  imports: [ContentsList, DocumentList, FileDrop, MatButton, MatIcon, PageImage, ScrollingModule, SelectionField],
  templateUrl: './shelf.html',
  styleUrl: './shelf.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Shelf {
  private readonly arrivals = inject(Arrivals);
  private readonly store = inject(Store);
  // Each part by itself, so that a change of one does not work out again what depends on the others.
  private readonly jobId = this.store.selectSignal(benchFeature.selectJobId);
  private readonly ticket = this.store.selectSignal(benchFeature.selectTicket);
  private readonly plan = this.store.selectSignal(benchFeature.selectPlan);
  private readonly printer = this.store.selectSignal(benchFeature.selectPrinter);
  private readonly pages = this.store.selectSignal(benchFeature.selectPages);
  /** The document whose pages are shown, from 0; one that is taken out gives way to the last. */
  protected readonly at = linkedSignal<number, number>({
    source: () => this.documents().length,
    computation: (count, before) => Math.max(0, Math.min(before?.value ?? 0, count - 1)),
  });
  /** Whether sections and headings are shown in place of the pages. */
  protected readonly contents = signal(false);
  protected readonly documents = this.store.selectSignal(benchFeature.selectDocuments);
  protected readonly facts = computed(() => this.documents()[this.at()] ?? null);
  protected readonly settings = computed(() => this.ticket()?.documents[this.at()] ?? null);
  protected readonly url = computed(() => {
    const facts = this.facts();
    return facts ? contentAddress(facts) : '';
  });
  /** What is said while files are taken in. */
  protected readonly uploading = computed(() => {
    const mine = this.arrivals.underway().find(({ jobId }) => jobId === this.jobId());
    if (!mine) return null;
    return mine.count === 1 ? 'Taking it in' : `Taking in ${mine.number} of ${mine.count}`;
  });
  /** Whether what is written of the pages is meant for every document. */
  protected readonly forAll = linkedSignal({ source: this.jobId, computation: () => false });
  private anchor: number | null = null;
  /** The page on which the mouse was pressed, and whether others were drawn over since. */
  private pressed: number | null = null;
  private drawn = false;

  /** Pages printed, in print order; empty while the text cannot be read. */
  protected readonly printed = computed(() => printedPages(this.settings(), this.facts()));

  protected readonly isPrinted = computed(() => new Set(this.printed()));

  private readonly came = this.store.selectSignal(benchFeature.selectCame);
  /** Of how the job came, and of the document. */
  protected readonly remarks = computed(() => {
    const came = this.came();
    return [...(came ? tellCame(came) : []), ...(this.facts()?.remarks ?? [])];
  });
  protected readonly count = computed(() => sayPrinted(this.printed(), this.facts()?.pages.length ?? 0));
  protected readonly isChosen = computed(
    () => new Set(this.pages().flatMap(({ document, page }) => (document === this.at() + 1 ? [page] : []))),
  );

  private readonly thumbed = computed<Thumbed>(() => ({
    printed: this.isPrinted(),
    chosen: this.isChosen(),
    trayOfPage: traysOfPages(this.plan(), this.at() + 1),
    trays: this.printer()?.profile.trays ?? [],
    rotate: this.settings()?.rotate ?? 0,
  }));

  /** First page of each row. Only rows in sight are worked out further, by `thumbsOf`. */
  protected readonly rows = computed<readonly number[]>(() =>
    Array.from({ length: Math.ceil((this.facts()?.pages.length ?? 0) / PER_ROW) }, (_, row) => row * PER_ROW + 1),
  );

  protected thumbsOf(first: number): Thumb[] {
    const pages = this.facts()?.pages.slice(first - 1, first - 1 + PER_ROW) ?? [];
    return pages.map((size, index) => thumbOf(first + index, size, this.thumbed()));
  }

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  protected setText(pages: string): void {
    this.changePages(pages, `pages ${this.at()}`);
  }

  /** From now on one line for all of them, which begins with the one that stands there; or each its own again. */
  protected writeForAll(): void {
    this.forAll.update((together) => !together);
    if (this.forAll()) this.changePages(this.settings()?.pages ?? 'all');
  }

  protected pick(pages: string): void {
    this.changePages(pages);
  }

  protected readonly picks = computed(() => {
    const { pages = [] } = this.facts() ?? {};
    return picksOf(pages, this.settings()?.rotate ?? 0, this.printed().length === pages.length);
  });

  protected choosePages({ from, to }: PageRange): void {
    this.anchor = from;
    this.chooseRange(from, to);
  }

  /** The tick of a thumbnail: in or out, the text written anew so that both always agree. */
  protected togglePrinted(thumb: Thumb): void {
    this.print([thumb.page], !thumb.printed);
  }

  protected printRange({ range: { from, to }, print }: { range: PageRange; print: boolean }): void {
    this.print(
      Array.from({ length: to - from + 1 }, (_, index) => from + index),
      print,
    );
  }

  /** Of the chosen pages: only they are printed, or all that is printed but they. */
  protected printOnly(): void {
    const chosen = this.isChosen();
    const pages = [...chosen].sort((one, other) => one - other);
    this.write(pages);
  }

  protected printAllBut(): void {
    const chosen = this.isChosen();
    this.write(this.printed().filter((page) => !chosen.has(page)));
  }

  private print(wanted: readonly number[], print: boolean): void {
    this.write(ticked(this.printed(), wanted, print));
  }

  /** Pages that were pointed at: they are named by their places, so labels give way to places in the routes too. */
  private write(pages: readonly number[]): void {
    const last = this.facts()?.pages.length ?? 0;
    const ticket = this.ticket();
    if (pages.length === 0 || !ticket) return;
    this.forAll.set(false);
    this.changePages(writeSelection(pages, last), undefined, byPosition(ticket, this.documents(), this.at() + 1));
  }

  protected choose(event: MouseEvent | KeyboardEvent, page: number): void {
    // The click that ends a drawing over chooses nothing by itself.
    if (this.drawn) {
      this.drawn = false;
      return;
    }
    const document = this.at() + 1;
    const already = this.pages();
    let pages: readonly PageToRoute[] = [{ document, page }];
    if (event.shiftKey && this.anchor !== null) {
      const [from, to] = [Math.min(this.anchor, page), Math.max(this.anchor, page)];
      return this.chooseRange(from, to);
    } else {
      this.anchor = page;
      if (event.ctrlKey || event.metaKey) {
        const there = already.some((one) => one.document === document && one.page === page);
        pages = there
          ? already.filter((one) => one.document !== document || one.page !== page)
          : [...already, ...pages];
      }
    }
    this.store.dispatch(BenchActions.pagesChosen({ pages }));
  }

  /** Drawn over with the button held: everything from the page where that began. */
  protected drawOver(event: PointerEvent, page: number): void {
    if (event.buttons !== 1 || event.pointerType !== 'mouse' || this.pressed === null || this.pressed === page) return;
    this.anchor = this.pressed;
    this.drawn = true;
    this.chooseRange(Math.min(this.pressed, page), Math.max(this.pressed, page));
  }

  protected press(page: number): void {
    this.pressed = page;
    this.drawn = false;
  }

  private chooseRange(from: number, to: number): void {
    const document = this.at() + 1;
    const pages = Array.from({ length: to - from + 1 }, (_, index) => ({ document, page: from + index }));
    this.store.dispatch(BenchActions.pagesChosen({ pages }));
  }

  /** Arrows move by thumbnail; the next one may not be drawn yet, so it is scrolled to first. */
  protected move(event: KeyboardEvent, page: number): void {
    const steps: Record<string, number> = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: PER_ROW, ArrowUp: -PER_ROW };
    const step = steps[event.key];
    const target = page + (step ?? 0);
    if (step === undefined || target < 1 || target > (this.facts()?.pages.length ?? 0)) return;
    event.preventDefault();
    event.stopPropagation();
    const button = (event.currentTarget as HTMLElement).closest('cdk-virtual-scroll-viewport');
    const next = button?.querySelector<HTMLElement>(`[data-page="${target}"]`);
    next?.focus();
    if (event.shiftKey) this.choose(event, target);
  }

  protected async add(files: readonly File[]): Promise<void> {
    await this.bring(files, null);
    this.at.set(Math.max(0, this.documents().length - 1));
  }

  protected replace({ place, file }: { place: number; file: File }): Promise<void> {
    const replaced = this.documents()[place]?.id;
    return this.bring([file], replaced === undefined ? null : { place, file: replaced });
  }

  /** Into this job, also where it is not on the screen any more once they have been taken in. */
  private async bring(files: readonly File[], replaced: Replaced | null): Promise<void> {
    const [jobId, ticket] = [this.jobId(), this.ticket()];
    if (jobId === null || !ticket) return;
    await this.arrivals.bring(files, { jobId, title: titleOf(ticket, this.documents()), replaced });
  }

  private changePages(pages: string, typing?: string, ticket: Ticket | null = this.ticket()): void {
    if (!ticket) return;
    const documents = ticket.documents.map((one, index) =>
      this.forAll() || index === this.at() ? { ...one, pages } : one,
    );
    const changed = { ...ticket, documents };
    this.store.dispatch(
      BenchActions.ticketChanged(typing === undefined ? { ticket: changed } : { ticket: changed, typing }),
    );
  }
}
