import { inject, Injectable } from '@angular/core';
import { defer, filter, map, merge, type Observable, startWith, Subject, takeWhile } from 'rxjs';
import { Api, isPassing } from '../api/api';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { withFacts, type ReadFile } from './read-file';

/** Follows the reading of files that were just taken in. */
@Injectable({ providedIn: 'root' })
export class Reading {
  private readonly api = inject(Api);
  private readonly news = inject(News);

  /** The file as it is, and again with every page that becomes known, to the last. */
  follow<T extends ReadFile & { readonly sha256: string }>(file: T): Observable<T> {
    return defer(() => {
      let known = file;
      const told = this.news.of('file').pipe(filter(({ id }) => id === file.sha256));
      const broken = new Subject<never>();
      // Where the server is away it is asked again; where it knows no such file there is nothing to wait for.
      const failed = (error: unknown): void => void (isPassing(error) || broken.error(error));
      const facts = keepAsking(this.news.asking(told), () => this.api.facts(known.id, known.read), failed);
      return merge(facts, broken).pipe(
        map((found) => (known = withFacts(known, found))),
        startWith(file),
        takeWhile(({ read, pages }) => read < pages.length, true),
      );
    });
  }
}
