import type { Plan } from '@foglio/core';
import { impose, PdfError, type ImposeInput } from '@foglio/pdf';
import { InputError } from './input-error';
import type { Job } from './job-file';

/** The imposed PDF of a job. @throws InputError */
export async function imposeJob(
  { file, ticket, documents }: Job,
  plan: Plan,
  how: Pick<ImposeInput, 'blanks' | 'sets' | 'grey'>,
): Promise<Uint8Array> {
  try {
    return await impose({ plan, ticket, documents, ...how });
  } catch (error) {
    if (error instanceof PdfError) throw new InputError(file, error.message);
    throw error;
  }
}
