import { A11yModule } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin, type ConnectedPosition } from '@angular/cdk/overlay';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  Injector,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { type Phrase, sentence } from '@foglio/sentence';
import { benchFeature } from '../../state/bench.state';
import { AlsoList } from './also-list';
import { FormPopover } from './form-popover';
import { PhrasePopover } from './phrase-popover';
import { PrinterChoice } from './printer-choice';
import { RoutesEditor } from './routes-editor';
import { POPOVERS } from '../popovers';

interface KeyedPhrase extends Phrase {
  /** The same for as long as it is about the same thing, whatever comes and goes before it. */
  readonly key: string;
  /** The mark right after it, which never stands alone at the beginning of a line. */
  readonly mark: string;
}

/** What is open: the popover of a phrase, or what "and also" has led to. */
interface Open {
  readonly at: string;
  /** An aspect's name, "routes", "printer", or "also" for the list of them. */
  readonly control: string;
  readonly index: number;
}

/** The sentence stands at the top: above it there is no room for what comes to hold more once it is open. */
const BELOW: ConnectedPosition[] = [
  { originX: 'start', originY: 'bottom', overlayX: 'start', overlayY: 'top' },
  { originX: 'end', originY: 'bottom', overlayX: 'end', overlayY: 'top' },
];

const ALSO = 'also';
const PRINTER = 'printer';

/** Letters that three lines of the usual size hold on a screen 1280 pixels wide, beside where it is printed. */
const LONG = 300;

