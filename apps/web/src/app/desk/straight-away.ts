import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatIcon } from '@angular/material/icon';
import { MatProgressBar } from '@angular/material/progress-bar';
import { Router, RouterLink } from '@angular/router';
import type { FileRecord, JobRecord, PrinterRecord, SendingRecord, SetupRecord } from '@foglio/api';
import { applySetup, onLoadedPaper } from '@foglio/core';
import { firstValueFrom, lastValueFrom, tap } from 'rxjs';
import { nameWithoutKind, sentence } from '@foglio/sentence';
import { Api, sayError } from '../api/api';
import { Outbox } from '../api/outbox';
import { sealSeen, type Seen } from '../state/seen';
import { countSheets } from '../bench/amounts';
import { batched } from '../documents/batches';
import { FileDrop } from '../documents/file-drop';
import { Reading } from '../documents/reading';
import { Uploader } from '../documents/uploader';
import { Planner } from '../workers/planner';

/** How long one may take it back. */
const GRACE_SECONDS = 5;

/** What has become of the file that was dropped. */
type Stage =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'reading'; readonly said: string }
  | { readonly kind: 'about-to'; readonly job: JobRecord; readonly sheets: number; readonly seconds: number }
  | { readonly kind: 'sent'; readonly sending: SendingRecord }
  | { readonly kind: 'kept'; readonly job: JobRecord }
  | { readonly kind: 'refused'; readonly said: string };

/**
 * A place for a file that goes to the house printer with the house set-up in one gesture. Every page is looked at first:
 * where anything is to be settled or confirmed the Bench opens on it; otherwise there are some seconds to take it back.
 */
@Component({
  selector: 'fo-straight-away',
  imports: [FileDrop, MatButton, MatIcon, MatProgressBar, RouterLink],
  templateUrl: './straight-away.html',
  styleUrl: './straight-away.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StraightAway {
  readonly setup = input.required<SetupRecord>();
  readonly printer = input.required<PrinterRecord>();
  /** Jobs there are to list again. */
  readonly taken = output<void>();
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly uploader = inject(Uploader);
  private readonly reading = inject(Reading);
  private readonly planner = inject(Planner);
  private readonly router = inject(Router);
  protected readonly stage = signal<Stage>({ kind: 'waiting' });
  protected readonly sheets = countSheets;
  private timer: ReturnType<typeof setInterval> | undefined;
  /** A page that is left sends nothing, whatever is answered after that: nobody could take it back there. Its job stays. */
  private isLeft = false;

  /** The house set-up in words. */
  protected readonly said = computed(() => {
    const { ticket } = this.setup();
    const situation = { ticket, documents: [], printer: this.printer().profile, at: 0, house: ticket };
    const words = sentence(situation).map(({ text }) => text);
    return words.join('').replace('Print all pages of a document, ', '');
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.isLeft = true;
      clearInterval(this.timer);
    });
  }

  protected async take(files: readonly File[]): Promise<void> {
    const [file, ...others] = await batched(files, 'together');
    if (!file) return;
    if (others.length > 0) {
      const said = 'One file at a time is printed straight away; for several, drop them under Many files.';
      return this.stage.set({ kind: 'refused', said });
    }
    this.takeBack();
    this.stage.set({ kind: 'reading', said: `Taking in ${file.name}` });
    try {
      const uploaded = await this.uploader.upload(file, this.setup().ticket.documents[0]!.form);
      if (!uploaded) return this.stage.set({ kind: 'waiting' });
      const attached = await this.uploader.attachedTo(uploaded, this.setup().ticket.documents[0]!.form);
      if (attached.refused.length > 0) return this.stage.set({ kind: 'refused', said: attached.refused.join(' ') });
      const taken = [uploaded, ...attached.taken];
      const set = applySetup(this.setup().ticket, taken, nameWithoutKind(file.name));
      const ticket = onLoadedPaper(set, taken, this.printer().profile);
      const job = await firstValueFrom(this.api.createJob(ticket, this.printer().id));
      if (this.isLeft) return;
      this.taken.emit();
      const known = new Map<string, FileRecord>();
      for (const one of taken) known.set(one.id, await this.lookThrough(one));
      const documents = ticket.documents.map(({ file: id }) => known.get(id)!);
      // As it is now: what is loaded may have changed since the Desk was opened.
      const printer = await firstValueFrom(this.api.printer(this.printer().id));
      const answer = await firstValueFrom(
        this.planner.ask<'plan'>({ kind: 'plan' }, job.ticket, documents, printer.profile),
      );
      if (this.isLeft) return;
      if (answer.trouble || answer.plan.checks.some(({ level }) => level !== 'note')) {
        await this.router.navigate(['/jobs', job.id]);
        return;
      }
      const { plan, moment } = answer;
      this.count(job, { plan, ticket: job.ticket, documents, printer, moment });
    } catch (error) {
      this.stage.set({ kind: 'refused', said: `${file.name}: ${sayError(error)}` });
    }
  }

  private lookThrough(document: FileRecord): Promise<FileRecord> {
    const tell = ({ read, pages }: FileRecord): void => {
      const said = `Looking through ${document.name}: ${read} of ${pages.length} pages`;
      this.stage.set({ kind: 'reading', said });
    };
    return lastValueFrom(this.reading.follow(document).pipe(tap(tell)));
  }

  private count(job: JobRecord, seen: Seen): void {
    const { sheets } = seen.plan.tally;
    this.stage.set({ kind: 'about-to', job, sheets, seconds: GRACE_SECONDS });
    this.timer = setInterval(() => {
      const stage = this.stage();
      if (stage.kind !== 'about-to') return clearInterval(this.timer);
      if (stage.seconds > 1) return this.stage.set({ ...stage, seconds: stage.seconds - 1 });
      clearInterval(this.timer);
      void this.send(job, seen);
    }, 1000);
  }

  private async send({ id: jobId, revision, ticket: { title } }: JobRecord, seen: Seen): Promise<void> {
    const { sheets } = seen.plan.tally;
    this.stage.set({ kind: 'reading', said: `Sending ${countSheets(sheets)}` });
    try {
      const seal = sealSeen(seen);
      const sending = await firstValueFrom(this.outbox.send({ jobId, title, revision, sheets, seal, confirmed: [] }));
      this.stage.set({ kind: 'sent', sending });
      if (!this.isLeft) this.taken.emit();
    } catch (error) {
      this.stage.set({ kind: 'refused', said: `${title}: ${sayError(error)}` });
    }
  }

  /** What was not sent yet stays as a job. */
  protected takeBack(): void {
    clearInterval(this.timer);
    const stage = this.stage();
    if (stage.kind === 'about-to') this.stage.set({ kind: 'kept', job: stage.job });
  }
}
