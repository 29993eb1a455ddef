import { DatePipe, NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatListModule } from '@angular/material/list';
import { MatProgressBar } from '@angular/material/progress-bar';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { SendingAct, SendingRecord, PrinterRecord } from '@foglio/api';
import { PrintersNow } from '../news/printers-now';
import { countSheets } from '../bench/amounts';
import { QueueActions, queueFeature } from '../state/queue.state';
import { isHoldable, isMoving, isOver, percentDone, sayPass, sayState } from './sending-words';
import { OwnNameField } from './own-name-field';
import { SeenList } from './seen-list';
import { sendingStack } from '../stack/stack-source';
import { StackViewer } from '../stack/stack-viewer';
import { TurnGuide } from './turn-guide';

/** Jobs sent: how each stands, and what came out. */
@Component({
  selector: 'fo-queue',
  imports: [
    DatePipe,
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
  protected readonly queue = this.store.selectSignal(queueFeature.selectQueueState);
  protected readonly now = computed(() => (this.queue().sendings ?? []).filter((one) => !isOver(one)));
  protected readonly before = computed(() => (this.queue().sendings ?? []).filter(isOver));
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
  protected readonly look = signal<'output' | 'seen' | null>(null);
  protected readonly stackOf = sendingStack;
  protected readonly asSeen = computed(() => {
    const sending = this.shown();
    return this.look() === null ? sending?.state === 'held' : this.look() === 'seen';
  });

  protected readonly passOf = sayPass;
  protected readonly over = isOver;
  protected readonly moving = isMoving;
  protected readonly holdable = isHoldable;
  protected readonly percent = percentDone;
  protected readonly sheets = countSheets;

  constructor() {
    effect(() => untracked(() => this.store.dispatch(QueueActions.opened())));
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
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

  protected act({ id }: SendingRecord, how: SendingAct): void {
    this.store.dispatch(QueueActions.act({ id, how }));
  }
}
