import type { Database } from '../database/connection';
import { fileContent, usable } from '../files/content-store';
import type { StoredDocument } from '../jobs/job-store';
import type { ImposeHow, PdfWorkers } from './pdf-workers';

/**
 * Writes one set of a job over stored documents as PDF, or each part of what is sent.
 *
 * @param path of a name in a folder for the documents and what is made of them
 * @returns the paths of what was made, in order
 * @throws Problem `file-unusable`
 */
export async function imposeStored(
  db: Database,
  workers: PdfWorkers,
  how: ImposeHow,
  documents: readonly StoredDocument[],
  path: (name: string) => string,
): Promise<string[]> {
  for (const id of new Set(documents.map(({ contentId }) => contentId))) await fileContent(db, id, path(id));
  const filed = documents.map((one) => ({ ...one, file: path(one.contentId) }));
  const targets = (how.parts ?? [null]).map((_, index) => path(`imposed-${index + 1}.pdf`));
  await usable(() => workers.impose(how, filed, targets));
  return targets;
}
