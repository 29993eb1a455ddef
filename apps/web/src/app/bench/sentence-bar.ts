import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { A11yModule } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../state/bench.state';
import { PhrasePopover } from './phrase-popover';
import { sentence, type Phrase } from './sentence';

/** The whole ticket as a sentence whose phrases are its controls. */
@Component({
  selector: 'fo-sentence-bar',
  imports: [A11yModule, CdkConnectedOverlay, CdkOverlayOrigin, PhrasePopover],
  template: `
    <h1 class="heard">Set-up</h1>
    <p>
      @for (phrase of phrases(); track $index) {
        @if (phrase.control && phrase.control !== 'pages') {
          <button
            type="button"
            cdkOverlayOrigin
            #origin="cdkOverlayOrigin"
            [class.strong]="phrase.strong"
            [attr.aria-expanded]="open() === $index"
            (click)="toggle($index)"
            [textContent]="phrase.text"
          ></button>
          <ng-template
            cdkConnectedOverlay
            [cdkConnectedOverlayOrigin]="origin"
            [cdkConnectedOverlayOpen]="open() === $index"
            [cdkConnectedOverlayHasBackdrop]="true"
            cdkConnectedOverlayBackdropClass="cdk-overlay-transparent-backdrop"
            (backdropClick)="close()"
            (overlayKeydown)="onKey($event)"
            (detach)="close()"
          >
            <fo-phrase-popover
              cdkTrapFocus
              cdkTrapFocusAutoCapture
              [control]="phrase.control"
              [sheetsBefore]="sheetsBefore()"
              (closed)="close()"
            />
          </ng-template>
        } @else if (phrase.control) {
          <button
            type="button"
            [class.strong]="phrase.strong"
            (click)="goToPages()"
            [textContent]="phrase.text"
          ></button>
        } @else {
          <span [class.strong]="phrase.strong" [textContent]="phrase.text"></span>
        }
      }
    </p>
  `,
  styleUrl: './sentence-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SentenceBar {
  private readonly store = inject(Store);
  private readonly ticket = this.store.selectSignal(benchFeature.selectTicket);
  private readonly documents = this.store.selectSignal(benchFeature.selectDocuments);
  private readonly printer = this.store.selectSignal(benchFeature.selectPrinter);
  private readonly plan = this.store.selectSignal(benchFeature.selectPlan);
  protected readonly open = signal<number | null>(null);
  protected readonly sheetsBefore = signal(0);
  protected readonly phrases = computed<Phrase[]>(() => {
    const [ticket, printer] = [this.ticket(), this.printer()];
    return ticket && printer ? sentence(ticket, this.documents(), printer.profile) : [];
  });

  protected toggle(index: number): void {
    this.sheetsBefore.set(this.plan()?.tally.sheets ?? 0);
    this.open.set(this.open() === index ? null : index);
  }

  protected close(): void {
    this.open.set(null);
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') this.close();
  }

  protected goToPages(): void {
    document.querySelector<HTMLInputElement>('#selection')?.focus();
  }
}
