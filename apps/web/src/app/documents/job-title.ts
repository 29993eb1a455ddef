import type { JobDocument } from '@foglio/api';
import type { Ticket } from '@foglio/core';

/** What a job is called: by its title, or else by its first document. */
export const titleOf = ({ title }: Ticket, documents: readonly Pick<JobDocument, 'name'>[]): string =>
  title || (documents[0]?.name ?? 'Job');
