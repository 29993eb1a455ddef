import { A11yModule } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { aspectOf } from '@foglio/sentence';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench.state';
import { FormPopover } from '../sentence/form-popover';
import { POPOVERS } from '../popovers';

/** Beside the shelf, where it covers nothing of the document. */
const BESIDE: ConnectedPosition[] = [
  { originX: 'end', originY: 'top', overlayX: 'start', overlayY: 'top', offsetX: 8 },
  { originX: 'end', originY: 'bottom', overlayX: 'start', overlayY: 'bottom', offsetX: 8 },
];

/** How one of several documents is laid out: a sentence about many of them does not say it of each. */
@Component({
  selector: 'fo-laid-line',
  imports: [A11yModule, CdkConnectedOverlay, CdkOverlayOrigin, FormPopover],
  template: `
    @if (said(); as words) {
      <button
        #place
        type="button"
        cdkOverlayOrigin
        #origin="cdkOverlayOrigin"
        [attr.aria-expanded]="open()"
        (click)="open.set(!open())"
      >
        <span>Laid out: </span>{{ words }}
      </button>
      <ng-template
        cdkConnectedOverlay
        [cdkConnectedOverlayOrigin]="origin"
        [cdkConnectedOverlayOpen]="open()"
        [cdkConnectedOverlayPositions]="BESIDE"
        (backdropClick)="close(place)"
        (overlayKeydown)="$event.key === 'Escape' && close(place)"
        (detach)="close(place)"
      >
        <fo-form-popover cdkTrapFocus cdkTrapFocusAutoCapture [at]="at()" (closed)="close(place)" />
      </ng-template>
    }
  `,
  styles: `
    button {
      margin-bottom: 6px;
      padding: 2px 0;
      border: 0;
      background: none;
      color: inherit;
      font: inherit;
      font-size: 13px;
      text-align: left;
      text-decoration: underline dotted;
      text-underline-offset: 3px;
      cursor: pointer;
    }
    span {
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [POPOVERS],
})
export class LaidLine {
  /** The document, from 0. */
  readonly at = input.required<number>();
  private readonly situation = inject(Store).selectSignal(benchFeature.selectSituation);
  protected readonly BESIDE = BESIDE;
  protected readonly open = signal(false);

  /** Null where it is one document, of which the sentence says it, or one with pages of its own. */
  protected readonly said = computed(() => {
    const known = this.situation();
    const form = aspectOf('form');
    if (!known || known.documents.length < 2) return null;
    const situation = { ...known, at: this.at() };
    return (form.fits?.(situation) ?? true) ? form.say(situation) : null;
  });

  protected close(place: HTMLElement): void {
    if (!this.open()) return;
    this.open.set(false);
    place.focus();
  }
}
