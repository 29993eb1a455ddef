import type { Database } from '../database/connection';
import { fileContent, usable } from '../files/content-store';
import type { StoredDocument } from '../jobs/job-store';
import type { ImposeHow, PdfWorkers } from './pdf-workers';

/** The name under which {@link imposeStored} writes. */
export const IMPOSED = 'imposed.pdf';

/**
 * Writes one set of a job over stored documents as PDF.
 *
 * @param path of a name in a folder for the documents and what is made of them
 * @throws Problem `file-unusable`
 */
export async function imposeStored(
  db: Database,
  workers: PdfWorkers,
  how: ImposeHow,
  documents: readonly StoredDocument[],
  path: (name: string) => string,
): Promise<void> {
  for (const id of new Set(documents.map(({ contentId }) => contentId))) await fileContent(db, id, path(id));
  const filed = documents.map((one) => ({ ...one, file: path(one.contentId) }));
  await usable(() => workers.impose(how, filed, path(IMPOSED)));
}
