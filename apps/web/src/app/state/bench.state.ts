import {
  ANY_FILE,
  isLaidOutAs,
  routePages,
  type Form,
  type PageToRoute,
  type Plan,
  type Sheet,
  type Ticket,
} from '@foglio/core';
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import type { CameBy, JobDocument, PrinterRecord, SetupRecord } from '@foglio/api';
import type { Situation } from '@foglio/sentence';
import type { PlanTrouble } from '../workers/plan-messages';
import { firstShown, sheetAt, sheetsBetween } from '../bench/shown-sheets';
import { isPageKnown, withFacts } from '../documents/read-file';
import { houseTicket } from '../setups/house';
import { SAMPLE, sampleDocuments } from '../setups/sample-document';
import { BenchActions } from './bench.actions';
import type { Changed } from './change-line';
import type { Seen } from './seen';

export type Saving = 'saved' | 'unsaved' | 'conflict' | 'failed';

export interface BenchState {
  readonly jobId: string | null;
  /** The saved set-up that is changed instead of a job. */
  readonly setupId: string | null;
  readonly ticket: Ticket | null;
  /** Of every file that the ticket names, or did before a change that may be undone; by id. */
  readonly files: Readonly<Record<string, JobDocument>>;
  /** The ticket's, in its order; the same object for as long as nothing of it changes, since all is planned anew for another. */
  readonly documents: readonly JobDocument[];
  readonly printer: PrinterRecord | null;
  /** All that are saved; new jobs start from one of them. */
  readonly setups: readonly SetupRecord[];
  /** How it came, where another program printed it to Foglio. */
  readonly came: CameBy | null;
  readonly revision: number;
  /** The latest of which was heard, also while it is not known here what it holds; null: the job is gone. */
  readonly newest: number | null;
  /** What the server has of what is changed here; of the very ticket and printer that stand there, all is saved. */
  readonly onServer: { readonly ticket: Ticket | null; readonly printerId: string | null };
  readonly plan: Plan | null;
  /** The plan with what it was made of. */
  readonly seen: Seen | null;
  /** Why the ticket as it stands cannot be planned; the plan shown is then the last one that could. */
  readonly trouble: PlanTrouble | null;
  readonly planMilliseconds: number | null;
  readonly saving: Saving;
  readonly sending: boolean;
  /** What a person should be told of: a refused sending, a failed upload. */
  readonly message: string | null;
  readonly loadError: string | null;
  /** The sheet shown on the right, from 1; the chosen stretch reaches from `anchor` to it. */
  readonly sheet: number;
  readonly anchor: number;
  readonly pages: readonly PageToRoute[];
  readonly past: readonly Ticket[];
  readonly future: readonly Ticket[];
  /** What is being typed, as long as nothing else happens in between. */
  readonly typing: string | null;
}

const EMPTY: BenchState = {
  jobId: null,
  setupId: null,
  ticket: null,
  files: {},
  documents: [],
  printer: null,
  setups: [],
  came: null,
  revision: 0,
  newest: 0,
  onServer: { ticket: null, printerId: null },
  plan: null,
  seen: null,
  trouble: null,
  planMilliseconds: null,
  saving: 'saved',
  sending: false,
  message: null,
  loadError: null,
  sheet: 1,
  anchor: 1,
  pages: [],
  past: [],
  future: [],
  typing: null,
};

/** More steps back than a person remembers. */
const MOST_STEPS = 200;

function changed(state: BenchState, ticket: Ticket, typing: string | null = null): BenchState {
  if (!state.ticket || ticket === state.ticket) return state;
  const goesOn = typing !== null && typing === state.typing;
  const past = goesOn ? state.past : [...state.past, state.ticket].slice(-MOST_STEPS);
  return { ...withTicket(state, ticket), past, future: [], typing, message: null };
}

/** Another ticket, with its documents. */
const withTicket = (state: BenchState, ticket: Ticket): BenchState => ({
  ...state,
  ticket,
  documents: documentsOf(ticket, state.files, state.documents),
  saving: 'unsaved',
});

