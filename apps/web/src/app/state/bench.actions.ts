import type { PageToRoute, RouteChange, Ticket } from '@foglio/core';
import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type {
  Caution,
  DeliveryRecord,
  FactsRecord,
  JobDocument,
  JobRecord,
  PrinterRecord,
  SetupRecord,
} from '@foglio/api';
import type { PlanAnswer } from '../workers/plan-messages';

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
    'Setup saved': props<{ setup: SetupRecord; ticket: Ticket }>(),
    'Load failed': props<{ message: string }>(),
    'Printer wanted': props<{ printer: PrinterRecord }>(),
    'Printer changed': props<{ jobId: string; printer: PrinterRecord; revision: number }>(),
    'Printer seen': props<{ printer: PrinterRecord }>(),
    /** Changes of the same `typing` that follow each other are undone as one. */
    'Ticket changed': props<{ ticket: Ticket; typing?: string }>(),
    /** A file that the ticket may name from now on; the next change of the ticket does. */
    'File taken': props<{ file: JobDocument }>(),
    'Facts read': props<{ file: string; from: number; facts: FactsRecord }>(),
    'Upload failed': props<{ message: string }>(),
    Undone: emptyProps(),
    Redone: emptyProps(),
    Planned: props<{ answer: PlanAnswer }>(),
    Saved: props<{ jobId: string; ticket: Ticket; revision: number }>(),
    'Save failed': props<{ jobId: string | null; message: string; conflict: boolean }>(),
    'Sheet chosen': props<{ sheet: number; extend: boolean }>(),
    'Pages chosen': props<{ pages: readonly PageToRoute[] }>(),
    'Pages routed': props<{ pages: readonly PageToRoute[]; change: RouteChange }>(),
    'Sending wanted': props<{ sheets: number; confirmed: readonly string[] }>(),
    Sent: props<{ delivery: DeliveryRecord }>(),
    /** The server knows of something that the page did not know of yet. */
    'Cautions found': props<{ cautions: readonly Caution[]; sheets: number; confirmed: readonly string[] }>(),
    'Sending refused': props<{ message: string }>(),
    'Printer refused': props<{ message: string }>(),
  },
});
