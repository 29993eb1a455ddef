import { afterNextRender, inject, Injectable, Injector } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { addressOf, OPERATIONS, type Caution, type SetupRecord } from '@foglio/api';
import { marginAt } from '@foglio/core';
import { nameWithoutKind } from '@foglio/sentence';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom, take } from 'rxjs';
import { saveText } from '../documents/save-text';
import { writeSetup } from '../documents/setup-file';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import type { PaperData } from '../printers/paper-dialog';
import { ConfirmDialog, type ConfirmData } from './confirm-dialog';
import { KeysDialog } from './keys-dialog';
import type { LeafData } from './leafing/leaf-dialog';
import { pageSourceOf } from './page-source';
import type { DrawnPart, PartData } from './part/part-dialog';
import type { PartOf } from './part/part-scopes';
import type { LargeData } from './sheet/large-dialog';
import { faceWords } from './sheet/sheet-words';
import { sheetAt } from './shown-sheets';
import { SaveDialog, type SaveData, type Saving } from './save-dialog';

/** What the Bench asks in a dialog, and what comes of the answer. Those that are seldom wanted are loaded when they are. */
@Injectable()
export class BenchDialogs {
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly dialog = inject(MatDialog);
  private readonly notices = inject(MatSnackBar);
  private readonly injector = inject(Injector);

  /** Whether one is open, so that keys are its own. */
  get isOpen(): boolean {
    return this.dialog.openDialogs.length > 0;
  }

  /** Whether the person wants to send although these cautions stand; true where there are none. */
  async areConfirmed(cautions: readonly Caution[], sheets: number): Promise<boolean> {
    if (cautions.length === 0) return true;
    const data: ConfirmData = { cautions, sheets };
    const dialog = this.dialog.open<ConfirmDialog, ConfirmData, boolean>(ConfirmDialog, { data, width: '520px' });
    return (await firstValueFrom(dialog.afterClosed())) === true;
  }

  /** Asks what to save; the server imposes the ticket it has, so what is still on its way is waited for. */
  async save(): Promise<void> {
    const { ticket, documents } = this.bench();
    if (!ticket) return;
    const data: SaveData = { name: ticket.title || nameWithoutKind(documents[0]?.name ?? 'Job'), sets: ticket.copies };
    const dialog = this.dialog.open<SaveDialog, SaveData, Saving>(SaveDialog, { data, width: '480px' });
    const saving = await firstValueFrom(dialog.afterClosed());
    if (saving?.what === 'set-up') return saveText(`${saving.name}.json`, writeSetup(ticket, documents));
    if (saving) this.download(saving.what === 'pdf' ? 'imposedPdf' : 'sheetList', saving.name);
  }

  private download(what: 'imposedPdf' | 'sheetList', name: string): void {
    this.store
      .select(benchFeature.selectBenchState)
      .pipe(
        filter(({ saving }) => saving !== 'unsaved'),
        take(1),
      )
      .subscribe(({ jobId, saving }) => {
        if (saving !== 'saved' || jobId === null) return;
        window.location.assign(`${addressOf(OPERATIONS[what], { id: jobId })}?name=${encodeURIComponent(name)}`);
      });
  }

  /** Takes a saved set-up, or saves what is set now as one. */
  async takeSetup(): Promise<void> {
    const { ApplyDialog } = await import('../setups/apply-dialog');
    // They change what is open here.
    const { injector } = this;
    const apply = this.dialog.open<unknown, unknown, 'save'>(ApplyDialog, {
      width: '860px',
      maxWidth: '96vw',
      injector,
    });
    if ((await firstValueFrom(apply.afterClosed())) !== 'save') return;
    const { KeepDialog } = await import('../setups/keep-dialog');
    const keep = this.dialog.open<unknown, unknown, SetupRecord>(KeepDialog, { width: '480px', injector });
    const saved = await firstValueFrom(keep.afterClosed());
    if (saved) this.notices.open(`Saved as “${saved.name}”`, undefined, { duration: 5_000 });
  }

  async leafThrough(): Promise<void> {
    const { plan, ticket, printer, trouble } = this.bench();
    if (!plan || !ticket || !printer || trouble) return;
    const { LeafDialog } = await import('./leafing/leaf-dialog');
    const data: LeafData = { plan, ticket, printer: printer.profile, source: pageSourceOf(this.bench()) };
    this.dialog.open(LeafDialog, { data, width: '1040px', maxWidth: '96vw' });
  }

  /** The chosen sheet, as large as the window. */
  async openLarge(back = false): Promise<void> {
    const { plan, sheet: index, documents, printer } = this.bench();
    const sheet = plan && sheetAt(plan, index);
    if (!sheet) return;
    const { LargeDialog } = await import('./sheet/large-dialog');
    const data: LargeData = {
      plan,
      sheet,
      back,
      ...faceWords(sheet, documents, plan),
      source: pageSourceOf(this.bench()),
      marginMm: printer ? marginAt(printer.profile, sheet.tray) : 0,
    };
    this.dialog.open(LargeDialog, { data, width: '94vw', maxWidth: '94vw' });
  }

  /** A part of pages drawn over one of them. */
  async drawPart(of: PartOf): Promise<void> {
    const { partQuestion } = await import('./part/part-scopes');
    const question = partQuestion(of, this.bench());
    if (!question) return;
    const { PartDialog } = await import('./part/part-dialog');
    const { data } = question;
    const dialog = this.dialog.open<unknown, PartData, DrawnPart>(PartDialog, {
      data,
      width: '940px',
      maxWidth: '96vw',
    });
    const drawn = await firstValueFrom(dialog.afterClosed());
    const ticket = drawn && question.answered(drawn, this.bench());
    if (ticket) this.store.dispatch(BenchActions.ticketChanged({ ticket }));
  }

  /** What lies in the trays, said by a person who has seen it. */
  async sayPaper(tray: string | null): Promise<void> {
    const { plan, printer } = this.bench();
    if (!printer) return;
    const { PaperDialog } = await import('../printers/paper-dialog');
    const sizes = [...new Set((plan?.sheets ?? []).map(({ paper }) => paper.size))];
    const data: PaperData = { printer, tray, sizes };
    const dialog = this.dialog.open(PaperDialog, { data, width: '700px', maxWidth: '96vw' });
    await firstValueFrom(dialog.afterClosed());
    afterNextRender(goOn, { injector: this.injector });
  }

  showKeys(): void {
    this.dialog.open(KeysDialog, { width: '480px' });
  }
}

/** Where what a dialog was opened by is gone, since it is settled, one goes on with what is left, or by sending. */
function goOn(): void {
  if (document.activeElement !== document.body) return;
  document.querySelector<HTMLElement>('fo-tally-bar button:not(:disabled)')?.focus();
}
