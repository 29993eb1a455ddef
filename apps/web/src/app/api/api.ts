import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Seal, SealOfMany, Ticket, TicketInput } from '@foglio/core';
import { Observable } from 'rxjs';
import { webSocket } from 'rxjs/webSocket';
import type {
  Caution,
  ChangedSeries,
  DeliveryAct,
  DeliveryRecord,
  FactsRecord,
  FileBrief,
  FileRecord,
  JobBrief,
  JobDocument,
  JobRecord,
  NewsRecord,
  PrinterRecord,
  ProblemRecord,
  SaidOfPaper,
  SavedJob,
  SeenRecord,
  SeriesBrief,
  SeriesFile,
  SeriesRecord,
  SetupRecord,
  StackRecord,
} from '@foglio/api';
import { SendingKeys } from './sending-keys';

/** Characters, each at most three bytes, that are well under what may be under way when a page is left. */
const LONGEST_KEPT_ALIVE = 16_000;

/** What puts sheets on paper anew, and must not do so twice where an answer was lost. */
const MOVES_PAPER: readonly DeliveryAct[] = ['again', 'first-pass', 'second-pass'];

/** A job as the person saw it when pressing Send. */
export interface Sending {
  readonly jobId: string;
  readonly title: string;
  readonly revision: number;
  readonly sheets: number;
  readonly seal: Seal;
  /** Codes of the cautions that were confirmed. */
  readonly confirmed: readonly string[];
}

/** A series as the person saw it when pressing Send. */
export interface SeriesSeen {
  readonly sheets: number;
  readonly confirmed: readonly string[];
  readonly seal: SealOfMany;
}

