import { plan } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import type { JobRecord } from '@foglio/api';
import { aDocument, aPrinter } from '../../stubs/records';
import { BenchActions, type PlanBasis } from './bench.actions';
import { benchFeature, type BenchState } from './bench.state';
import type { Change, Changed } from './change-line';

const printer = aPrinter({ name: 'P', trays: ['tray-1', 'tray-2'].map((id) => ({ id, size: 'iso_a4_210x297mm' })) });
const pages = Array.from({ length: 8 }, () => ({ width: 595.276, height: 841.89 }));
const ticket = readTicket({ version: 1, documents: [{ file: 'f' }], tray: 'tray-1' });
const job: JobRecord = {
  id: 'j',
  ticket,
  revision: 1,
  printerId: 'p',
  updatedAt: '2026-11-25T10:00:00Z',
  lastSentAt: null,
  came: null,
  documents: [aDocument(pages)],
};

const { reducer } = benchFeature;
const after = (...actions: Parameters<typeof reducer>[1][]): BenchState =>
  actions.reduce(
    reducer,
    reducer(reducer(undefined, BenchActions.opened({ jobId: 'j' })), BenchActions.loaded({ job, printer, setups: [] })),
  );

const moment = '2026-09-01T14:05';
const basisOf = ({ ticket: of, documents, printer: at }: BenchState): PlanBasis => ({
  ticket: of!,
  documents,
  printer: at!,
});
/** What the planning worker answers of the Bench as it stands. */
const planOf = (state: BenchState) => {
  const made = plan(state.ticket!, state.documents, printer.profile);
  return BenchActions.planned({ answer: { milliseconds: 1, plan: made, moment, trouble: null }, of: basisOf(state) });
};
const planned = (state: BenchState): BenchState => reducer(state, planOf(state));

const here: Changed = { kind: 'job', id: 'j' };
const saved = (change: Change, revision: number, of = here) =>
  BenchActions.saved({ of, news: { kind: 'saved', change, revision, setup: null } });

const copies = (count: number, typing?: string) => {
  const changed = { ...ticket, copies: count };
  return BenchActions.ticketChanged(typing === undefined ? { ticket: changed } : { ticket: changed, typing });
};

test('every change can be undone and redone', () => {
  const state = after(copies(2), copies(3), BenchActions.undone());
  expect([state.ticket?.copies, state.saving]).toEqual([2, 'unsaved']);
  expect(reducer(state, BenchActions.redone()).ticket?.copies).toBe(3);
  expect(after(BenchActions.undone()).ticket).toBe(ticket);
});

test('what is typed in one go is undone in one go', () => {
  expect(after(copies(2, 'copies'), copies(24, 'copies'), BenchActions.undone()).ticket?.copies).toBe(1);
  expect(after(copies(2, 'copies'), copies(5), copies(24, 'copies'), BenchActions.undone()).ticket?.copies).toBe(5);
});

test('a change made while an older one was being saved is still unsaved', () => {
  const saving = after(copies(2));
  const changed = reducer(saving, copies(3));
  expect(reducer(changed, saved({ ticket: saving.ticket! }, 2))).toMatchObject({ saving: 'unsaved', revision: 2 });
  expect(reducer(changed, saved({ ticket: changed.ticket! }, 2)).saving).toBe('saved');
});

test('word of another job’s saving, come late, changes nothing here', () => {
  const state = after(copies(2));
  const other: Changed = { kind: 'job', id: 'other' };
  expect(reducer(state, saved({ ticket }, 9, other))).toBe(state);
  expect(reducer(state, BenchActions.saveFailed({ of: other, message: 'm', conflict: true }))).toBe(state);
  // A set-up may have the very id that a job has.
  expect(reducer(state, saved({ ticket }, 9, { kind: 'set-up', id: 'j' }))).toBe(state);
  expect(reducer(state, BenchActions.loaded({ job: { ...job, id: 'other' }, printer, setups: [] }))).toBe(state);
  expect(reducer(state, BenchActions.loadFailed({ jobId: 'other', message: 'm' }))).toBe(state);
});

