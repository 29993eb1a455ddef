import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  resource,
  signal,
  untracked,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { countMarked, isMarked, marksFrom, sayMarks, type MarkedSheet, type Marks } from '@foglio/core';
import type { PrinterRecord, SendingRecord, SentSheet } from '@foglio/api';
import { firstValueFrom } from 'rxjs';
import { Api, sayError } from '../api/api';
import { countSheets } from '../bench/amounts';
import { trayColour, trayInk, trayMark } from '../bench/tray-mark';
import { markedAs, NOTHING_MARKED, pressed, sayPages, written, type SheetMarks } from './sheet-marks';

/** A sheet of one set as it is drawn. */
interface Tile extends MarkedSheet {
  /** The pages on it: "10 and 11". */
  readonly front: string;
  readonly back: string | null;
  /** The tray's place at the printer; -1: unknown. */
  readonly place: number;
  readonly isLandscape: boolean;
}

/** A line of tiles; the first of a set says which. */
interface Row {
  readonly set: number;
  readonly isFirst: boolean;
  readonly tiles: readonly Tile[];
}

/** Room of a tile with what is about it, and of the column that names the sets, in pixels. */
const TILE = 98;
const NAMES = 64;

/** The sheets of a job that is over, to mark those that are to be printed again. */
@Component({
  selector: 'fo-again-sheets',
  imports: [MatButton, ScrollingModule],
  templateUrl: './again-sheets.html',
  styleUrl: './again-sheets.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AgainSheets {
  readonly sending = input.required<SendingRecord>();
  readonly printer = input.required<PrinterRecord | null>();
  /** Why what was wanted last was refused; null: it was not. */
  readonly refused = input<string | null>(null);
  /** The sheets that a person wants again. */
  readonly printed = output<Marks>();
  private readonly api = inject(Api);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly id = computed(() => this.sending().id);
  protected readonly record = resource({
    params: () => this.id(),
    loader: ({ params }) => firstValueFrom(this.api.sheetsOf(params)),
  });
  protected readonly trouble = computed(() => {
    const error = this.record.error();
    return error ? sayError(error) : null;
  });
  protected readonly sheets = computed(() => (this.trouble() === null ? this.record.value() : undefined));
  /** Of another sending nothing is marked yet. */
  protected readonly marked = linkedSignal<string, SheetMarks>({ source: this.id, computation: () => NOTHING_MARKED });
  protected readonly count = computed(() => countMarked(this.marked().marks));
  private readonly columns = signal(8);
  /** What was wanted last. */
  private sent: { readonly id: string; readonly marked: SheetMarks } | null = null;

  protected readonly said = computed(() => {
    const sheets = this.sheets();
    const { marks } = this.marked();
    if (!sheets || marks.length === 0) return null;
    const pages = sayPages(marks, sheets);
    return { sheets: sayMarks(marks, sheets), pages: pages === '' ? '' : ` · ${pages}` };
  });

  protected readonly rows = computed<readonly Row[]>(() => {
    const record = this.sheets();
    if (!record) return [];
    const columns = this.columns();
    const places = new Map(this.printer()?.profile.trays.map(({ id }, place) => [id, place]));
    const drawn = record.sheets.map((sheet) => drawnAs(sheet, places));
    const rows: Row[] = [];
    for (let set = 1; set <= record.sets; set += 1) {
      const tiles = drawn.flatMap((tile, index): Tile[] => {
        const one = { set, sheet: index + 1 };
        return tile && (record.prints === null || isMarked(record.prints, one)) ? [{ ...one, ...tile }] : [];
      });
      for (let from = 0; from < tiles.length; from += columns)
        rows.push({ set, isFirst: from === 0, tiles: tiles.slice(from, from + columns) });
    }
    return rows;
  });

  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  constructor() {
    const destroyed = inject(DestroyRef);
    effect(() => {
      if (this.refused() !== null) untracked(() => this.markAgain());
    });
    afterNextRender(() => {
      const observer = new ResizeObserver(() =>
        this.columns.set(Math.max(1, Math.floor((this.host.clientWidth - NAMES) / TILE))),
      );
      observer.observe(this.host);
      destroyed.onDestroy(() => observer.disconnect());
    });
  }

  protected isMarked = (tile: Tile): boolean => isMarked(this.marked().marks, tile);

  protected press({ set, sheet }: Tile, { shiftKey }: MouseEvent): void {
    this.marked.update((before) => pressed(before, { set, sheet }, shiftKey, this.sheets()!));
  }

  protected write(text: string): void {
    this.marked.update((before) => written(before, text, this.sheets()!));
  }

  protected markFrom(missing: MarkedSheet): void {
    const { sets, sheets } = this.sheets()!;
    this.marked.set(markedAs(marksFrom(missing, { sets, sheets: sheets.length })));
  }

  protected none(): void {
    this.marked.set(NOTHING_MARKED);
  }

  /** What is sent is marked no more: the next press would be another reprint. */
  protected print(): void {
    this.sent = { id: this.id(), marked: this.marked() };
    this.printed.emit(this.marked().marks);
    this.none();
    // The button has nothing to print now, and would lose the focus to nowhere.
    this.host.querySelector('input')?.focus();
  }

  /** Refused, or unanswered, it is marked again, so that nobody has to look for the sheets once more. */
  private markAgain(): void {
    const { sent } = this;
    this.sent = null;
    if (sent?.id === this.id() && this.marked() === NOTHING_MARKED) this.marked.set(sent.marked);
  }

  protected label({ set, sheet, front, back }: Tile): string {
    const inSet = this.sheets()!.sets > 1 ? ` of set ${set}` : '';
    return `Sheet ${sheet}${inSet}: ${front}${back === null ? '' : `, behind it ${back}`}`;
  }

  protected readonly these = computed(() => (this.count() === 1 ? 'this sheet' : `these ${countSheets(this.count())}`));
}

/** Null: a slip, which is not printed again. */
function drawnAs(
  { tray, slip, orientation, front, back }: SentSheet,
  places: ReadonlyMap<string, number>,
): Omit<Tile, keyof MarkedSheet> | null {
  if (slip) return null;
  const say = (pages: SentSheet['front']): string =>
    pages.length === 0 ? 'blank' : [...new Set(pages.map(({ page }) => page))].join(', ');
  return {
    front: say(front),
    back: back && say(back),
    place: places.get(tray ?? '') ?? -1,
    isLandscape: orientation === 'landscape',
  };
}