const CHANGED = 'Another window changed this job.';
const REMOVED = 'Another window removed this job.';

/** Whether all that stands here is on the server, and what stands here is all that is there. */
const withSaving = (state: BenchState): BenchState => {
  const { ticket, printerId } = state.onServer;
  if (ticket !== state.ticket || printerId !== state.printer?.id) return { ...state, saving: 'unsaved' };
  const { newest, revision } = state;
  if (newest !== null && newest <= revision) return { ...state, saving: 'saved' };
  return { ...state, saving: 'conflict', message: newest === null ? REMOVED : CHANGED };
};

/** The documents of a ticket; the very array of before where nothing of it is different. */
function documentsOf(
  ticket: Ticket,
  files: BenchState['files'],
  before: BenchState['documents'],
): BenchState['documents'] {
  const documents = ticket.documents.flatMap(({ file }) => files[file] ?? []);
  const same = documents.length === before.length && documents.every((one, at) => one === before[at]);
  return same ? before : documents;
}

const reducer = createReducer(
  EMPTY,
  on(BenchActions.opened, (_state, { jobId, sheet = 1 }): BenchState => ({ ...EMPTY, jobId, sheet, anchor: sheet })),
  on(BenchActions.loaded, (state, { job, printer, setups }): BenchState => {
    if (job.id !== state.jobId) return state;
    const { ticket, documents, revision, came } = job;
    const files = Object.fromEntries(documents.map((one) => [one.id, one]));
    const loaded = { ticket, files, documents, revision, printer, setups, came };
    return withSaving({ ...state, ...loaded, onServer: { ticket, printerId: printer.id }, loadError: null });
  }),
  on(BenchActions.jobHeardOf, (state, { jobId, revision }): BenchState => {
    if (jobId !== state.jobId || state.newest === null) return state;
    const heard = { ...state, newest: revision === 0 ? null : Math.max(revision, state.newest) };
    // What is on its way to the server is answered there, and may be this very change.
    return state.ticket && state.saving === 'saved' ? withSaving(heard) : heard;
  }),
  on(BenchActions.setupOpened, (_state, { setup, printer, setups }): BenchState => {
    const { ticket } = setup;
    const { revision } = setup;
    const opened = {
      setupId: setup.id,
      ticket,
      revision,
      printer,
      setups,
      onServer: { ticket, printerId: printer.id },
    };
    return { ...EMPTY, ...opened, files: { [ANY_FILE]: SAMPLE }, documents: sampleDocuments(ticket) };
  }),
  on(BenchActions.setupsSeen, (state, { setups }): BenchState => ({ ...state, setups })),
  on(BenchActions.loadFailed, (state, { jobId, message }): BenchState => {
    return jobId === state.jobId ? { ...state, loadError: message } : state;
  }),
  on(BenchActions.printerSeen, (state, { printer }): BenchState => {
    // An answer about the printer of before, or to an earlier question, comes too late.
    if (printer.id !== state.printer?.id || printer.askedAt < state.printer.askedAt) return state;
    // An unchanged profile keeps its identity, so that nothing is planned again for it.
    const { profile } = state.printer;
    const isSame = JSON.stringify(printer.profile) === JSON.stringify(profile);
    return { ...state, printer: isSame ? { ...printer, profile } : printer };
  }),
  on(BenchActions.printerWanted, (state, { printer }): BenchState => {
    return state.ticket ? withSaving({ ...state, printer, message: null }) : state;
  }),
  on(BenchActions.refused, (state, { message }): BenchState => ({ ...state, message })),
  on(BenchActions.ticketChanged, (state, { ticket, typing }) => changed(state, ticket, typing)),
  on(BenchActions.fileTaken, (state, { file }): BenchState => {
    const files = { ...state.files, [file.id]: file };
    return { ...state, files, documents: state.ticket ? documentsOf(state.ticket, files, state.documents) : [] };
  }),
  on(BenchActions.laidOut, (state, { file, laid }): BenchState => {
    const files = { ...state.files, [laid.id]: laid };
    if (!state.ticket) return { ...state, files };
    // Whatever the ticket asks by now: only what asks for this form is answered by it.
    const isAsked = (one: Ticket['documents'][number]): boolean =>
      one.file === file && isLaidOutAs(laid.laid, one.form);
    if (!state.ticket.documents.some(isAsked)) return { ...state, files };
    const documents = state.ticket.documents.map((one) => (isAsked(one) ? { ...one, file: laid.id } : one));
    // No step of its own: it is undone with what asked for it.
    return { ...withTicket({ ...state, files }, { ...state.ticket, documents }), message: null };
  }),
  on(BenchActions.factsRead, (state, { file, from, facts }): BenchState => {
    const known = state.files[file];
    if (known?.read !== from) return state;
    const files = { ...state.files, [file]: withFacts(known, facts) };
    return {
      ...state,
      files,
      documents: state.ticket ? documentsOf(state.ticket, files, state.documents) : state.documents,
    };
  }),
  on(BenchActions.pagesRouted, (state, { pages, change }): BenchState => {
    if (!state.ticket) return state;
    if (pages.length === 0 && state.sheet === 0 && change.tray !== undefined) {
      const informationSheet = { ...state.ticket.informationSheet, tray: change.tray };
      return changed(state, { ...state.ticket, informationSheet });
    }
    if (pages.length === 0) return state;
    return changed(state, routePages(state.ticket, state.documents, pages, change));
  }),
  on(BenchActions.undone, (state): BenchState => {
    const ticket = state.past.at(-1);
    if (!ticket || !state.ticket) return state;
    const future = [state.ticket, ...state.future];
    return { ...withTicket(state, ticket), past: state.past.slice(0, -1), future, typing: null };
  }),
  on(BenchActions.redone, (state): BenchState => {
    const [ticket, ...future] = state.future;
    if (!ticket || !state.ticket) return state;
    return { ...withTicket(state, ticket), past: [...state.past, state.ticket], future };
  }),
  on(BenchActions.planned, (state, { answer, of }): BenchState => {
    const isOfThis =
      of.ticket === state.ticket && of.documents === state.documents && of.printer.id === state.printer?.id;
    if (!isOfThis) return state;
    const planMilliseconds = answer.milliseconds;
    if (answer.trouble) return { ...state, trouble: answer.trouble, planMilliseconds };
    const { plan, moment } = answer;
    const within = (number: number): number => Math.max(firstShown(plan), Math.min(number, plan.sheets.length));
    return {
      ...state,
      plan,
      seen: { ...of, plan, moment },
      trouble: null,
      planMilliseconds,
      sheet: within(state.sheet),
      anchor: within(state.anchor),
    };
  }),
  on(BenchActions.saved, (state, { of, news }): BenchState => {
    if (!isOpen(state, of)) return state;
    const { change, setup } = news;
    const { ticket = state.onServer.ticket, printerId = state.onServer.printerId } = change;
    const setups = setup ? state.setups.map((one) => (one.id === setup.id ? setup : one)) : state.setups;
    const { revision } = news;
    const message = state.saving === 'failed' ? null : state.message;
    return withSaving({ ...state, setups, revision, message, onServer: { ticket, printerId } });
  }),
  on(BenchActions.saveFailed, (state, { of, message, conflict }): BenchState => {
    return isOpen(state, of) ? { ...state, saving: conflict ? 'conflict' : 'failed', message } : state;
  }),
  on(BenchActions.sheetChosen, (state, { sheet, extend }): BenchState => {
    return { ...state, sheet, anchor: extend ? state.anchor : sheet, pages: [] };
  }),
  on(BenchActions.pagesChosen, (state, { pages }): BenchState => {
    const at = pages.at(-1);
    const sheet = (at && state.plan?.sheets.find((one) => carries(one, at))?.index) ?? state.sheet;
    return { ...state, pages, sheet, anchor: sheet };
  }),
  on(BenchActions.sendingWanted, (state): BenchState => ({ ...state, sending: true, message: null })),
  on(BenchActions.sent, BenchActions.cautionsFound, (state): BenchState => ({ ...state, sending: false })),
  on(BenchActions.sendingRefused, (state, { message }): BenchState => ({ ...state, sending: false, message })),
);