test('a number key acts on the chosen pages, or on all pages of the chosen sheets', () => {
  const state = planned(after(BenchActions.sheetChosen({ sheet: 2, extend: false })));
  const onSheets = reducer(state, BenchActions.sheetChosen({ sheet: 4, extend: true }));
  const routable = (one: BenchState) => benchFeature.selectRoutable({ bench: one } as never).map(({ page }) => page);
  expect(routable(onSheets)).toEqual([2, 3, 4]);
  expect(routable(reducer(onSheets, BenchActions.pagesChosen({ pages: [{ document: 1, page: 7 }] })))).toEqual([7]);
  const routed = reducer(
    onSheets,
    BenchActions.pagesRouted({ pages: [{ document: 1, page: 3 }], change: { tray: 'tray-2' } }),
  );
  expect(routed.ticket?.routes).toEqual([{ document: 1, pages: '3', tray: 'tray-2' }]);
});

test('a ticket that cannot be planned keeps the last sheets and says why', () => {
  const state = planned(after());
  const trouble = { place: 'documents[0].pages', problem: 'p', repair: 'r', position: 0, length: 1, replacement: null };
  const troubled = reducer(
    state,
    BenchActions.planned({ answer: { milliseconds: 1, plan: null, trouble }, of: basisOf(state) }),
  );
  expect([troubled.plan, troubled.trouble]).toEqual([state.plan, trouble]);
  expect(planned(troubled).trouble).toBeNull();
});

test('a plan with fewer sheets never leaves a sheet chosen that is gone', () => {
  const state = planned(after(BenchActions.sheetChosen({ sheet: 8, extend: false })));
  const fewer = { ...ticket, documents: [{ ...ticket.documents[0]!, pages: '1-2' }] };
  expect(planned(reducer(state, BenchActions.ticketChanged({ ticket: fewer })))).toMatchObject({ sheet: 2, anchor: 2 });
});

test('an unchanged profile keeps its identity, so that nothing is planned again', () => {
  const state = after(BenchActions.printerSeen({ printer: { ...printer, profile: { ...printer.profile } } }));
  expect(state.printer!.profile).toBe(printer.profile);
});

test('what becomes known of a document’s pages takes their place, once', () => {
  const known = { ...pages[0]!, color: false, smallestText: 9 };
  const facts = { read: 1, pages: [known] };
  const first = after(BenchActions.factsRead({ file: 'f', from: 0, facts }));
  expect([first.documents[0]!.read, first.documents[0]!.pages[0]]).toEqual([1, known]);
  expect(first.documents[0]!.pages).toHaveLength(pages.length);
  // Labels and outline are known before the details of any page.
  const outline = [{ title: 'Fees', level: 1, page: 2, top: 0 }];
  const labelled = pages.map((page, at) => ({ ...page, label: `A${at + 1}` }));
  const named = after(BenchActions.factsRead({ file: 'f', from: 0, facts: { read: 0, pages: labelled, outline } }));
  expect(named.documents[0]).toMatchObject({ read: 0, pages: labelled, outline });
  // An answer to an older question comes too late.
  const again = reducer(first, BenchActions.factsRead({ file: 'f', from: 0, facts: { read: 1, pages: [pages[0]!] } }));
  expect(again.documents[0]!.pages[0]).toEqual(known);
});

test('documents come and go with the ticket, and undoing brings them back with what has been read since', () => {
  const second = aDocument(pages.slice(0, 2), { id: 'g', name: 'b.pdf' });
  const both = { ...ticket, documents: [...ticket.documents, { ...ticket.documents[0]!, file: 'g' }] };
  const added = after(BenchActions.fileTaken({ file: second }), BenchActions.ticketChanged({ ticket: both }));
  expect(added.documents.map(({ id }) => id)).toEqual(['f', 'g']);
  const undone = reducer(added, BenchActions.undone());
  expect(undone.documents.map(({ id }) => id)).toEqual(['f']);
  const facts = { read: 1, pages: [{ ...pages[0]!, color: true }] };
  const read = reducer(undone, BenchActions.factsRead({ file: 'g', from: 0, facts }));
  expect(read.documents).toBe(undone.documents);
  const redone = reducer(read, BenchActions.redone());
  expect(redone.documents.map(({ read: count }) => count)).toEqual([0, 1]);
});

