import { CdkDrag, CdkDropList, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  model,
  output,
  viewChild,
} from '@angular/core';
import { MatIcon } from '@angular/material/icon';
import { MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger } from '@angular/material/menu';
import { arrangeDocuments, printTwice, type Ticket } from '@foglio/core';
import { Store } from '@ngrx/store';
import { DOCUMENT_KINDS } from '../../documents/document-kinds';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';
import { LaidLine } from './laid-line';
import { LayingLine } from './laying-line';

/** The documents of a job in the order in which they are printed, and what can be done with each. */
@Component({
  selector: 'fo-document-list',
  imports: [CdkDrag, CdkDropList, LaidLine, LayingLine, MatIcon, MatMenu, MatMenuContent, MatMenuItem, MatMenuTrigger],
  template: `
    <ol cdkDropList aria-label="Documents" (cdkDropListDropped)="drop($event)">
      @for (document of documents(); track $index; let place = $index) {
        <li cdkDrag [cdkDragDisabled]="documents().length < 2" [class.here]="place === at()">
          <button
            type="button"
            class="name"
            [attr.aria-pressed]="place === at()"
            [title]="document.name"
            (click)="at.set(place)"
          >
            @if (documents().length > 1) {
              {{ place + 1 }}.
            }
            {{ document.name }}
          </button>
          @if (ownPages()[place]; as pages) {
            <span class="own" [title]="'prints ' + pages">{{ pages }}</span>
          }
          <button
            type="button"
            class="more"
            [attr.aria-label]="'What to do with ' + document.name"
            [matMenuTriggerFor]="menu"
            [matMenuTriggerData]="{ place }"
          >
            <mat-icon aria-hidden="true">more_vert</mat-icon>
          </button>
        </li>
      }
    </ol>
    <fo-laid-line [at]="at()" />
    <fo-laying-line [at]="at()" />
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent let-place="place">
        <button mat-menu-item (click)="turn(place)">Turn its pages a quarter clockwise</button>
        @if (hasLabels(place)) {
          <button mat-menu-item (click)="renumber(place)">
            {{ byLabels(place) ? 'Count its pages by their places' : 'Count its pages by their printed labels' }}
          </button>
        }
        <button mat-menu-item (click)="again(place)">Add it again, for other pages</button>
        <button mat-menu-item (click)="anotherWay(place)">Add it again, with other settings</button>
        <button mat-menu-item (click)="replace(place)">Take another file in its place</button>
        @if (documents().length > 1) {
          <button mat-menu-item [disabled]="place === 0" (click)="move(place, place - 1)">Print it earlier</button>
          <button mat-menu-item [disabled]="place === documents().length - 1" (click)="move(place, place + 1)">
            Print it later
          </button>
          <button mat-menu-item (click)="remove(place)">Take it out of the job</button>
        }
      </ng-template>
    </mat-menu>
    <input
      #chooser
      class="heard"
      type="file"
      tabindex="-1"
      aria-label="Another file in its place"
      [accept]="DOCUMENT_KINDS"
      (change)="choose()"
    />
  `,
  styles: `
    ol {
      max-height: 172px;
      overflow: auto;
    }
    li {
      display: flex;
      align-items: center;
      border-radius: var(--radius);
    }
    .here {
      background: var(--card);
      font-weight: 600;
    }
    button {
      min-height: 28px;
      border: 0;
      border-radius: var(--radius);
      background: none;
      color: inherit;
      font: inherit;
      font-size: 13px;
      cursor: pointer;
    }
    .name {
      flex: 1;
      min-width: 0;
      padding: 2px 8px;
      overflow: hidden;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .own {
      flex: 0 1 auto;
      max-width: 40%;
      overflow: hidden;
      color: var(--soft);
      font-size: 12px;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .more {
      flex: none;
      width: 28px;
      padding: 0;
      color: var(--soft);
    }
    mat-icon {
      width: 18px;
      height: 18px;
      font-size: 18px;
      vertical-align: middle;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentList {
  /** The document whose pages are shown, from 0. */
  readonly at = model.required<number>();
  /** A file to take in the place of a document. */
  readonly replaced = output<{ readonly place: number; readonly file: File }>();
  protected readonly DOCUMENT_KINDS = DOCUMENT_KINDS;
  private readonly store = inject(Store);
  private readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly documents = computed(() => this.bench().documents);
  private readonly chooser = viewChild.required<ElementRef<HTMLInputElement>>('chooser');
  private replacing = 0;

  /** Of each document the pages that are written of it, where not all have the same. */
  protected readonly ownPages = computed<readonly (string | null)[]>(() => {
    const lines = this.bench().ticket?.documents.map(({ pages }) => pages) ?? [];
    return new Set(lines).size < 2 ? lines.map(() => null) : lines;
  });

  protected hasLabels(place: number): boolean {
    return this.documents()[place]?.pages.some(({ label }) => label !== undefined) ?? false;
  }

  protected byLabels(place: number): boolean {
    return this.bench().ticket?.documents[place]?.numbering === 'labels';
  }

  protected turn(place: number): void {
    this.change(place, ({ rotate }) => ({ rotate: ((rotate + 90) % 360) as typeof rotate }));
  }

  protected renumber(place: number): void {
    this.change(place, ({ numbering }) => ({ numbering: numbering === 'labels' ? 'position' : 'labels' }));
  }

  /** The second one's way is a route, which the sentence then tells, to be pressed and changed. */
  protected anotherWay(place: number): void {
    const ticket = this.bench().ticket;
    if (ticket) this.store.dispatch(BenchActions.ticketChanged({ ticket: printTwice(ticket, place + 1) }));
  }

  protected again(place: number): void {
    const order = this.order();
    this.arrange([...order.slice(0, place + 1), place + 1, ...order.slice(place + 1)], place + 1);
  }

  protected remove(place: number): void {
    this.arrange(
      this.order().filter((one) => one !== place + 1),
      Math.max(0, Math.min(this.at(), this.documents().length - 2)),
    );
  }

  protected drop({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  protected move(from: number, to: number): void {
    const order = this.order();
    moveItemInArray(order, from, to);
    this.arrange(order, to);
  }

  protected replace(place: number): void {
    this.replacing = place;
    this.chooser().nativeElement.click();
  }

  protected choose(): void {
    const input = this.chooser().nativeElement;
    const file = input.files?.[0];
    if (file) this.replaced.emit({ place: this.replacing, file });
    input.value = '';
  }

  private order(): number[] {
    return this.documents().map((_, index) => index + 1);
  }

  private arrange(order: readonly number[], at: number): void {
    this.put(arrangeDocuments(this.bench().ticket as Ticket, order));
    this.at.set(at);
  }

  private change(
    place: number,
    how: (document: Ticket['documents'][number]) => Partial<Ticket['documents'][number]>,
  ): void {
    const ticket = this.bench().ticket as Ticket;
    const documents = ticket.documents.map((one, index) => (index === place ? { ...one, ...how(one) } : one));
    this.put({ ...ticket, documents });
  }

  private put(ticket: Ticket): void {
    this.store.dispatch(BenchActions.ticketChanged({ ticket }));
  }
}
