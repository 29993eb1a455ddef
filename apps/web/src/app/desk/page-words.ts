import { Injectable } from '@angular/core';
import { MatPaginatorIntl } from '@angular/material/paginator';

/** What the pages of the list are called. */
@Injectable()
export class PageWords extends MatPaginatorIntl {
  override getRangeLabel = (page: number, pageSize: number, length: number): string =>
    length === 0 ? 'No jobs' : `Jobs ${page * pageSize + 1} to ${Math.min((page + 1) * pageSize, length)} of ${length}`;
}
