import { Clipboard } from '@angular/cdk/clipboard';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { MatSnackBar } from '@angular/material/snack-bar';
import { RouterLink } from '@angular/router';
import type { IncomingRecord, QueueRecord } from '@foglio/api';
import { filter, forkJoin, merge } from 'rxjs';
import { Api, sayError } from '../api/api';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { Chime } from './chime';
import { sayBecame } from './program-words';

/** How other programs print to Foglio: the addresses, and what came in lately. */
@Component({
  selector: 'fo-programs',
  imports: [DatePipe, MatButton, RouterLink],
  templateUrl: './programs.html',
  styleUrl: './programs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Programs {
  private readonly api = inject(Api);
  private readonly news = inject(News);
  private readonly clipboard = inject(Clipboard);
  private readonly notices = inject(MatSnackBar);
  protected readonly chime = inject(Chime);
  protected readonly queues = signal<readonly QueueRecord[] | null>(null);
  protected readonly came = signal<readonly IncomingRecord[] | null>(null);
  /** Why it could not be asked for, the last time it was. */
  protected readonly away = signal<string | null>(null);
  protected readonly became = sayBecame;
  private readonly titles = computed(() => new Map((this.queues() ?? []).map(({ name, title }) => [name, title])));

  constructor() {
    const told = merge(this.news.of('incoming'), this.news.of('setup'), this.news.of('sending'));
    const failed = (error: unknown): void => this.away.set(sayError(error));
    const ask = () => forkJoin({ queues: this.api.queues(), came: this.api.incoming() });
    keepAsking(this.news.asking(told), ask, failed)
      .pipe(
        filter((found) => found !== null),
        takeUntilDestroyed(),
      )
      .subscribe(({ queues, came }) => {
        this.away.set(null);
        this.queues.set(queues);
        this.came.set(came);
      });
  }

  /** What it was printed to, as people call it. */
  protected titleOf({ queue }: IncomingRecord): string {
    return this.titles().get(queue) ?? queue;
  }

  protected copy({ title, address }: QueueRecord): void {
    const done = this.clipboard.copy(address);
    this.notices.open(done ? `Copied the address of “${title}”` : 'Choose the address and copy it', undefined, {
      duration: 5_000,
    });
  }
}
