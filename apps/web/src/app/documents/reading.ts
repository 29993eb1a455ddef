import { inject, Injectable } from '@angular/core';
import type { FactsRecord } from '@foglio/api';
import type { PageFacts } from '@foglio/core';
import { concatMap, expand, map, type Observable, of, takeWhile, timer } from 'rxjs';
import { Api } from '../api/api';

const ASK_EVERY_MS = 250;

/** A file as far as its pages have been read. */
export interface Read {
  readonly id: string;
  readonly pages: readonly PageFacts[];
  readonly read: number;
}

/** Follows the reading of files that were just taken in. */
@Injectable({ providedIn: 'root' })
export class Reading {
  private readonly api = inject(Api);

  /** The file as it is, and again with every page that becomes known, to the last. */
  follow<T extends Read>(file: T): Observable<T> {
    return of(file).pipe(
      expand((known) =>
        known.read >= known.pages.length
          ? []
          : timer(ASK_EVERY_MS).pipe(
              concatMap(() => this.api.facts(known.id, known.read)),
              map((facts) => withFacts(known, facts)),
            ),
      ),
      takeWhile(({ read, pages }) => read < pages.length, true),
    );
  }
}

const withFacts = <T extends Read>(file: T, { read, pages }: FactsRecord): T => ({
  ...file,
  read,
  pages: file.pages.toSpliced(file.read, pages.length, ...pages),
});
