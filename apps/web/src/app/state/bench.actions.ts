import type { Form, PageToRoute, RouteChange, Ticket } from '@foglio/core';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type {
  Caution,
  SendingRecord,
  FactsRecord,
  JobDocument,
  JobRecord,
  PrinterRecord,
  SetupRecord,
} from '@foglio/api';
import type { PlanAnswer } from '../workers/plan-messages';
import type { Changed, ChangeNews } from './change-line';
import type { Seen } from './seen';

/** What a plan is made of. */
export type PlanBasis = Pick<Seen, 'ticket' | 'documents' | 'printer'>;

/** Everything that happens on the Bench. */
export const BenchActions = createActionGroup({
  source: 'Bench',
  events: {
    /** @param sheet where the person was when the job was last on the screen */
    Opened: props<{ jobId: string; sheet?: number }>(),
    Loaded: props<{ job: JobRecord; printer: PrinterRecord; setups: readonly SetupRecord[] }>(),
    'Setups seen': props<{ setups: readonly SetupRecord[] }>(),
    /** A saved set-up is changed as a job is, drawn over a sample. */
    'Setup opened': props<{ setup: SetupRecord; printer: PrinterRecord; setups: readonly SetupRecord[] }>(),
    'Load failed': props<{ jobId: string; message: string }>(),
    /** Shown at once; the server has it as soon as it is saved. */
    'Printer wanted': props<{ printer: PrinterRecord }>(),
    'Printer seen': props<{ printer: PrinterRecord }>(),
    /** At which revision a job is on the server, whoever changed it; 0: it is gone. */
    'Job heard of': props<{ jobId: string; revision: number }>(),
    /** Changes of the same `typing` that follow each other are undone as one. */
    'Ticket changed': props<{ ticket: Ticket; typing?: string }>(),
    /** A file that the ticket may name from now on, since the next change of it does; or all of one that began with its first pages. */
    'File taken': props<{ file: JobDocument }>(),
    /** A document was laid out as the ticket asked: this file stands for it from now on. */
    'Laid out': props<{ file: string; form: Form; laid: JobDocument }>(),
    'Facts read': props<{ file: string; from: number; facts: FactsRecord }>(),
    Undone: emptyProps(),
    Redone: emptyProps(),
    /** @param of what the plan was made of: of anything else it is not the answer */
    Planned: props<{ answer: PlanAnswer; of: PlanBasis }>(),
    Saved: props<{ of: Changed; news: Extract<ChangeNews, { kind: 'saved' }> }>(),
    'Save failed': props<{ of: Changed; message: string; conflict: boolean }>(),
    'Sheet chosen': props<{ sheet: number; extend: boolean }>(),
    'Pages chosen': props<{ pages: readonly PageToRoute[] }>(),
    'Pages routed': props<{ pages: readonly PageToRoute[]; change: RouteChange }>(),
    'Sending wanted': props<{ seen: Seen; confirmed: readonly string[] }>(),
    Sent: props<{ sending: SendingRecord }>(),
    /** The server knows of something that the page did not know of yet. */
    'Cautions found': props<{ cautions: readonly Caution[]; seen: Seen; confirmed: readonly string[] }>(),
    'Sending refused': props<{ message: string }>(),
    Refused: props<{ message: string }>(),
  },
});
