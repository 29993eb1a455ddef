import { inject, Injectable } from '@angular/core';
import { concatMap, expand, map, type Observable, of, takeWhile, timer } from 'rxjs';
import { Api } from '../api/api';
import { withFacts, type ReadFile } from './read-file';

const ASK_EVERY_MS = 250;

/** Follows the reading of files that were just taken in. */
@Injectable({ providedIn: 'root' })
export class Reading {
  private readonly api = inject(Api);

  /** The file as it is, and again with every page that becomes known, to the last. */
  follow<T extends ReadFile>(file: T): Observable<T> {
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