/** Whether that is what is open here. */
const isOpen = ({ jobId, setupId }: BenchState, { kind, id }: Changed): boolean =>
  id === (kind === 'job' ? jobId : setupId);

const carries = (sheet: Sheet, { document, page }: PageToRoute): boolean =>
  [...sheet.front.cells, ...(sheet.back?.cells ?? [])].some((cell) => cell.document === document && cell.page === page);

/** A document that is not laid out as the ticket asks, and how it is to be. */
export interface ToLayOut {
  readonly file: string;
  readonly name: string;
  readonly form: Form;
}

/** The documents of a ticket that are to be laid out anew. */
const toLayOutOf = (ticket: Ticket | null, files: BenchState['files']): ToLayOut[] =>
  (ticket?.documents ?? [])
    .filter(({ file, form }) => !isLaidOutAs(files[file]?.laid, form))
    .map(({ file, form }) => ({ file, name: files[file]!.name, form }));

/** What the ticket is said and changed before; null before the job is there. The document in question is the first. */
function situationOf(
  ticket: BenchState['ticket'],
  documents: BenchState['documents'],
  printer: BenchState['printer'],
  setups: BenchState['setups'],
): Situation | null {
  const house = houseTicket(setups, printer?.id);
  return ticket && printer && house ? { ticket, documents, printer: printer.profile, at: 0, house } : null;
}

