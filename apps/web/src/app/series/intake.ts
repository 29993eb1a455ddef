import { inject, Injectable, signal } from '@angular/core';
import type { SeriesFile } from '@foglio/api';
import { firstValueFrom } from 'rxjs';
import { Api, fileTrouble, sayError } from '../api/api';
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

  /** In the order given. Such as cannot be taken in stand in the series with the reason. */
  async takeIn(seriesId: string, files: readonly File[]): Promise<void> {
    this.message.set(null);
    this.progress.set({ seriesId, done: 0, total: files.length });
    try {
      for (let at = 0; at < files.length; at += TOGETHER) {
        const rows = await this.upload(files.slice(at, at + TOGETHER), files.length === 1);
        if (rows.length > 0) await firstValueFrom(this.api.addSeriesFiles(seriesId, rows));
        this.news.update((count) => count + 1);
      }
    } catch (error) {
      this.message.set(sayError(error));
    } finally {
      this.progress.set(null);
    }
  }

  private async upload(files: readonly File[], isAlone: boolean): Promise<SeriesFile[]> {
    const rows: (SeriesFile | null)[] = files.map(() => null);
    let next = 0;
    const work = async (): Promise<void> => {
      while (next < files.length) {
        const at = next++;
        rows[at] = await this.takeOne(files[at]!, isAlone);
        this.progress.update((now) => now && { ...now, done: now.done + 1 });
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
    return rows.filter((row) => row !== null);
  }

  /** A password is only asked for where a file comes alone: nobody wants a question for each of sixty. */
  private async takeOne(file: File, isAlone: boolean): Promise<SeriesFile | null> {
    const { name } = file;
    try {
      const taken = isAlone ? await this.uploader.upload(file) : await firstValueFrom(this.api.upload(file, null));
      return taken ? { name, file: taken.id } : null;
    } catch (error) {
      const trouble = fileTrouble(error);
      // Without the server's word on the file it is not the file's fault, and it is not noted as such.
      if (trouble === null) throw error;
      return { name, trouble: `${sayError(error)}${trouble === 'locked' ? NEEDS_PASSWORD : ''}` };
    }
  }
}
