import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { DatePipe, NgTemplateOutlet } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatListModule } from '@angular/material/list';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Title } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { SendingAct, SendingRecord, PrinterRecord } from '@foglio/api';
import { readyTimes, type Marks } from '@foglio/core';
import { PrintersNow } from '../news/printers-now';
import { BrowserNoticesSwitch } from '../notices/browser-notices-switch';
import { countSheets } from '../bench/amounts';
import { QueueActions, queueFeature } from '../state/queue.state';
import { isHoldable, isMoving, isOver, percentDone, sayOthers, sayPass, sayPortion, sayState } from './sending-words';
import { ALL_OF_LATE, findSendings, placeAt, placeBy, type Search, WAITING } from './find-sendings';
import { AgainDialog, type AgainData } from './again-dialog';
import { AgainSheets } from './again-sheets';
import { HoldBack } from './hold-back';
import { OwnNameField } from './own-name-field';
import { clock, sayBefore, sayReady, waitingIn } from './ready-words';
import { SeenList } from './seen-list';
import { sendingStack } from '../stack/stack-source';
import { StackViewer } from '../stack/stack-viewer';
import { TurnGuide } from './turn-guide';

/** Jobs sent: how each stands, and what came out. */
@Component({
  selector: 'fo-queue',
  imports: [
    AgainSheets,
    BrowserNoticesSwitch,
    CdkDrag,
    CdkDropList,
    DatePipe,
    HoldBack,
    NgTemplateOutlet,
    MatButton,
    MatProgressBar,
    MatListModule,
    OwnNameField,
    RouterLink,
    SeenList,
    StackViewer,
    TurnGuide,
  ],
  templateUrl: './queue.html',
  styleUrl: './queue.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Queue {
  /** From the route; without it the latest sending is shown. */
  readonly id = input<string>();
  private readonly store = inject(Store);
  private readonly printersNow = inject(PrintersNow);
  private readonly dialogs = inject(MatDialog);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly queue = this.store.selectSignal(queueFeature.selectQueueState);
  private readonly now = clock();
  protected readonly search = signal(ALL_OF_LATE);
  protected readonly found = computed(() => this.find(this.search()));
  /** All that wait, whatever is looked for. */
  private readonly waiting = computed(() => {
    const { groups } = this.find(ALL_OF_LATE);
    return groups.find(({ name }) => name === WAITING)?.sendings ?? [];
  });
  protected readonly WAITING = WAITING;
  /** Printers that something was sent to, by their names. */
  protected readonly printers = computed(() => {
    const ids = new Set((this.queue().sendings ?? []).map(({ printerId }) => printerId));
    const named = [...ids].map((id) => ({ id, name: this.printersNow.of(id)?.name ?? id }));
    return named.sort((one, other) => one.name.localeCompare(other.name));
  });
  protected readonly shown = computed<SendingRecord | null>(() => {
    const all = this.queue().sendings ?? [];
    const id = this.id();
    return (id ? all.find((one) => one.id === id) : all[0]) ?? null;
  });
  protected readonly printer = computed(() => {
    const shown = this.shown();
    return shown && this.printerOf(shown);
  });

  /** What the person chose to look at; until then a job of which nothing came out is shown as the printer sees it. */
  protected readonly look = signal<View | null>(null);
  protected readonly stackOf = sendingStack;
  protected readonly view = computed<View>(() => {
    const sending = this.shown();
    const look = this.look();
    // Sheets are printed again of what is over.
    if (look === null || (look === 'again' && sending && !isOver(sending)))
      return sending?.state === 'held' ? 'seen' : 'output';
    return look;
  });
  protected readonly views = computed(() => VIEWS.filter(({ view }) => view !== 'again' || isOver(this.shown()!)));
  /** What else of the same is listed: what it is part of, and its parts. */
  protected readonly kin = computed(() => {
    const shown = this.shown();
    if (!shown) return [];
    return (this.queue().sendings ?? []).filter(({ id, partOf }) => id === shown.partOf || partOf === shown.id);
  });

  private readonly job = viewChild<ElementRef<HTMLElement>>('job');
  private readonly readyTimes = computed(() => {
    const waiting = waitingIn(this.queue().sendings ?? [], (id) => this.printersNow.of(id));
    return readyTimes(waiting, this.now());
  });

  protected readonly passOf = sayPass;
  protected readonly portion = sayPortion;
  protected readonly others = sayOthers;
  protected readonly over = isOver;
  protected readonly moving = isMoving;
  protected readonly holdable = isHoldable;
  protected readonly percent = percentDone;
  protected readonly sheets = countSheets;
  protected readonly dayAndTime = 'd MMM, HH:mm';

  constructor() {
    effect(() => untracked(() => this.store.dispatch(QueueActions.opened())));
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    const title = inject(Title);
    // Also seen where another window is in front.
    effect(() => title.setTitle(this.titleOf(this.shown())));
  }

  /** Put elsewhere in the list by hand; where it then stands is shown once the server says so. */
  protected drop({
    item,
    container,
    currentIndex,
  }: CdkDragDrop<readonly SendingRecord[], unknown, SendingRecord>): void {
    this.place(item.data, placeAt(container.data, item.data, currentIndex));
  }

  private find(search: Search): ReturnType<typeof findSendings> {
    const { sendings, moves } = this.queue();
    return findSendings(sendings ?? [], search, this.now(), moves);
  }

  /** What it would come before, were it one place sooner or later at its printer. */
  protected placeAfter(sending: SendingRecord, by: -1 | 1): string | null | undefined {
    return placeBy(this.waiting(), sending, by);
  }

  protected move(sending: SendingRecord, by: -1 | 1): void {
    this.place(sending, this.placeAfter(sending, by));
  }

  private place({ id }: SendingRecord, before: string | null | undefined): void {
    if (before !== undefined) this.store.dispatch(QueueActions.place({ id, before }));
  }

  protected narrow(change: Partial<Search>): void {
    this.search.update((search) => ({ ...search, ...change }));
  }

  /** What left the list comes back to it; the first of that has the focus, since the button is gone. */
  protected showOld(): void {
    const before = this.listed();
    this.narrow({ withOld: true });
    const back = this.listed().find((id) => !before.includes(id));
    const list = this.host.nativeElement;
    const focus = (): void => list.querySelector<HTMLElement>(`a[data-id="${back}"]`)?.focus();
    afterNextRender(focus, { injector: this.injector });
  }

  private listed(): string[] {
    return this.found().groups.flatMap(({ sendings }) => sendings.map(({ id }) => id));
  }

  private printerOf({ printerId }: SendingRecord): PrinterRecord | null {
    return this.printersNow.all()?.find(({ id }) => id === printerId) ?? null;
  }

  protected printerName(sending: SendingRecord): string {
    return this.printerOf(sending)?.name ?? sending.printerId;
  }

  protected state(sending: SendingRecord): string {
    return sayState(sending, this.printerOf(sending));
  }

  private titleOf(sending: SendingRecord | null): string {
    const ready = sending && this.ready(sending);
    return ready ? `${ready}: ${sending.title || 'Untitled job'} · Foglio` : 'Queue · Foglio';
  }

  /** When it will be ready; null where it is, or it cannot be told. */
  protected ready({ id }: SendingRecord): string | null {
    const ready = this.readyTimes().get(id);
    return ready ? sayReady(ready) : null;
  }

  protected before({ id }: SendingRecord): string | null {
    const ready = this.readyTimes().get(id);
    return ready ? sayBefore(ready) : null;
  }

  /** What becomes of the other sets. The button goes with it: the next key goes on from the job's name. */
  protected settleOthers(sending: SendingRecord, how: 'other-sets' | 'first-alone'): void {
    this.job()?.nativeElement.focus();
    this.act(sending, how);
  }

  protected act({ id }: SendingRecord, how: SendingAct, marks?: Marks): void {
    this.store.dispatch(QueueActions.act({ id, how, ...(marks ? { marks } : {}) }));
  }

  /** Never the whole by surprise. */
  protected sendAgain(sending: SendingRecord): void {
    const data: AgainData = { title: sending.title, sheets: sending.sheets, printer: this.printerName(sending) };
    const asked = this.dialogs.open<AgainDialog, AgainData, boolean>(AgainDialog, { data });
    asked.afterClosed().subscribe((isWanted) => {
      if (isWanted) this.act(sending, 'again');
    });
  }
}

type View = 'output' | 'seen' | 'again';

const VIEWS: readonly { readonly view: View; readonly name: string }[] = [
  { view: 'output', name: 'What came out' },
  { view: 'seen', name: 'As the printer sees it' },
  { view: 'again', name: 'Print sheets again' },
];
