import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  Injector,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { MatIconButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import { readyTimes } from '@foglio/core';
import { filter, map, startWith } from 'rxjs';
import { PrintersNow } from '../news/printers-now';
import { SendingsNow } from '../news/sendings-now';
import { clock, sayReady, waitingIn } from '../queue/ready-words';
import { isAsking } from '../queue/sending-words';
import type { Notice } from './notice-of';
import { Notices } from './notices';

/** A notice as it is shown: of what is ready at one printer there is one. */
interface Card {
  readonly of: readonly Notice[];
  readonly kind: Notice['kind'];
  readonly printer: string;
  readonly text: string;
  readonly sendingId: string;
}

/** At the printer's name: when what was sent will be ready, and what is to be heard of it. */
@Component({
  selector: 'fo-notice-list',
  imports: [MatIconButton, MatIcon, RouterLink],
  templateUrl: './notice-list.html',
  styleUrl: './notice-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoticeList {
  private readonly sendingsNow = inject(SendingsNow);
  private readonly printersNow = inject(PrintersNow);
  private readonly notices = inject(Notices);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  private readonly now = clock();
  private readonly router = inject(Router);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.url),
      startWith(this.router.url),
    ),
    { requireSync: true },
  );
  /** In the Queue everything stands there already. */
  private readonly isQueue = computed(() => this.url().startsWith('/queue'));

  protected readonly cards = computed<readonly Card[]>(() => {
    if (this.isQueue()) return [];
    const cards = new Map<string, Card>();
    for (const notice of this.notices.shown()) {
      const { sendingId, printerId, kind } = notice;
      const key = kind === 'ready' ? `ready at ${printerId}` : sendingId;
      const those = [...(cards.get(key)?.of ?? []), notice];
      const text = those.length === 1 ? notice.text : `${those.length} jobs are ready. The last: ${notice.text}`;
      cards.set(key, { of: those, kind, printer: this.nameOf(printerId), text, sendingId });
    }
    return [...cards.values()];
  });

  /** What is under way, in a line; null: nothing is. */
  protected readonly underWay = computed(() => {
    const all = this.sendingsNow.all() ?? [];
    const asking = all.filter(isAsking);
    if (asking.length > 0) {
      const [latest] = asking as [(typeof asking)[number]];
      return {
        id: latest.id,
        text: asking.length === 1 ? 'one job asks for you' : `${asking.length} jobs ask for you`,
      };
    }
    const times = [
      ...readyTimes(
        waitingIn(all, (id) => this.printersNow.of(id)),
        this.now(),
      ),
    ];
    const last = times.reduce<(typeof times)[number] | null>(
      (latest, one) => ((one[1].at ?? 0) > (latest?.[1].at ?? 0) ? one : latest),
      null,
    );
    const said = last && sayReady(last[1]);
    if (!last || !said) return null;
    const title = all.find(({ id }) => id === last[0])?.title || 'Untitled job';
    return { id: last[0], text: times.length === 1 ? `${title} ready ${said}` : `${times.length} jobs ready ${said}` };
  });

  constructor() {
    this.sendingsNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
    this.router.events
      .pipe(
        filter((event) => event instanceof NavigationEnd && this.router.url.startsWith('/queue')),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.notices.close(this.notices.shown()));
  }

  protected close({ of }: Card): void {
    this.notices.close(of);
    // The button is gone: the next one has the focus, or what is on the screen.
    const focus = (): void => {
      const next = this.host.nativeElement.querySelector<HTMLElement>('article button');
      (next ?? document.querySelector<HTMLElement>('.screen'))?.focus();
    };
    afterNextRender(focus, { injector: this.injector });
  }

  private nameOf(id: string): string {
    return this.printersNow.of(id)?.name ?? 'A printer';
  }
}
