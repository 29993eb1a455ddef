import { inject, Injectable, signal } from '@angular/core';
import type { SeriesFile, SeriesRecord } from '@foglio/api';
import type { Form } from '@foglio/core';
import { defer, firstValueFrom, map, type Observable, of, retry, switchMap, tap } from 'rxjs';
import { Api, fileTrouble, isPassing, sayError, WHILE_AWAY } from '../api/api';
import { batched } from '../documents/batches';
import { Uploader } from '../documents/uploader';

/** How far files have been taken in for a series. */
export interface Progress {
  readonly seriesId: string;
  readonly done: number;
  readonly total: number;
}

/** Files that are taken in at once, and put into the series together. */
const AT_ONCE = 4;
const TOGETHER = 20;

const NEEDS_PASSWORD = ' Drop it here by itself to give its password.';

/** Names that are told; of more, how many. */
const MOST_NAMES = 5;

/** Files that nobody knows the server's word on: they are not in the series, and that is said. */
class LeftOut extends Error {
  constructor(names: readonly string[]) {
    const said = names.slice(0, MOST_NAMES).join(', ');
    const more = names.length > MOST_NAMES ? ` and ${names.length - MOST_NAMES} more` : '';
    super(`Not taken in, since Foglio’s server did not answer: ${said}${more}. Drop them here again.`);
  }
}

/** Whether a file is in a series already; one that could not be taken in is known by its name. */
const isIn = ({ rows }: SeriesRecord, { name, file, trouble }: SeriesFile): boolean =>
  rows.some((row) => (file === undefined ? row.name === name && row.trouble === trouble : row.file === file));

/** Takes files in for a series, however the screens change meanwhile. */
@Injectable({ providedIn: 'root' })
export class SeriesIntake {
  private readonly api = inject(Api);
  private readonly uploader = inject(Uploader);
  /** Null where nothing is being taken in. */
  readonly progress = signal<Progress | null>(null);
  /** Goes up whenever files have been put into a series. */
  readonly news = signal(0);
  readonly message = signal<string | null>(null);

  /** In the order given, laid out as the set-up asks. Such as cannot be taken in stand in the series with the reason. */
  async takeIn({ id: seriesId, setup }: Pick<SeriesRecord, 'id' | 'setup'>, came: readonly File[]): Promise<void> {
    const form = setup.documents[0]!.form;
    this.message.set(null);
    this.progress.set({ seriesId, done: 0, total: came.length });
    const files = await batched(came, 'each');
    this.progress.set({ seriesId, done: 0, total: files.length });
    try {
      for (let at = 0; at < files.length; at += TOGETHER) {
        const { rows, left } = await this.upload(files.slice(at, at + TOGETHER), form, files.length === 1);
        if (rows.length > 0) await firstValueFrom(this.add(seriesId, rows));
        this.news.update((count) => count + 1);
        if (left.length > 0) throw new LeftOut([...left, ...files.slice(at + TOGETHER).map(({ name }) => name)]);
      }
    } catch (error) {
      this.message.set(sayError(error));
    } finally {
      this.progress.set(null);
    }
  }

  /** Puts files into a series. Where the answer was lost, it is looked which of them are there. */
  private add(seriesId: string, rows: readonly SeriesFile[]): Observable<unknown> {
    let isUnsure = false;
    return defer(() => {
      if (!isUnsure) return of(rows);
      return this.api.series(seriesId).pipe(map((series) => rows.filter((row) => !isIn(series, row))));
    }).pipe(
      switchMap((missing) => (missing.length > 0 ? this.api.addSeriesFiles(seriesId, missing) : of(null))),
      tap({ error: () => (isUnsure = true) }),
      retry(WHILE_AWAY),
    );
  }

  private async upload(
    files: readonly File[],
    form: Form,
    isAlone: boolean,
  ): Promise<{ rows: SeriesFile[]; left: string[] }> {
    const rows: SeriesFile[][] = files.map(() => []);
    const left: string[] = [];
    let next = 0;
    const work = async (): Promise<void> => {
      while (next < files.length) {
        const at = next++;
        try {
          rows[at] = await this.takeOne(files[at]!, form, isAlone);
        } catch {
          left.push(files[at]!.name);
        }
        this.progress.update((now) => now && { ...now, done: now.done + 1 });
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
    return { rows: rows.flat(), left };
  }

  /** A password is only asked for where a file comes alone: nobody wants a question for each of sixty. */
  private async takeOne(file: File, form: Form, isAlone: boolean): Promise<SeriesFile[]> {
    const { name } = file;
    try {
      const taken = isAlone
        ? await this.uploader.upload(file, form)
        : await firstValueFrom(this.api.upload(file, null, form).pipe(retry(WHILE_AWAY)));
      if (!taken) return [];
      const attached = await this.uploader.attachedTo(taken, form);
      return [
        { name, file: taken.id },
        ...attached.taken.map((one) => ({ name: `${name}: ${one.name}`, file: one.id })),
        ...attached.refused.map((trouble) => ({ name, trouble })),
      ];
    } catch (error) {
      // Without the server's word on the file it is not the file's fault, and it is not noted as such.
      if (isPassing(error)) throw error;
      return [{ name, trouble: `${sayError(error)}${fileTrouble(error) === 'locked' ? NEEDS_PASSWORD : ''}` }];
    }
  }
}