test('a change that leaves the documents leaves them the very same, so that their facts are not sent again', () => {
  const state = after();
  expect(reducer(state, copies(2)).documents).toBe(state.documents);
});

test('the information sheet is chosen as sheet 0, goes to a tray by its number, and leaves sheet 1 when it goes', () => {
  const wanted = { ...ticket, informationSheet: { print: true, by: '', tray: null } };
  const before = { ...after(BenchActions.ticketChanged({ ticket: wanted })) };
  const drawn = planned(before);
  const chosen = reducer(drawn, BenchActions.sheetChosen({ sheet: 0, extend: false }));
  expect(benchFeature.selectRoutable.projector(chosen.plan, 0, 0, [])).toEqual([]);
  expect(benchFeature.selectShownSheet.projector(chosen.plan, 0)?.index).toBe(0);
  const routed = reducer(chosen, BenchActions.pagesRouted({ pages: [], change: { tray: 'tray-2' } }));
  expect(routed.ticket?.informationSheet.tray).toBe('tray-2');
  expect(routed.ticket?.routes).toEqual(wanted.routes);
  expect(planned(reducer(chosen, BenchActions.ticketChanged({ ticket }))).sheet).toBe(1);
});

test('a plan of the ticket, the documents or the printer of before is not shown', () => {
  const before = after();
  const late = planOf(before);
  for (const change of [copies(2), BenchActions.printerWanted({ printer: aPrinter(printer.profile, { id: 'q' }) })]) {
    const state = reducer(before, change);
    expect(reducer(state, late)).toBe(state);
  }
  expect(reducer(before, late).seen).toMatchObject({ ticket, documents: before.documents, printer, moment });
  // Nor in the next job, before anything of that is known.
  const opened = reducer(before, BenchActions.opened({ jobId: 'k' }));
  expect(reducer(opened, late)).toBe(opened);
});

test('another printer is on the screen at once, and saved when the server has it and the ticket', () => {
  const other = aPrinter(printer.profile, { id: 'q' });
  const wanted = after(copies(2), BenchActions.printerWanted({ printer: other }));
  expect(wanted).toMatchObject({ printer: other, saving: 'unsaved' });
  const half = reducer(wanted, saved({ ticket: wanted.ticket! }, 2));
  expect(half.saving).toBe('unsaved');
  expect(reducer(half, saved({ printerId: 'q' }, 3))).toMatchObject({ saving: 'saved', revision: 3 });
});

test('a change that could be saved at last takes back what was said of it', () => {
  const failed = after(copies(2), BenchActions.saveFailed({ of: here, message: 'Away.', conflict: false }));
  expect(failed).toMatchObject({ saving: 'failed', message: 'Away.' });
  expect(reducer(failed, saved({ ticket: failed.ticket! }, 2))).toMatchObject({ saving: 'saved', message: null });
});

test('what the sentence is said of stays the same object until some of it is another', () => {
  const situationOf = (state: BenchState) => benchFeature.selectSituation({ bench: state } as never);
  const setup = { ticket, starts: 'house', printerId: null };
  const state = { ...after(), setups: [setup] } as unknown as BenchState;
  const said = situationOf(state);
  expect(said).toMatchObject({ ticket, house: ticket });
  expect(situationOf(reducer(planned(state), BenchActions.sheetChosen({ sheet: 2, extend: false })))).toBe(said);
  expect(situationOf(reducer(state, copies(2)))).not.toBe(said);
});
