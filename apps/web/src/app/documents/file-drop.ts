import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';

import { DOCUMENT_KINDS } from './document-kinds';
import { filesOfDrop } from './dropped-files';

const SETUPS = '.json,application/json';
const ACCEPTED = { documents: DOCUMENT_KINDS, 'set-ups': SETUPS, both: `${DOCUMENT_KINDS},${SETUPS}` } as const;

/** A place that files are dropped on, or chosen for by pressing it. */
@Component({
  selector: 'fo-file-drop',
  template: `
    <button
      type="button"
      [class.over]="over()"
      (click)="chooser.click()"
      (dragover)="hover($event)"
      (dragleave)="over.set(false)"
      (drop)="drop($event)"
    >
      <ng-content />
    </button>
    <input
      #chooser
      type="file"
      [accept]="accepted()"
      multiple
      tabindex="-1"
      [attr.aria-label]="label()"
      (change)="choose()"
    />
  `,
  styles: `
    :host {
      display: block;
      position: relative;
    }
    button {
      width: 100%;
      height: 100%;
      padding: var(--pad, 32px);
      border: 2px dashed #b9b09d;
      border-radius: var(--radius);
      background: var(--card);
      color: inherit;
      font: inherit;
      cursor: pointer;
    }
    button:hover,
    .over {
      border-color: var(--accent);
      background: #fff;
    }
    input {
      position: absolute;
      inset: auto 0 0 50%;
      width: 1px;
      height: 1px;
      opacity: 0;
      pointer-events: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FileDrop {
  readonly label = input.required<string>();
  /** What is taken: documents, set-ups that were saved as files, or both. */
  readonly kinds = input<'documents' | 'set-ups' | 'both'>('documents');
  protected readonly accepted = computed(() => ACCEPTED[this.kinds()]);
  readonly files = output<readonly File[]>();
  protected readonly over = signal(false);
  private readonly chooser = viewChild.required<ElementRef<HTMLInputElement>>('chooser');

  protected hover(event: DragEvent): void {
    event.preventDefault();
    this.over.set(true);
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.over.set(false);
    void filesOfDrop(event.dataTransfer).then((files) => this.give(files));
  }

  protected choose(): void {
    const input = this.chooser().nativeElement;
    this.give(input.files);
    // The same file chosen again must count as a choice.
    input.value = '';
  }

  private give(list: Iterable<File> | null | undefined): void {
    const files = [...(list ?? [])];
    if (files.length > 0) this.files.emit(files);
  }
}
