import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButton } from '@angular/material/button';
import {
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import type { SetupRecord } from '@foglio/api';
import {
  fitsAnyDocument,
  generalised,
  openSelections,
  SelectionError,
  setupOf,
  withSelection,
  type OpenSelection,
} from '@foglio/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { sayInAny } from '@foglio/sentence';
import { Api, sayError } from '../api/api';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';

/** A selection of this document alone, and what it may be called in any. */
interface Named extends OpenSelection {
  readonly value: string;
  /** What it means in any file, or that it will be asked for. */
  readonly said: string;
}

/** Saves what the job on the Bench is set up as, without its documents, under a name. Closes with the set-up. */
@Component({
  selector: 'fo-keep-dialog',
  imports: [MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle, MatFormField, MatInput],
  template: `
    <form (submit)="$event.preventDefault(); save()">
      <h2 mat-dialog-title>Save as a set-up</h2>
      <mat-dialog-content>
        @if (message(); as said) {
          <p class="message" role="alert">{{ said }}</p>
        }
        <label>
          Name
          <mat-form-field
            ><input
              matInput
              #field
              maxlength="120"
              autocomplete="off"
              spellcheck="false"
              cdkFocusInitial
              [value]="name()"
              (input)="name.set(field.value)"
          /></mat-form-field>
        </label>
        @if (replaced(); as one) {
          <p class="note">It takes the place of “{{ one.name }}” as it was saved before.</p>
        }
        @for (one of named(); track one.of + one.at) {
          <label>
            {{ one.text }} are pages of this file. In any file:
            <mat-form-field
              ><input
                matInput
                #pages
                spellcheck="false"
                autocomplete="off"
                [value]="one.value"
                (input)="type(one, pages.value)"
            /></mat-form-field>
            <span class="note">{{ one.said }}</span>
          </label>
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit" [disabled]="name().trim() === '' || saving()">
          {{ replaced() ? 'Save over it' : 'Save' }}
        </button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    label {
      display: block;
      margin-bottom: 14px;
      color: var(--ink);
    }
    mat-form-field {
      margin: 4px 0;
    }
    .note {
      color: var(--soft);
    }
    .message {
      margin-bottom: 8px;
      padding: 8px 14px;
      border-left: 4px solid var(--stop);
      background: var(--stop-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepDialog {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dialog = inject<MatDialogRef<KeepDialog, SetupRecord>>(MatDialogRef);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  private readonly setup = setupOf(this.bench().ticket!);
  protected readonly name = signal(this.bench().ticket!.title);
  protected readonly message = signal<string | null>(null);
  protected readonly saving = signal(false);
  private readonly typed = signal<readonly string[]>(openSelections(this.setup).map((one) => this.suggest(one)));

  protected readonly named = computed<readonly Named[]>(() =>
    openSelections(this.setup).map((one, at) => {
      const value = this.typed()[at] ?? one.text;
      return {
        ...one,
        value,
        said: fitsAnyDocument(value) ? sayInAny(value) : 'Asked for whenever the set-up is taken',
      };
    }),
  );

  /** A set-up of this name that is saved already. */
  protected readonly replaced = computed(() => {
    const name = this.name().trim().toLowerCase();
    return this.bench().setups.find((one) => one.name.toLowerCase() === name) ?? null;
  });

  protected type({ of: what, at }: OpenSelection, text: string): void {
    const place = openSelections(this.setup).findIndex((one) => one.of === what && one.at === at);
    this.typed.update((all) => all.map((one, index) => (index === place ? text : one)));
  }

  protected async save(): Promise<void> {
    const name = this.name().trim();
    if (name === '' || this.saving()) return;
    this.saving.set(true);
    const ticket = this.named().reduce(
      (one, { of: what, at, value }) => withSelection(one, { of: what, at }, value),
      this.setup,
    );
    const replaced = this.replaced();
    const printerId = this.bench().printer?.id ?? null;
    try {
      const saved = await firstValueFrom(
        replaced
          ? this.api.changeSetup(replaced.id, { ticket, printerId })
          : this.api.saveSetup({ name, ticket, printerId }),
      );
      const setups = await firstValueFrom(this.api.setups());
      this.store.dispatch(BenchActions.setupsSeen({ setups }));
      this.dialog.close(saved);
    } catch (error) {
      this.message.set(sayError(error));
      this.saving.set(false);
    }
  }

  /** The same pages in words that fit any file, where there are such. */
  private suggest({ of: what, at, text }: OpenSelection): string {
    const { ticket, documents } = this.bench();
    const place = what === 'documents' ? at : (ticket!.routes[at]?.document ?? 1) - 1;
    const [facts, entry] = [documents[place], ticket!.documents[place]];
    if (!facts || !entry) return text;
    try {
      return generalised(text, { ...entry, facts, forgiving: true }) ?? text;
    } catch (error) {
      if (error instanceof SelectionError) return text;
      throw error;
    }
  }
}
