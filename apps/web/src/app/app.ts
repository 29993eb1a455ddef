import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  Injector,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatSnackBar } from '@angular/material/snack-bar';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { filter } from 'rxjs';
import { Arrivals } from './documents/arrivals';
import { News } from './news/news';
import { NoticeList } from './notices/notice-list';
import { PrintersNow } from './news/printers-now';
import { sayState } from './printers/printer-words';
import { Chime } from './programs/chime';
import { OnBench } from './state/on-bench';

/** The bar along the top, and the screen under it. */
@Component({
  selector: 'fo-root',
  imports: [NoticeList, RouterOutlet, RouterLink, RouterLinkActive],
  template: `
    <header>
      <a class="brand" routerLink="/">Foglio</a>
      <nav aria-label="Screens">
        <a
          routerLink="/"
          routerLinkActive="here"
          ariaCurrentWhenActive="page"
          [routerLinkActiveOptions]="{ exact: true }"
        >
          Desk
        </a>
        @if (job(); as job) {
          <a
            class="job"
            [routerLink]="['/jobs', job.id]"
            routerLinkActive="here"
            ariaCurrentWhenActive="page"
            [title]="job.title"
          >
            {{ job.title }}
          </a>
        }
        <a routerLink="/series" routerLinkActive="here" ariaCurrentWhenActive="page">Many files</a>
        <a routerLink="/set-ups" routerLinkActive="here" ariaCurrentWhenActive="page">Set-ups</a>
        <a routerLink="/queue" routerLinkActive="here" ariaCurrentWhenActive="page">Queue</a>
        <a routerLink="/printers" routerLinkActive="here" ariaCurrentWhenActive="page">Printers</a>
        <a routerLink="/spend" routerLinkActive="here" ariaCurrentWhenActive="page">Spend</a>
        <a routerLink="/guide" routerLinkActive="here" ariaCurrentWhenActive="page">Guide</a>
      </nav>
      <div class="state">
        @if (isLost()) {
          <p class="lost" role="alert">No connection to Foglio’s server. What you see may be out of date.</p>
        } @else if (isDatabaseAway()) {
          <p class="lost" role="alert">
            Foglio’s database is away. What you see stays; what you do is kept once it is back.
          </p>
        } @else if (arriving(); as said) {
          <p class="printer" role="status">{{ said }}</p>
        } @else if (printer(); as printer) {
          <p class="printer">{{ printer.name }} · {{ sayPrinter(printer) }}</p>
        }
        @defer (on idle) {
          <fo-notice-list />
        }
      </div>
    </header>
    <div class="screen" tabindex="-1" #screen><router-outlet /></div>
    <svg class="filters" aria-hidden="true">
      <!-- A colour's luminance, as printing in grey keeps it: the Y of sRGB's colorants as ICC profiles have them (IEC 61966-2-1,
           adapted to D50), reckoned in linear light. Black coded as a colour stays black. -->
      <filter id="as-printed-in-grey" color-interpolation-filters="linearRGB">
        <feColorMatrix values=".2225 .7169 .0606 0 0  .2225 .7169 .0606 0 0  .2225 .7169 .0606 0 0  0 0 0 1 0" />
      </filter>
    </svg>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      height: 100dvh;
    }
    header {
      display: flex;
      align-items: center;
      gap: 24px;
      flex: none;
      height: 44px;
      padding: 0 20px;
      background: var(--ink);
      color: #fff;
    }
    a {
      color: inherit;
      text-decoration: none;
    }
    .screen {
      display: flex;
      flex: 1;
      flex-direction: column;
      min-height: 0;
    }
    .screen:focus {
      outline: none;
    }
    .filters {
      position: absolute;
      width: 0;
      height: 0;
    }
    .brand {
      font: 600 22px/1 var(--serif);
    }
    nav {
      display: flex;
      flex: 1;
      gap: 4px;
      min-width: 0;
      height: 100%;
    }
    nav a {
      display: flex;
      align-items: center;
      padding: 0 10px;
      border-bottom: 3px solid transparent;
      border-top: 3px solid transparent;
      color: #d7dde0;
      white-space: nowrap;
    }
    nav a.here {
      border-bottom-color: #e6a6ab;
      color: #fff;
    }
    nav a.job {
      display: block;
      max-width: 260px;
      overflow: hidden;
      line-height: 38px;
      text-overflow: ellipsis;
    }
    .state {
      display: flex;
      flex-direction: column;
      align-items: end;
      min-width: 0;
    }
    .printer {
      font-size: 13px;
      line-height: 18px;
      color: #d7dde0;
      white-space: nowrap;
    }
    .lost {
      font-size: 13px;
      padding: 4px 10px;
      border-radius: 3px;
      background: #fff;
      color: var(--stop);
      white-space: nowrap;
    }
    @media (width < 760px) {
      header {
        gap: 8px;
        padding: 0 12px;
      }
      .printer {
        display: none;
      }
    }
    :focus-visible {
      outline-color: #fff;
      outline-offset: -2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  // A file dropped beside its place would otherwise take the whole page's place.
  host: { '(document:dragover)': '$event.preventDefault()', '(document:drop)': '$event.preventDefault()' },
})
export class App {
  private readonly onBench = inject(OnBench);
  protected readonly arriving = inject(Arrivals).said;

  private readonly printersNow = inject(PrintersNow);
  protected readonly isLost = inject(News).isLost;
  protected readonly isDatabaseAway = inject(News).isDatabaseAway;
  protected readonly printer = computed(() => this.printersNow.of(this.onBench.printer()));
  /** The job that is on the Bench, or was last. */
  protected readonly job = this.onBench.job;
  protected readonly sayPrinter = sayState;
  private readonly screen = viewChild.required<ElementRef<HTMLElement>>('screen');

  constructor() {
    // Sounds wherever one is, for who wants it.
    inject(Chime);
    const notices = inject(MatSnackBar);
    inject(News)
      .of('identify')
      .pipe(takeUntilDestroyed())
      .subscribe(({ id }) => notices.open(`A program asks which printer “${id}” is: it is here, in Foglio.`, 'Close'));
    const injector = inject(Injector);
    // A button that led to another screen took the focus with it: the next key goes on from where that one begins.
    inject(Router)
      .events.pipe(
        filter((event) => event instanceof NavigationEnd),
        takeUntilDestroyed(),
      )
      .subscribe(() => afterNextRender(() => this.goOn(), { injector }));
  }

  private goOn(): void {
    if (document.activeElement === document.body) this.screen().nativeElement.focus({ preventScroll: true });
  }
}
