import { CdkDrag, CdkDragHandle, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  input,
  output,
} from '@angular/core';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatIcon } from '@angular/material/icon';
import { MatInput } from '@angular/material/input';
import type { Form, LaidOut, Ticket } from '@foglio/core';
import { aspectOf, FORM_QUESTIONS, formNow, isUsual, patchForm, type Situation, usual } from '@foglio/sentence';
import { Store } from '@ngrx/store';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';

/** A sheet of a workbook as it stands in the list: those that are printed first, in their order. */
interface SheetRow {
  readonly name: string;
  readonly hidden: boolean;
  readonly isPrinted: boolean;
}

/** How a document without pages of its own is laid out. Every change is laid out at once, and can be undone. */
@Component({
  selector: 'fo-form-popover',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, MatButton, MatFormField, MatIcon, MatIconButton, MatInput],
  templateUrl: './form-popover.html',
  styleUrl: './form-popover.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'popover', role: 'dialog', '[attr.aria-label]': 'aspect.title' },
})
export class FormPopover {
  /** The document in question, from 0. */
  readonly at = input(0);
  readonly closed = output<void>();

  private readonly store = inject(Store);
  private readonly injector = inject(Injector);
  private readonly ticket = this.store.selectSignal(benchFeature.selectTicket);
  private readonly known = this.store.selectSignal(benchFeature.selectSituation);
  private readonly toLayOut = this.store.selectSignal(benchFeature.selectToLayOut);
  protected readonly message = this.store.selectSignal(benchFeature.selectMessage);
  protected readonly aspect = aspectOf('form');

  private readonly situation = computed<Situation>(() => ({ ...this.known()!, at: this.at() }));
  protected readonly document = computed(() => this.situation().documents[this.at()]);
  private readonly laid = computed<LaidOut | undefined>(() => this.document()?.laid);
  protected readonly questions = computed(() => {
    const laid = this.laid();
    return laid ? FORM_QUESTIONS[laid.kind] : [];
  });
  private readonly form = computed<Form>(() => {
    const laid = this.laid();
    return laid ? formNow(this.situation(), laid) : {};
  });
  /** Whether what is shown on the Bench is not yet what is asked here. */
  protected readonly isUnderWay = computed(() =>
    this.toLayOut().some(({ file }) => file === this.ticket()?.documents[this.at()]?.file),
  );
  /** "9 pages of A4" */
  protected readonly pagesSaid = computed(() => {
    const count = this.document()?.pages.length ?? 0;
    return count === 1 ? '1 page' : `${count} pages`;
  });
  protected readonly isUsual = computed(() => isUsual(this.aspect, this.situation()));

  protected readonly sheets = computed<readonly SheetRow[]>(() => {
    const all = this.laid()?.sheets ?? [];
    const printed = this.form().sheets ?? [];
    const hidden = (name: string): boolean => all.some((sheet) => sheet.name === name && sheet.hidden);
    return [
      ...printed.map((name) => ({ name, hidden: hidden(name), isPrinted: true })),
      ...all.filter(({ name }) => !printed.includes(name)).map((sheet) => ({ ...sheet, isPrinted: false })),
    ];
  });
  protected readonly printed = computed(() => this.sheets().filter(({ isPrinted }) => isPrinted).length);

  protected valueOf(part: keyof Form): string {
    return String(this.form()[part] ?? '');
  }

  protected isOn(part: keyof Form): boolean {
    return this.form()[part] === true;
  }

  protected change(part: keyof Form, value: string | number | boolean | readonly string[] | undefined): void {
    this.take(patchForm(this.situation(), part, value as Form[keyof Form]));
  }

  /** @param value not a number while the field is empty */
  protected changeNumber(part: keyof Form, value: number, least: number, most: number): void {
    if (!Number.isNaN(value)) this.change(part, Math.min(most, Math.max(least, value)));
  }

  protected print(name: string, isPrinted: boolean): void {
    const printed = this.form().sheets ?? [];
    this.change('sheets', isPrinted ? [...printed, name] : printed.filter((one) => one !== name));
  }

  protected move(from: number, to: number): void {
    const printed = [...(this.form().sheets ?? [])];
    if (to < 0 || to >= printed.length) return;
    const held = document.activeElement;
    moveItemInArray(printed, from, to);
    this.change('sheets', printed);
    // What is moved on the screen loses the focus.
    if (held instanceof HTMLElement) afterNextRender(() => held.focus(), { injector: this.injector });
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    if (previousIndex < this.printed()) this.move(previousIndex, Math.min(currentIndex, this.printed() - 1));
  }

  protected leaveOut(): void {
    this.take(usual(this.aspect, this.situation()));
  }

  private take(patch: Partial<Ticket>): void {
    const ticket = { ...this.ticket()!, ...patch };
    if (JSON.stringify(ticket) !== JSON.stringify(this.ticket()))
      this.store.dispatch(BenchActions.ticketChanged({ ticket }));
  }
}