export const benchFeature = createFeature({
  name: 'bench',
  reducer,
  extraSelectors: ({
    selectTicket,
    selectPrinter,
    selectSetups,
    selectFiles,
    selectPlan,
    selectSheet,
    selectAnchor,
    selectPages,
    selectDocuments,
    selectSaving,
    selectTrouble,
  }) => ({
    /** The same for as long as these are, since a plan that comes or a sheet that is chosen changes no word of the sentence. */
    selectSituation: createSelector(selectTicket, selectDocuments, selectPrinter, selectSetups, situationOf),
    selectToLayOut: createSelector(selectTicket, selectFiles, toLayOutOf),
    /** The sheets from the anchor to the one shown, in order. */
    selectChosenSheets: createSelector(selectPlan, selectSheet, selectAnchor, (plan, sheet, anchor): Sheet[] =>
      plan ? sheetsBetween(plan, sheet, anchor) : [],
    ),
    selectShownSheet: createSelector(selectPlan, selectSheet, (plan, sheet): Sheet | null =>
      plan ? sheetAt(plan, sheet) : null,
    ),
    /** The first page of the sheet that is shown of which it is not known what is on it; null: it is. */
    selectLookedAt: createSelector(
      selectPlan,
      selectSheet,
      selectDocuments,
      (plan, sheet, documents): LookedAt | null => {
        const shown = plan && sheetAt(plan, sheet);
        for (const { document, page } of shown ? pagesOf([shown]) : []) {
          const of = documents[document - 1];
          const facts = of?.pages[page - 1];
          if (of && facts && page > of.read && !isPageKnown(facts)) return { file: of.id, page };
        }
        return null;
      },
    ),
    /** What a tray's number acts on: the chosen pages, or all pages of the chosen sheets. */
    selectRoutable: createSelector(selectPlan, selectSheet, selectAnchor, selectPages, (plan, sheet, anchor, pages) => {
      if (pages.length > 0 || !plan) return pages;
      return pagesOf(sheetsBetween(plan, sheet, anchor));
    }),
    selectSettled: createSelector(selectSaving, selectTrouble, (saving, trouble) => saving === 'saved' && !trouble),
  }),
});

/** A page that is looked at. */
export interface LookedAt {
  readonly file: string;
  readonly page: number;
}

/** The pages on these sheets, front before back. */
export const pagesOf = (sheets: readonly Sheet[]): PageToRoute[] =>
  sheets.flatMap((sheet) =>
    [...sheet.front.cells, ...(sheet.back?.cells ?? [])].map(({ document, page }) => ({ document, page })),
  );
