import type { Plan } from '@foglio/core';
import { imposeParts, PdfError, type ImposeInput } from '@foglio/pdf';
import { InputError } from './input-error';
import type { Job } from './job-file';

/** The imposed PDF of a job, in pieces. @throws InputError */
export async function imposeJob(
  { file, ticket, documents }: Job,
  plan: Plan,
  how: Pick<ImposeInput, 'blanks' | 'sets' | 'grey'>,
): Promise<readonly Uint8Array[]> {
  try {
    const made = await imposeParts({ plans: [plan], ticket, documents, ...how }).next();
    return made.done ? [] : made.value;
  } catch (error) {
    if (error instanceof PdfError) throw new InputError(file, error.message);
    throw error;
  }
}
