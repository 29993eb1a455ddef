import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { firstPortion, readyTimes, sheetsAtFirst, type Check, type Repair } from '@foglio/core';
import { Store } from '@ngrx/store';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';
import { sayHold } from '../printers/printer-words';
import { sendable } from '../state/sendable';
import { PrintersNow } from '../news/printers-now';
import { SendingsNow } from '../news/sendings-now';
import { clock, sayReady, toBeSent, waitingIn } from '../queue/ready-words';
import { PaperOffer } from './paper-offer';
import { countSheets, sayHeight, sayPieces, sayMoney, sayTime } from './amounts';
import { POPOVERS } from './popovers';

const LEVELS: Record<Check['level'], number> = { stop: 0, caution: 1, note: 2 };

/** What the job comes to, what is to be settled, and the two ways out: a file, or paper. */
@Component({
  selector: 'fo-tally-bar',
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, MatButton, PaperOffer],
  templateUrl: './tally-bar.html',
  styleUrl: './tally-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [POPOVERS],
})
export class TallyBar {
  readonly send = output<void>();
  readonly save = output<void>();
  private readonly store = inject(Store);
  private readonly printersNow = inject(PrintersNow);
  private readonly sendingsNow = inject(SendingsNow);
  private readonly now = clock();
  protected readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly listOpen = signal(false);

  /** When it would be ready, were it sent now. */
  private readonly ready = computed(() => {
    const { plan, printer } = this.bench();
    const seconds = plan?.tally.seconds ?? null;
    const sent = this.sendingsNow.all();
    if (!printer || seconds === null || !sent) return null;
    const own = toBeSent(printer, seconds, this.now());
    const waiting = waitingIn(sent, (id) => this.printersNow.of(id));
    const said = sayReady(readyTimes([...waiting, own], this.now()).get(own.id)!);
    return said && `ready ${said}`;
  });

  protected readonly figures = computed<readonly (readonly [string, string])[]>(() => {
    const plan = this.bench().plan;
    if (!plan) return [];
    const { sheets, sides, pieces, piecesOver, cost, seconds, heightMm } = plan.tally;
    const { trays, prices } = this.bench().printer!.profile;
    const priced = prices.mono > 0 || prices.color > 0 || trays.some(({ price }) => price > 0);
    // A page of which it is not known yet whether it holds colour counts as colour, on a printer that has it.
    const unknown = this.bench().documents.some((one) => one.pages.some(({ color }) => color === undefined));
    const upTo = unknown && this.bench().printer!.profile.color && this.bench().ticket?.color === 'auto';
    return [
      [
        String(sheets),
        `${sheets === 1 ? 'sheet' : 'sheets'} in ${plan.sets === 1 ? '1 set' : `${plan.sets} sets`}${plan.informationSheet ? ', 1 before' : ''}`,
      ],
      ...(pieces === null ? [] : [[String(pieces), sayPieces(pieces, piecesOver ?? 0)] as const]),
      [String(sides), sides === 1 ? 'printed side' : 'printed sides'],
      ...(priced ? [[sayMoney(cost), upTo ? 'at most, all in colour' : 'paper and printing'] as const] : []),
      ...(seconds === null
        ? []
        : [[sayTime(seconds * this.bench().printer!.pace), this.ready() ?? 'at the printer'] as const]),
      [sayHeight(heightMm), 'stack height'],
    ];
  });

  /** How far colours and text sizes are known; null: of all pages. */
  private readonly unread = computed(() => {
    const { documents } = this.bench();
    const [read, pages] = documents.reduce(([a, b], one) => [a + one.read, b + one.pages.length], [0, 0]);
    return read < pages ? `Looking through the pages: ${read} of ${pages}` : null;
  });

  protected readonly checks = computed(() =>
    [...(this.bench().plan?.checks ?? [])].sort((a, b) => LEVELS[a.level] - LEVELS[b.level]),
  );

  protected readonly summary = computed(() => {
    const trouble = this.bench().trouble;
    if (trouble) {
      const shown = this.bench().plan ? '; the sheets are those before this change' : '';
      return { level: 'stop', text: `The pages cannot be read${shown}` };
    }
    const [first] = this.checks();
    if (!first) return { level: 'ok', text: this.unread() ?? 'Nothing to settle' };
    const same = this.checks().filter(({ level }) => level === first.level).length;
    const things = same === 1 ? '1 thing' : `${same} things`;
    const what = first.level === 'stop' ? 'to settle' : first.level === 'caution' ? 'to confirm' : 'to know';
    return { level: first.level, text: `${things} ${what}: ${first.message}` };
  });

  protected readonly state = computed(() => {
    const { saving, sending } = this.bench();
    if (sending) return 'Sending';
    if (saving === 'conflict') return 'Changed in another window';
    if (saving === 'failed') return 'Not saved';
    return saving === 'unsaved' ? 'Saving' : 'Saved';
  });

  protected readonly hold = computed(() => {
    const { printer } = this.bench();
    return printer && sayHold(printer);
  });

  protected readonly blocked = computed(() => sendable(this.bench()).seen === null);

  protected readonly sendLabel = computed(() => {
    const { plan, ticket } = this.bench();
    const sheets = plan?.tally.sheets;
    if (plan && ticket && firstPortion(ticket))
      return `Send one set first, ${countSheets(sheetsAtFirst(plan, ticket))}`;
    return sheets === undefined ? 'Send' : `Send ${countSheets(sheets)}`;
  });

  /** The list stays open while there is something left in it. */
  protected mend({ patch }: Repair): void {
    const ticket = this.bench().ticket;
    if (!ticket) return;
    this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, ...patch } }));
    if (this.checks().length <= 1) this.listOpen.set(false);
  }

  protected show(check: Check): void {
    const sheet = check.sheets[0];
    if (sheet !== undefined) this.store.dispatch(BenchActions.sheetChosen({ sheet, extend: false }));
    this.listOpen.set(false);
  }
}
