import {
  enumeration,
  integer,
  JOB_STATES,
  keyword,
  OPERATIONS,
  STATUS,
  type Attributes,
  type Message,
} from '@foglio/ipp';
import { isJobOver, Refusal } from '@foglio/ipp/serving';
import type { Machine } from '../machine';
import type { Manner } from './manner';
import { without } from './telling';

/** An answer with something else in what it tells of jobs. */
const ofJobs = (answer: Message, change: (job: Attributes) => Attributes): Message => ({
  ...answer,
  groups: answer.groups.map((group) =>
    group.tag === 'job' ? { ...group, attributes: change(group.attributes) } : group,
  ),
});

/** How often each printer was asked to make a job. */
const asked = new WeakMap<Machine, number>();

/** How long a job is kept open for its first document, in milliseconds: no time to make one. */
const IMPATIENCE_MS = 2_000;

/** How a job stands, as it is told to who asks for that and no more. */
const isStandingAlone = (job: Attributes): boolean => 'job-state' in job && !('job-uri' in job);
let standings = 0;

const ANOTHER: Attributes = {
  'job-id': [integer(4711)],
  'job-state': [enumeration(JOB_STATES.completed)],
  'job-state-reasons': [keyword('none')],
};

/** Of their jobs. */
export const jobs = {
  mute: {
    is: 'says nothing of sheets, sides and reasons of its jobs',
    says: (answer) =>
      ofJobs(answer, (job) =>
        without(job, (name) => /^job-(media-sheets|impressions)/.test(name) || name === 'job-state-reasons'),
      ),
  },
  forgetful: {
    is: 'knows nothing any more of a job that is over',
    served: (printer) => ({
      ...printer,
      jobs: async () => (await printer.jobs()).filter((job) => !isJobOver(job)),
      job: async (id) => {
        const job = await printer.job(id);
        return job && isJobOver(job) ? null : job;
      },
    }),
  },
  'mixed-up': {
    is: 'gives every answer the number 0, and tells of another job now and then',
    says: (answer) => {
      const isStanding = answer.groups.some(({ attributes }) => isStandingAlone(attributes));
      standings += isStanding ? 1 : 0;
      const said = isStanding && standings % 3 === 0 ? ofJobs(answer, (job) => ({ ...job, ...ANOTHER })) : answer;
      return { ...said, requestId: 0 };
    },
  },
  busy: {
    is: 'has too much to do when it is first asked to make a job',
    served: (printer, machine) => ({
      ...printer,
      create: async (creation) => {
        const times = asked.get(machine) ?? 0;
        asked.set(machine, times + 1);
        if (times === 0) throw new Refusal(STATUS.busy, 'it is busy');
        return printer.create(creation);
      },
    }),
  },
  impatient: {
    is: `gives a job up that has no document within ${IMPATIENCE_MS} ms`,
    served: (printer, machine) => ({
      ...printer,
      create: async (creation) => {
        const made = await printer.create(creation);
        setTimeout(() => {
          const job = machine.jobs.get(made.id);
          if (job && job.documents.length === 0) void machine.abortIncoming(job);
        }, IMPATIENCE_MS).unref();
        return made;
      },
    }),
  },
  'hangs-up': {
    is: 'takes a document whole and hangs up without an answer',
    hangsUpAfter: [OPERATIONS.sendDocument, OPERATIONS.printJob],
  },
} satisfies Readonly<Record<string, Manner>>;