/** The server, one method a request. */
@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);
  private readonly keys = new SendingKeys();

  /** @param password of a locked file; in a header, since addresses are logged */
  upload(file: File, password: string | null): Observable<FileRecord> {
    const headers: Record<string, string> = { 'Content-Type': 'application/octet-stream' };
    if (password !== null) headers['Document-Password'] = encodeURIComponent(password);
    return this.http.post<FileRecord>('/api/files', file, { params: { name: file.name }, headers });
  }

  /** The files of that name, each content once. */
  filesNamed(name: string): Observable<FileBrief[]> {
    return this.http.get<FileBrief[]>('/api/files', { params: { name } });
  }

  /** Facts of the pages after so many that are known. */
  facts(file: string, from: number): Observable<FactsRecord> {
    return this.http.get<FactsRecord>(`/api/files/${file}/facts`, { params: { from } });
  }

  jobs(): Observable<JobBrief[]> {
    return this.http.get<JobBrief[]>('/api/jobs');
  }

  /** Without a printer it is set up for the first one known. */
  createJob(ticket: TicketInput, printerId?: string): Observable<JobRecord> {
    return this.http.post<JobRecord>('/api/jobs', { ticket, printerId });
  }

  job(id: string): Observable<JobRecord> {
    return this.http.get<JobRecord>(`/api/jobs/${id}`);
  }

  saveTicket(id: string, ticket: Ticket, revision: number): Observable<SavedJob> {
    const body = { ticket, revision };
    // Goes on although the page is left; browsers hold back longer ones (Fetch standard, 64 KiB in all).
    const keepalive = JSON.stringify(body).length < LONGEST_KEPT_ALIVE;
    return this.http.put<SavedJob>(`/api/jobs/${id}`, body, { keepalive });
  }

  /** Has the job printed elsewhere. */
  changePrinter(id: string, printerId: string, revision: number): Observable<SavedJob> {
    return this.http.put<SavedJob>(`/api/jobs/${id}/printer`, { printerId, revision });
  }

  removeJob(id: string): Observable<void> {
    return this.http.delete<void>(`/api/jobs/${id}`);
  }

  setups(): Observable<SetupRecord[]> {
    return this.http.get<SetupRecord[]>('/api/setups');
  }

  saveSetup(setup: { name: string; ticket: Ticket; printerId: string | null }): Observable<SetupRecord> {
    return this.http.post<SetupRecord>('/api/setups', setup);
  }

  changeSetup(
    id: string,
    change: Partial<Pick<SetupRecord, 'name' | 'ticket' | 'printerId' | 'starts' | 'revision'>>,
  ): Observable<SetupRecord> {
    return this.http.put<SetupRecord>(`/api/setups/${id}`, change);
  }

  removeSetup(id: string): Observable<void> {
    return this.http.delete<void>(`/api/setups/${id}`);
  }

  allSeries(): Observable<SeriesBrief[]> {
    return this.http.get<SeriesBrief[]>('/api/series');
  }

  createSeries(title: string, setup: Ticket, printerId: string): Observable<SeriesRecord> {
    return this.http.post<SeriesRecord>('/api/series', { title, setup, printerId });
  }

  series(id: string): Observable<SeriesRecord> {
    return this.http.get<SeriesRecord>(`/api/series/${id}`);
  }

  seriesDocuments(id: string): Observable<JobDocument[]> {
    return this.http.get<JobDocument[]>(`/api/series/${id}/documents`);
  }

  changeSeries(id: string, change: ChangedSeries): Observable<SeriesRecord> {
    return this.http.put<SeriesRecord>(`/api/series/${id}`, change);
  }

  removeSeries(id: string): Observable<void> {
    return this.http.delete<void>(`/api/series/${id}`);
  }

  addSeriesFiles(id: string, files: readonly SeriesFile[]): Observable<SeriesRecord> {
    return this.http.post<SeriesRecord>(`/api/series/${id}/rows`, { files });
  }

  /** @param rows ids in their order @param out of those to be taken out */
  orderSeries(id: string, rows: readonly string[], out: readonly string[] = []): Observable<SeriesRecord> {
    return this.http.put<SeriesRecord>(`/api/series/${id}/rows`, { rows, out });
  }

  skipSeriesFile(id: string, row: string, skipped: boolean): Observable<SeriesRecord> {
    return this.http.put<SeriesRecord>(`/api/series/${id}/rows/${row}`, { skipped });
  }

  startSeries(id: string, seen: SeriesSeen): Observable<SeriesRecord> {
    return this.keys.once(id, (key) => this.http.post<SeriesRecord>(`/api/series/${id}/start`, { ...seen, key }));
  }

  pauseSeries(id: string): Observable<SeriesRecord> {
    return this.http.post<SeriesRecord>(`/api/series/${id}/pause`, {});
  }

  resumeSeries(id: string, again: boolean): Observable<SeriesRecord> {
    return this.http.post<SeriesRecord>(`/api/series/${id}/resume`, { again });
  }

  printer(id: string): Observable<PrinterRecord> {
    return this.http.get<PrinterRecord>(`/api/printers/${id}`);
  }

  printers(): Observable<PrinterRecord[]> {
    return this.http.get<PrinterRecord[]>('/api/printers');
  }

  addPrinter(uri: string): Observable<PrinterRecord> {
    return this.http.post<PrinterRecord>('/api/printers', { uri });
  }

  removePrinter(id: string): Observable<void> {
    return this.http.delete<void>(`/api/printers/${id}`);
  }

  /** Notes what a person says of a tray's paper. */
  describePaper(printerId: string, tray: string, said: SaidOfPaper): Observable<PrinterRecord> {
    return this.http.put<PrinterRecord>(`/api/printers/${printerId}/trays/${tray}`, said);
  }

  /** Does something at the front panel of a simulated printer. @param what as the panel takes it */
  workPanel(printerId: string, part: string, what: object): Observable<PrinterRecord> {
    return this.http.put<PrinterRecord>(`/api/printers/${printerId}/panel/${part}`, what);
  }

  deliveries(): Observable<DeliveryRecord[]> {
    return this.http.get<DeliveryRecord[]>('/api/deliveries');
  }

  send({ jobId, revision, sheets, seal, confirmed }: Sending): Observable<DeliveryRecord> {
    return this.keys.once(`${jobId} ${revision}`, (key) =>
      this.http.post<DeliveryRecord>('/api/deliveries', { jobId, revision, sheets, seal, confirmed, key }),
    );
  }

  actOnDelivery(deliveryId: string, how: DeliveryAct): Observable<DeliveryRecord> {
    const act = (body: object): Observable<DeliveryRecord> =>
      this.http.post<DeliveryRecord>(`/api/deliveries/${deliveryId}/${how}`, body);
    return MOVES_PAPER.includes(how) ? this.keys.once(`${deliveryId} ${how}`, (key) => act({ key })) : act({});
  }

  /** What the printer is told of each sheet. */
  seen(deliveryId: string): Observable<SeenRecord> {
    return this.http.get<SeenRecord>(`/api/deliveries/${deliveryId}/seen`);
  }

  /** @param address of a stack: of what one sending came to, or of a printer's output */
  stack(address: string): Observable<StackRecord> {
    return this.http.get<StackRecord>(address);
  }

  /** What changes, as it changes, after a word that the connection stands. It ends with the connection. */
  news(): Observable<NewsRecord | 'opened'> {
    return new Observable((subscriber) => {
      const url = `${location.origin.replace(/^http/, 'ws')}/api/news`;
      const openObserver = { next: () => subscriber.next('opened') };
      return webSocket<NewsRecord>({ url, openObserver }).subscribe(subscriber);
    });
  }
}

/** What went wrong, in a sentence for the screen. */
export function sayError(error: unknown): string {
  if (error instanceof HttpErrorResponse) {
    if (error.status === 0) return 'Foglio’s server does not answer. Start it again; nothing you saved is lost.';
    const problem = error.error as Partial<ProblemRecord> | null;
    return problem?.detail ?? `The server answered with status ${error.status}.`;
  }
  // A resource of Angular wraps what is no Error, and an answer of HTTP is none.
  if (error instanceof Error && error.cause instanceof HttpErrorResponse) return sayError(error.cause);
  return error instanceof Error ? error.message : String(error);
}

/** Whether the server was away or broken, and the same may go well a moment later. */
export const isPassing = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && (error.status === 0 || error.status >= 500);

/** Why a file cannot be used, in the server's word for it; null where that is not the matter. */
export function fileTrouble(error: unknown): string | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.trouble ?? null) : null;
}

/** What must be confirmed before the server does it; null where that is not the matter. */
export function cautionsIn(error: unknown): readonly Caution[] | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.cautions ?? null) : null;
}

/** The code of a problem the server named, or null. */
export function problemCode(error: unknown): string | null {
  return error instanceof HttpErrorResponse ? ((error.error as Partial<ProblemRecord> | null)?.code ?? null) : null;
}
