import { allStrings, firstNumber, firstString, jobStateOf, type Attributes, type JobState } from './message';

/** A job as its printer tells of it. */
export interface JobStatus {
  readonly id: number;
  readonly state: JobState;
  readonly reasons: readonly string[];
  /** Sheets that came out; null where the printer does not say, which need not, and may then be any number. */
  readonly sheetsCompleted: number | null;
  readonly message: string | null;
}

/** What is asked of a job. */
export const JOB_STATUS_ATTRIBUTES = [
  'job-id',
  'job-state',
  'job-state-reasons',
  'job-state-message',
  'job-media-sheets-completed',
  'job-impressions-completed',
];

/** What is told of a job (RFC 8011, 5.3.7, 5.3.8 and 5.3.18). */
export function readJobStatus(id: number, job: Attributes): JobStatus {
  const state = jobStateOf(firstNumber(job, 'job-state') ?? 0) ?? 'pending';
  return {
    id,
    state,
    reasons: allStrings(job, 'job-state-reasons'),
    sheetsCompleted: sheetsOf(job, state),
    message: firstString(job, 'job-state-message'),
  };
}

/** States in which nothing of a job can have been printed. */
const BEFORE: readonly JobState[] = ['pending', 'pending-held'];

function sheetsOf(job: Attributes, state: JobState): number | null {
  const sheets = firstNumber(job, 'job-media-sheets-completed');
  if (sheets !== null) return sheets;
  // No side was printed, so no sheet was; how many sheets some sides are is not told.
  return BEFORE.includes(state) || firstNumber(job, 'job-impressions-completed') === 0 ? 0 : null;
}
