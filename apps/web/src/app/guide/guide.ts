import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { Router } from '@angular/router';
import type { JobBrief } from '@foglio/api';
import { combineLatest, firstValueFrom, map } from 'rxjs';
import { Api, sayError } from '../api/api';
import { GUIDE_JOBS, guideTicket, type GuideJob } from './guide-jobs';

/** Jobs with one of the demo's documents that are looked at. */
const MOST_OF_A_NAME = 50;

/** The jobs people come for, each in a few steps, and open on the Bench by one press. */
@Component({
  selector: 'fo-guide',
  imports: [MatButton],
  templateUrl: './guide.html',
  styleUrl: './guide.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  // Scrolled by keys too, where no button can be pressed.
  host: { tabindex: '0' },
})
export class Guide {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private isLeft = false;
  protected readonly guideJobs = GUIDE_JOBS;
  /** Null until they are known. */
  private readonly known = signal<readonly JobBrief[] | null>(null);
  protected readonly message = signal<string | null>(null);
  /** The one that is being opened. */
  protected readonly opening = signal<string | null>(null);

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.isLeft = true));
    const names = [...new Set(GUIDE_JOBS.flatMap(({ files }) => files))];
    combineLatest(names.map((search) => this.api.jobs({ search, most: MOST_OF_A_NAME })))
      .pipe(
        map((found) => found.flatMap(({ jobs }) => jobs)),
        takeUntilDestroyed(),
      )
      .subscribe({
        next: (jobs) => this.known.set(jobs),
        error: (error: unknown) => this.message.set(sayError(error)),
      });
  }

  /** Whether the demo's documents are here; they may have been removed with their jobs. */
  protected isThere(job: GuideJob): boolean {
    return idsOf(job, this.known() ?? []) !== null;
  }

  protected missing(job: GuideJob): boolean {
    return this.known() !== null && !this.isThere(job);
  }

  /** The one that was opened before, as it was left, or a new one. */
  protected async open(job: GuideJob): Promise<void> {
    const [known, before] = [this.known() ?? [], this.known()?.find(({ ticket }) => ticket.title === job.title)];
    const ids = idsOf(job, known);
    if (!ids || this.opening() !== null) return;
    this.opening.set(job.name);
    this.message.set(null);
    try {
      const { id } = before ?? (await firstValueFrom(this.api.createJob(guideTicket(job, ids))));
      // Whoever went elsewhere meanwhile stays there; the job is on the Desk.
      if (!this.isLeft) await this.router.navigate(['/jobs', id]);
    } catch (error) {
      this.message.set(sayError(error));
    } finally {
      this.opening.set(null);
    }
  }
}

/** The files of a job of the guide, found in the jobs there are; null where one is missing. */
function idsOf({ files }: GuideJob, jobs: readonly JobBrief[]): string[] | null {
  const ids = files.flatMap((name) => {
    const job = jobs.find(({ names }) => names.includes(name));
    return job?.ticket.documents[job.names.indexOf(name)]?.file ?? [];
  });
  return ids.length === files.length ? ids : null;
}
