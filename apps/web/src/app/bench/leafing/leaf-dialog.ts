import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import { findTray, trayName, type Plan, type Printer, type Ticket } from '@foglio/core';
import type { PageSource } from '../../pages/side-view';
import { JoinedPage } from './joined-page';
import { LeafPage } from './leaf-page';
import { openingsOf, sayShown, type Opening } from './openings';

/** What is leafed through. */
export interface LeafData {
  readonly plan: Plan;
  readonly ticket: Ticket;
  readonly printer: Printer;
  readonly source: PageSource;
}

/** Room for the two pages of an opening, in CSS pixels. */
const ROOM = { width: 940, height: 440 };

/** The stack as it will lie in the tray, picked up and leafed through: as a book, a pad or a folded booklet. */
@Component({
  selector: 'fo-leaf-dialog',
  imports: [JoinedPage, LeafPage, MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle],
  template: `
    <h2 mat-dialog-title>{{ title }}</h2>
    <mat-dialog-content>
      <p class="lies">{{ lies }}</p>
      @if (opening(); as here) {
        <div class="opening" [class.upward]="here.upward">
          @if (here.joined; as sheets) {
            <figure>
              <fo-joined-page [sheets]="sheets" [source]="data.source" [room]="room" />
              <figcaption>Sheets {{ sheets[0]!.index }} to {{ sheets.at(-1)!.index }}, joined</figcaption>
            </figure>
          }
          @for (shown of pair(here); track $index) {
            <figure>
              @if (shown === 'none') {
                <div class="none"></div>
              } @else if (shown === null) {
                <div class="blank-paper back" [style]="blank(here)"></div>
              } @else {
                <fo-leaf-page [page]="shown" [source]="data.source" [finishedBy]="data.plan" [scale]="scale()" />
              }
              <figcaption>{{ say(shown) }}</figcaption>
            </figure>
          }
        </div>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-stroked-button [disabled]="at() === 0" (click)="go(at() - 1)">Back a leaf</button>
      <label>
        <span class="heard">Place in the stack</span>
        <input
          type="range"
          cdkFocusInitial
          min="0"
          [max]="openings.length - 1"
          [value]="at()"
          [attr.aria-valuetext]="where()"
          (input)="go(+$any($event.target).value)"
        />
      </label>
      <span class="where" role="status">{{ where() }}</span>
      <button mat-stroked-button [disabled]="at() === openings.length - 1" (click)="go(at() + 1)">Next leaf</button>
      <button mat-button mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    .lies {
      margin-bottom: 12px;
    }
    .opening {
      display: flex;
      gap: 2px;
      align-items: center;
      justify-content: center;
      height: ${ROOM.height + 30}px;
    }
    .upward {
      flex-direction: column;
    }
    figure {
      display: flex;
      flex-direction: column;
      align-items: center;
      margin: 0;
    }
    .back {
      box-shadow: var(--shadow);
    }
    .none {
      width: 120px;
      height: 1px;
    }
    figcaption {
      min-height: 20px;
      margin-top: 6px;
      font-size: 13px;
    }
    mat-dialog-actions {
      gap: 12px;
    }
    label {
      flex: 1;
    }
    input {
      width: 100%;
      accent-color: var(--accent);
    }
    .where {
      min-width: 130px;
      text-align: right;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'onKey($event)' },
})
export class LeafDialog {
  protected readonly data = inject<LeafData>(MAT_DIALOG_DATA);
  private readonly bind =
    this.data.ticket.layout.kind === 'booklet' && this.data.ticket.bind === 'top' ? 'left' : this.data.ticket.bind;
  protected readonly openings = openingsOf(this.data.plan, this.data.printer, this.bind);
  protected readonly room = ROOM;
  protected readonly at = signal(0);
  protected readonly opening = computed<Opening | null>(() => this.openings[this.at()] ?? null);
  protected readonly title = `Leafing through ${this.data.plan.sets === 1 ? 'the job' : `one set of ${this.data.plan.sets}`}`;
  protected readonly lies = sayLying(this.data);
  protected readonly where = computed(() => `${this.at() + 1} of ${this.openings.length} openings`);

  /** The same for all openings, so that a small sheet looks small. */
  protected readonly scale = computed(() => {
    const folded = this.data.plan.sheets.every(({ signature }) => signature !== undefined);
    const largest = Math.max(...this.data.plan.sheets.map(({ paper }) => paper.height));
    if (folded) return Math.min(ROOM.width / largest, ROOM.height / (largest / Math.SQRT2));
    return this.bind === 'top' ? ROOM.height / 2 / largest : Math.min(ROOM.width / 2, ROOM.height) / largest;
  });

  protected pair({ first, second, joined }: Opening): Opening['first'][] {
    return joined ? [] : [first, second];
  }

  protected say(shown: Opening['first']): string {
    return sayShown(shown, (id) => {
      const tray = id === null ? null : findTray(this.data.printer, id);
      return tray ? trayName(tray) : (id ?? 'no tray');
    });
  }

  /** As large as the sheet whose back it is; the sheet beside it, where it is the last one's, serves as well. */
  protected blank({ first, second }: Opening): string {
    const page = [first, second].find((shown) => shown !== null && shown !== 'none');
    const paper = (page && typeof page === 'object' ? page.sheet : this.data.plan.sheets.at(-1))!.paper;
    return `width:${paper.width * this.scale()}px;height:${paper.height * this.scale()}px`;
  }

  protected go(place: number): void {
    this.at.set(Math.max(0, Math.min(this.openings.length - 1, place)));
  }

  protected onKey(event: KeyboardEvent): void {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0 || (event.target as HTMLElement).tagName === 'INPUT') return;
    event.preventDefault();
    this.go(this.at() + step);
  }
}

/** How the stack lies in the output, and what to do with it. */
function sayLying({ plan, printer, ticket }: LeafData): string {
  const faceUp = printer.delivers === 'face-up';
  const lies = faceUp ? 'It comes out face up' : 'It comes out face down';
  const held = ticket.bind === 'top' ? 'at the top' : ticket.bind === 'right' ? 'on the right' : 'on the left';
  const folded = plan.sheets.some(({ signature }) => signature !== undefined);
  const hand = folded
    ? 'picked up, turned front side up and folded'
    : `picked up, turned front side up and held ${held}`;
  return `${lies}; this is how it reads ${hand}.`;
}