/** The whole ticket as a sentence whose phrases are its controls. */
@Component({
  selector: 'fo-sentence-bar',
  imports: [
    A11yModule,
    AlsoList,
    CdkConnectedOverlay,
    CdkOverlayOrigin,
    FormPopover,
    PhrasePopover,
    PrinterChoice,
    RoutesEditor,
  ],
  template: `
    <h1 class="heard">Set-up</h1>
    <p [class.long]="long()">
      @for (phrase of phrases(); track phrase.key) {
        @if (phrase.control === 'pages') {
          <span class="kept"
            ><button
              type="button"
              [class.strong]="phrase.strong"
              (click)="goToPages()"
              [textContent]="phrase.text"
            ></button
            >{{ phrase.mark }}</span
          >
        } @else if (phrase.control) {
          <span class="kept"
            ><button
              type="button"
              cdkOverlayOrigin
              #origin="cdkOverlayOrigin"
              [class.strong]="phrase.strong"
              [attr.aria-expanded]="open()?.at === phrase.key"
              (click)="show(phrase.key, phrase.control, phrase.index, origin)"
              [textContent]="phrase.text"
            ></button
            >{{ phrase.mark }}</span
          >
        } @else {
          <span [textContent]="phrase.text"></span>
        }
      }
      @if (!isSmall()) {
        Printed at
        <span class="kept"
          ><button
            type="button"
            cdkOverlayOrigin
            #place="cdkOverlayOrigin"
            [attr.aria-expanded]="open()?.at === PRINTER"
            (click)="show(PRINTER, PRINTER, 0, place)"
            [textContent]="printer()?.name"
          ></button
          >.</span
        >
      }
      <button
        type="button"
        class="also"
        cdkOverlayOrigin
        #also="cdkOverlayOrigin"
        [attr.aria-expanded]="open()?.at === ALSO"
        (click)="show(ALSO, ALSO, 0, also)"
      >
        and also …
      </button>
      @if (setupId() === null && !isSmall()) {
        <button type="button" class="also" (click)="setupsWanted.emit()">set-ups …</button>
      }
    </p>
    @if (origin(); as at) {
      <ng-template
        cdkConnectedOverlay
        [cdkConnectedOverlayOrigin]="at"
        [cdkConnectedOverlayOpen]="open() !== null"
        [cdkConnectedOverlayPositions]="BELOW"
        (backdropClick)="close()"
        (overlayKeydown)="onKey($event)"
        (detach)="close()"
      >
        @if (open(); as shown) {
          @switch (shown.control) {
            @case ('also') {
              <fo-also-list cdkTrapFocus cdkTrapFocusAutoCapture (chosen)="lead($event)" />
            }
            @case ('form') {
              <fo-form-popover cdkTrapFocus cdkTrapFocusAutoCapture [at]="shown.index" (closed)="close()" />
            }
            @case ('printer') {
              <fo-printer-choice cdkTrapFocus cdkTrapFocusAutoCapture (closed)="close()" />
            }
            @case ('routes') {
              <fo-routes-editor cdkTrapFocus cdkTrapFocusAutoCapture (closed)="close()" />
            }
            @default {
              <fo-phrase-popover
                cdkTrapFocus
                cdkTrapFocusAutoCapture
                [control]="shown.control"
                [at]="shown.index"
                (closed)="close()"
              />
            }
          }
        }
      </ng-template>
    }
  `,
  styleUrl: './sentence-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [POPOVERS],
})
export class SentenceBar {
  private readonly store = inject(Store);
  private readonly injector = inject(Injector);
  private readonly overlay = viewChild(CdkConnectedOverlay);
  /** Whether it is of one file among many, whose set-up and printer are those of the series. */
  readonly isSmall = input(false);
  readonly setupsWanted = output<void>();
  protected readonly setupId = this.store.selectSignal(benchFeature.selectSetupId);
  private readonly situation = this.store.selectSignal(benchFeature.selectSituation);
  protected readonly printer = this.store.selectSignal(benchFeature.selectPrinter);
  protected readonly ALSO = ALSO;
  protected readonly BELOW = BELOW;
  protected readonly PRINTER = PRINTER;
  protected readonly open = signal<Open | null>(null);
  protected readonly origin = signal<CdkOverlayOrigin | null>(null);
  /** Longer ones are set smaller, so that they too stay within three lines. */
  protected readonly long = computed(() => this.phrases().reduce((sum, { text }) => sum + text.length, 0) > LONG);
  protected readonly phrases = computed<KeyedPhrase[]>(() => {
    const situation = this.situation();
    if (!situation) return [];
    let last = 'start';
    let words = 0;
    // A set-up is said of any file, and not of the sample that it is drawn over.
    const said = sentence(this.setupId() === null ? situation : { ...situation, documents: [] });
    return said.map((phrase, index) => {
      words = phrase.control === null ? words + 1 : 0;
      if (phrase.control !== null) last = `${phrase.control} ${phrase.index}`;
      const key = phrase.control === null ? `${words} after ${last}` : last;
      if (phrase.control !== null) return { ...phrase, key, mark: markOf(said[index + 1]) };
      return {
        ...phrase,
        key,
        mark: '',
        text: phrase.text.slice(words === 1 && index > 0 ? markOf(phrase).length : 0),
      };
    });
  });

  protected show(at: string, control: string, index: number, origin: CdkOverlayOrigin): void {
    this.origin.set(origin);
    this.open.set(this.open()?.at === at ? null : { at, control, index });
  }

  /** "And also" goes on in the popover of what was chosen. */
  protected lead(control: string): void {
    this.open.set({ at: ALSO, control, index: 0 });
    // What comes is wider than the list it came from.
    afterNextRender(() => this.overlay()?.overlayRef.updatePosition(), { injector: this.injector });
  }

  protected close(): void {
    if (!this.open()) return;
    this.open.set(null);
    const button: unknown = this.origin()?.elementRef.nativeElement;
    if (button instanceof HTMLElement) button.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key === 'Escape') this.close();
  }

  protected goToPages(): void {
    document.querySelector<HTMLInputElement>('#selection')?.focus();
  }
}

/** The punctuation that words begin with. */
const markOf = (words: Phrase | undefined): string => /^[.,;]?/.exec(words?.text ?? '')?.[0] ?? '';
