import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatIconButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { MatPaginator, MatPaginatorIntl } from '@angular/material/paginator';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router, RouterLink } from '@angular/router';
import { debounceTime, firstValueFrom, forkJoin, map, merge, Subject } from 'rxjs';
import { Api, sayError } from '../api/api';
import type { FileRecord, JobBrief, JobList, JobRecord, SetupRecord } from '@foglio/api';
import { applySetup, onLoadedPaper } from '@foglio/core';
import { nameWithoutKind } from '@foglio/sentence';
import { sayCame } from '../programs/program-words';
import { brieflyInWords } from './brief-words';
import { trayColour } from '../bench/tray-mark';
import { batched } from '../documents/batches';
import { FileDrop } from '../documents/file-drop';
import { isSetupFile, SetupFiles } from '../documents/setup-file';
import { Uploader } from '../documents/uploader';
import { WHAT_COMES_NEXT } from './what-comes-next';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { houseFor } from '../setups/house';
import { PageWords } from './page-words';
import { StraightAway } from './straight-away';

/** Jobs on one page of the list. */
const PAGE = 25;

/** With fewer jobs than these nobody looks for a search. */
const AT_A_GLANCE = 8;

/** After the last letter so long, the search begins. */
const TYPING_MS = 250;

/** What is at hand: a place for files, and the jobs set up before. */
@Component({
  selector: 'fo-desk',
  imports: [DatePipe, FileDrop, StraightAway, MatIcon, MatIconButton, MatPaginator, MatProgressBar, RouterLink],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
  providers: [{ provide: MatPaginatorIntl, useClass: PageWords }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Desk {
  private readonly api = inject(Api);
  private readonly uploader = inject(Uploader);
  private readonly loadNext = inject(WHAT_COMES_NEXT);
  private readonly setupFiles = inject(SetupFiles);
  private readonly router = inject(Router);
  private readonly notices = inject(MatSnackBar);
  /** A page of the jobs, and how many there are in all that were searched for; null until they are known. */
  protected readonly list = signal<(JobList & { readonly search: string; readonly from: number }) | null>(null);
  private readonly listWanted = new Subject<void>();
  private readonly typed = new Subject<string>();
  /** What the list is of: the jobs that hold this, from this one on. */
  private readonly wanted = signal({ search: '', from: 0 });
  protected readonly pageLength = PAGE;
  protected readonly page = computed(() => this.wanted().from / PAGE);
  /** Whether another page, or what was searched for, is still on its way. */
  protected readonly isBehind = computed(() => {
    const [list, wanted] = [this.list(), this.wanted()];
    return list !== null && (list.search !== wanted.search || list.from !== wanted.from);
  });
  /** A list that is seen at one glance needs no search. */
  protected readonly hasSearch = computed(() => {
    const list = this.list();
    return list !== null && (list.total > AT_A_GLANCE || list.search !== '' || this.wanted().search !== '');
  });
  /** Why the list could not be had, or not anew; it is asked for again by itself. */
  protected readonly listTrouble = signal<string | null>(null);
  private readonly news = inject(News);
  private readonly printersNow = inject(PrintersNow);
  private readonly printers = computed(() => this.printersNow.all() ?? []);
  private readonly setups = signal<readonly SetupRecord[]>([]);
  /** Where new jobs go: where the house set-up says, otherwise the first printer. */
  protected readonly housePrinter = computed(() => {
    const printerId = this.setups().find(({ starts }) => starts === 'house')?.printerId;
    return this.printers().find(({ id }) => id === printerId) ?? this.printers()[0] ?? null;
  });
  protected readonly house = computed(() => houseFor(this.setups(), this.housePrinter()?.id));
  protected readonly uploading = signal<string | null>(null);
  protected readonly message = signal<string | null>(null);
  /** Whoever went elsewhere meanwhile is not led away from there. */
  private isLeft = false;
  protected readonly inWords = brieflyInWords;
  protected readonly sayCame = sayCame;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.isLeft = true));
    // What became of what other programs printed is told apart from the jobs that it made.
    keepAsking(
      merge(this.news.asking(this.news.of('job'), this.news.of('incoming')), this.listWanted),
      () => {
        const wanted = this.wanted();
        const jobs = this.api.jobs({ ...wanted, most: PAGE });
        return forkJoin([jobs.pipe(map((found) => ({ ...found, ...wanted }))), this.api.setups()]);
      },
      (error) => this.listTrouble.set(sayError(error)),
    )
      .pipe(takeUntilDestroyed())
      .subscribe(([found, setups]) => {
        // Another page or search was asked for meanwhile, whose answer is on its way.
        if (found.search !== this.wanted().search || found.from !== this.wanted().from) return;
        // The last of this page were removed meanwhile.
        if (found.jobs.length === 0 && found.total > 0) return this.turnTo(Math.ceil(found.total / PAGE) - 1);
        this.list.set(found);
        this.setups.set(setups);
        this.listTrouble.set(null);
      });
    this.typed.pipe(debounceTime(TYPING_MS), takeUntilDestroyed()).subscribe((search) => {
      this.wanted.set({ search: search.trim(), from: 0 });
      this.askAnew();
    });
    // A printer that is away takes its time to be found so; the jobs do not wait for it.
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
  }

  protected async take(files: readonly File[]): Promise<void> {
    this.message.set(null);
    // It is asked for again when it is opened, and told then where it cannot be had.
    this.loadNext().catch(() => undefined);
    // Asked for at once, so that nothing is waited for once the documents are there.
    const setups = firstValueFrom(this.api.setups()).catch(() => null);
    const refused: string[] = [];
    /** One that cannot be taken is told of, and does not keep the others from being taken. */
    const each = async <T>(file: File, work: () => Promise<T>): Promise<T | null> => {
      this.uploading.set(file.name);
      try {
        return await work();
      } catch (error) {
        refused.push(`${file.name}: ${sayError(error)}`);
        return null;
      }
    };
    let rest = files.filter((file) => !isSetupFile(file));
    let latest: JobRecord | null = null;
    for (const setup of files.filter(isSetupFile)) {
      const done = await each(setup, () => this.setupFiles.takeUp(setup, rest));
      if (!done) continue;
      latest = done.job;
      rest = rest.filter((file) => !done.used.includes(file));
    }
    const taken: FileRecord[] = [];
    const documents = await batched(rest, 'together');
    for (const file of documents) {
      const record = await each(file, () => this.uploader.upload(file, {}, true));
      if (!record) continue;
      const attached = await this.uploader.attachedTo(record);
      taken.push(record, ...attached.taken);
      refused.push(...attached.refused);
    }
    const [first] = taken;
    if (first) {
      latest = await each(documents[0] as File, () => this.setUp(taken, nameWithoutKind(first.name), setups));
    }
    this.uploading.set(null);
    if (this.isLeft) {
      const said =
        latest && refused.length === 0 ? `“${latest.ticket.title}” lies on the Desk now.` : refused.join(' ');
      if (said !== '') this.notices.open(said, 'Close', { duration: 10_000 });
    } else if (refused.length > 0) {
      // What was taken is in the list; the screen stays where it tells what was not.
      this.message.set(refused.join(' '));
      this.askAnew();
    } else if (latest) await this.router.navigate(['/jobs', latest.id]);
  }

  /** A new job starts from the house set-up, whatever was printed last. */
  private async setUp(
    taken: readonly FileRecord[],
    title: string,
    asked: Promise<readonly SetupRecord[] | null>,
  ): Promise<JobRecord> {
    const setups = (await asked) ?? (await firstValueFrom(this.api.setups()));
    const house = houseFor(setups, this.housePrinter()?.id);
    if (!house) throw new Error('there is no house set-up; start Foglio’s server again.');
    const printer = this.housePrinter();
    const ticket = applySetup(house.ticket, taken, title);
    return firstValueFrom(
      this.api.createJob(printer ? onLoadedPaper(ticket, taken, printer.profile) : ticket, printer?.id),
    );
  }

  /** Removed at once, and brought back by one press while the notice stands. */
  protected async remove(job: JobBrief): Promise<void> {
    try {
      await firstValueFrom(this.api.removeJob(job.id));
      this.askAnew();
      const notice = this.notices.open(`Removed “${this.titleOf(job)}”`, 'Bring it back', { duration: 10_000 });
      notice.onAction().subscribe(() => void this.bringBack(job));
    } catch (error) {
      this.message.set(sayError(error));
    }
  }

  private async bringBack({ ticket, printerId }: JobBrief): Promise<void> {
    try {
      await firstValueFrom(this.api.createJob(ticket, printerId));
      this.askAnew();
    } catch (error) {
      this.message.set(sayError(error));
    }
  }

  protected titleOf(job: JobBrief): string {
    return job.ticket.title || (job.names[0] ?? 'Untitled job');
  }

  protected tab(job: JobBrief, tray: string | null): { colour: string; place: number } {
    const trays = this.printers().find(({ id }) => id === job.printerId)?.profile.trays ?? [];
    const place = trays.findIndex(({ id }) => id === tray);
    return { colour: trayColour(place), place };
  }

  protected search(text: string): void {
    this.typed.next(text);
  }

  protected turnTo(page: number): void {
    this.wanted.update((wanted) => ({ ...wanted, from: page * PAGE }));
    this.askAnew();
  }

  protected askAnew(): void {
    this.listWanted.next();
  }
}
