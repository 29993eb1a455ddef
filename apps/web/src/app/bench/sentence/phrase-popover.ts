import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';
import type { Outcome, Sheet, Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { concatMap, debounceTime, EMPTY, from, switchMap, toArray } from 'rxjs';
import { aspectOf, holds, isUsual, type NumberField, sayUsual, type Situation, usual } from '@foglio/sentence';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { PrintersNow } from '../../news/printers-now';
import { BenchDialogs } from '../bench-dialogs';
import { Planner } from '../../workers/planner';
import { SideView, type PageSource } from '../../pages/side-view';
import { pageSourceOf } from '../page-source';
import { sayChange, sayMeasure, sayOutcome } from './outcome-words';

/** Of the picture of a sheet, its longer edge in CSS pixels. */
const PICTURE = 34;

/** Aspects whose choices hang on what lies in the trays. */
const OF_PAPER: ReadonlySet<string> = new Set(['paper', 'paper-type', 'tray']);

/** A key held down asks for many effects; only the last one matters. */
const ASK_AFTER_MS = 30;

/** What a phrase changes, with what each choice would come to before it is taken. Whatever is taken can be undone. */
@Component({
  selector: 'fo-phrase-popover',
  imports: [FormsModule, MatButton, MatFormField, MatInput, MatRadioButton, MatRadioGroup, SideView],
  templateUrl: './phrase-popover.html',
  styleUrl: './phrase-popover.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'popover', role: 'dialog', '[attr.aria-label]': 'aspect().title' },
})
export class PhrasePopover {
  /** The aspect's name. */
  readonly control = input.required<string>();
  /** The document in question, from 0. */
  readonly at = input(0);
  readonly closed = output<void>();

  private readonly store = inject(Store);
  /** Not where a set-up is changed: it is drawn over a sample. */
  protected readonly dialogs = inject(BenchDialogs, { optional: true });
  private readonly planner = inject(Planner);
  private readonly printers = inject(PrintersNow);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly ticket = computed(() => this.bench().ticket as Ticket);
  protected readonly aspect = computed(() => aspectOf(this.control()));
  private readonly known = this.store.selectSignal(benchFeature.selectSituation);
  private readonly situation = computed<Situation>(() => ({ ...this.known()!, at: this.at() }));

  protected readonly choices = computed(() => this.aspect().choices?.(this.situation()) ?? []);
  protected readonly numbers = computed(() => this.aspect().numbers?.(this.situation()) ?? []);
  protected readonly text = computed(() => this.aspect().text?.(this.situation()) ?? null);
  protected readonly taken = computed(() => this.choices().findIndex(({ patch }) => holds(this.ticket(), patch)));
  protected readonly isUsual = computed(() => isUsual(this.aspect(), this.situation()));
  /** What there is to say of it also where it is usual cannot be left out. */
  protected readonly isSaid = computed(
    () => this.aspect().offer === null || sayUsual(this.aspect(), this.situation()) !== null,
  );

  protected readonly source = computed<PageSource>(() => pageSourceOf(this.bench()));

  /** What the ticket has in each number field; the same for as long as no number of it is another. */
  private readonly had = computed<readonly number[]>(() => this.numbers().map(({ value }) => value), {
    equal: (one, other) => one.join(' ') === other.join(' '),
  });

  /** What is typed in each number field and not taken yet; it outlives all other news of the job. */
  protected readonly typed = linkedSignal<readonly number[]>(() => this.had());

  /** Every change that is shown: first none at all, then the choices, then the typed numbers. */
  private readonly patches = computed<readonly Partial<Ticket>[]>(() => [
    {},
    ...this.choices().map(({ patch }) => patch),
    ...this.numbers().map((field, index) => field.patch(inBounds(field, this.typed()[index] ?? field.value))),
  ]);

  /** In the order of the patches. */
  private readonly outcomes = signal<readonly (Outcome | null)[]>([]);

  constructor() {
    // Only a paper that no tray holds asks which other printer has it.
    toObservable(this.control)
      .pipe(
        switchMap((name) => (name === 'paper' ? this.printers.keepListed() : EMPTY)),
        takeUntilDestroyed(),
      )
      .subscribe();
    toObservable(computed(() => ({ patches: this.patches(), situation: this.situation() })))
      .pipe(
        debounceTime(ASK_AFTER_MS),
        // One after another, so that a plan asked for meanwhile does not wait for all of them.
        switchMap(({ patches, situation: { ticket, documents, printer } }) =>
          from(patches).pipe(
            concatMap((patch) => this.planner.ask<'outcome'>({ kind: 'outcome', patch }, ticket, documents, printer)),
            // The figures of before stay until all new ones are there.
            toArray(),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((outcomes) => this.outcomes.set(outcomes));
  }

  /** "18 sheets, € 2.12, text from 9.0 pt" */
  protected outcome(place: number): string {
    const outcome = this.outcomes()[place];
    if (outcome === undefined) return '';
    return outcome === null ? 'not possible here' : sayOutcome(outcome);
  }

  /** Where no tray holds the paper: the printers that have it. */
  protected elsewhere(place: number): string {
    const size = this.patches()[place]?.paper?.size;
    if (!this.outcomes()[place]?.isUnfed || !size) return '';
    const here = this.bench().printer?.id;
    const there = (this.printers.all() ?? []).filter(
      ({ id, profile }) => id !== here && profile.trays.some((tray) => tray.size === size),
    );
    return there.length === 0 ? '' : `${there.map(({ name }) => name).join(' and ')} has it`;
  }

  /** The first sheet as it would be; null as long as it is not known, and where it cannot be. */
  protected drawn(place: number): Sheet | null {
    return this.outcomes()[place]?.first ?? null;
  }

  protected measure(place: number): string {
    const first = this.drawn(place);
    return first && this.aspect().isDrawn ? sayMeasure(first) : '';
  }

  protected pictureScale({ paper }: Sheet): number {
    return PICTURE / Math.max(paper.width, paper.height);
  }

  protected change(place: number): string {
    const [now, outcome] = [this.outcomes()[0], this.outcomes()[place]];
    return now && outcome ? sayChange(outcome, now) : '';
  }

  protected take(patch: Partial<Ticket>): void {
    if (holds(this.ticket(), patch)) return;
    this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...this.ticket(), ...patch } }));
  }

  /** @param value not a number while the field is empty */
  protected type(index: number, value: number): void {
    this.typed.update((all) => all.map((one, place) => (place === index ? value : one)));
  }

  /** Takes a typed number, if it is one that can be. */
  protected takeTyped(index: number): void {
    const field = this.numbers()[index];
    const value = this.typed()[index];
    if (!field || value === undefined || value === field.value) return;
    if (inBounds(field, value) === value) this.take(field.patch(value));
    else this.type(index, field.value);
  }

  protected step(index: number, by: number): void {
    const field = this.numbers()[index] as NumberField;
    const typed = this.typed()[index] as number;
    const value = inBounds(field, Math.round(((Number.isNaN(typed) ? field.value : typed) + by) * 1000) / 1000);
    this.take(field.patch(value));
  }

  /** Nothing typed is lost by closing. */
  protected done(): void {
    this.numbers().forEach((_, index) => this.takeTyped(index));
    this.closed.emit();
  }

  protected draw(): void {
    this.closed.emit();
    void this.dialogs?.drawPart({ document: this.at() });
  }

  protected readonly isOfPaper = computed(() => OF_PAPER.has(this.control()));

  protected sayPaper(): void {
    this.closed.emit();
    void this.dialogs?.sayPaper(null);
  }

  protected leaveOut(): void {
    this.take(usual(this.aspect(), this.situation()));
    this.closed.emit();
  }
}

/** The nearest value a field can have; steps of whole numbers take whole numbers only. */
function inBounds({ least, most, step, value }: NumberField, wanted: number): number {
  if (Number.isNaN(wanted)) return value;
  const whole = Number.isInteger(step) && step === 1 ? Math.round(wanted) : wanted;
  return Math.min(most, Math.max(least, whole));
}
