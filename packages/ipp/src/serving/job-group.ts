import {
  enumeration,
  integer,
  JOB_STATES,
  keyword,
  nameValue,
  text,
  uri,
  type Attributes,
  type Value,
} from '../message';
import { dateTime, secondsOf } from './moments';
import type { ServedJob } from './served-printer';

const NO_VALUE: Value = { tag: 'no-value' };

/** All that is told of a job (RFC 8011, section 5.3). @param address of its printer */
export function jobGroup(job: ServedJob, address: string): Attributes {
  const { createdAt } = job;
  return {
    'job-uri': [uri(`${address}/${job.id}`)],
    'job-id': [integer(job.id)],
    'job-printer-uri': [uri(address)],
    'job-name': [nameValue(job.name)],
    'job-originating-user-name': [nameValue(job.user)],
    'job-state': [enumeration(JOB_STATES[job.state])],
    'job-state-reasons': job.reasons.map(keyword),
    ...(job.message === null ? {} : { 'job-state-message': [text(job.message)] }),
    'job-media-sheets-completed': [integer(job.sheetsCompleted)],
    ...(job.sheets === null ? {} : { 'job-media-sheets': [integer(job.sheets)] }),
    ...(job.impressions === null ? {} : { 'job-impressions': [integer(job.impressions)] }),
    ...(job.impressionsCompleted === null ? {} : { 'job-impressions-completed': [integer(job.impressionsCompleted)] }),
    'number-of-documents': [integer(job.documents)],
    ...(createdAt ? timesOf(createdAt, job) : {}),
  };
}

/** Of a printer that keeps them (RFC 8011, 5.3.14). */
const timesOf = (
  createdAt: Date,
  { processingAt, completedAt }: Pick<ServedJob, 'processingAt' | 'completedAt'>,
): Attributes => ({
  'job-printer-up-time': [integer(secondsOf(new Date()))],
  'time-at-creation': [timeOf(createdAt)],
  'time-at-processing': [timeOf(processingAt)],
  'time-at-completed': [timeOf(completedAt)],
  'date-time-at-creation': [momentOf(createdAt)],
  'date-time-at-processing': [momentOf(processingAt)],
  'date-time-at-completed': [momentOf(completedAt)],
});

const timeOf = (moment: Date | null): Value => (moment ? integer(secondsOf(moment)) : NO_VALUE);
const momentOf = (moment: Date | null): Value => (moment ? dateTime(moment) : NO_VALUE);
