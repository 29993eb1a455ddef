import { setTimeout as wait } from 'node:timers/promises';
import type { BrowserContext, Route, WebSocketRoute } from '@playwright/test';
import type { Chance } from './chance';

/** Documents are left alone: what crosses and fails are questions, their answers, and news. */
const LEFT_ALONE = /\/api\/files\/[^/]+\/content/;

/** How a request fares, in parts of a hundred: it never arrives, is refused, or its answer is lost. */
const LOST = 4;
const REFUSED = 7;
const ANSWER_LOST = 11;

/** Of a thousand pieces of news so many end the connection; it is then lost, with all that follows it. */
const CUT_OFF = 15;

/** A network on which requests and answers take their time, overtake each other, and get lost. */
export class RoughNetwork {
  private underway = 0;
  private delay: number;
  private isFailing = true;

  constructor(
    private readonly chance: Chance,
    delay: number,
  ) {
    this.delay = delay;
  }

  async begin(context: BrowserContext): Promise<void> {
    await context.route(
      (url) => url.pathname.startsWith('/api/') && !LEFT_ALONE.test(url.pathname),
      (route) => this.carry(route),
    );
    await context.routeWebSocket(/\/api\/news$/, (page) => this.tell(page));
  }

  /** News overtakes news, and now and then the connection breaks. */
  private tell(page: WebSocketRoute): void {
    const server = page.connectToServer();
    server.onMessage((message) => {
      const isCut = this.isFailing && this.chance.below(1000) < CUT_OFF;
      this.underway += 1;
      void wait(this.chance.below(this.delay + 1)).then(async () => {
        this.underway -= 1;
        if (!isCut) return page.send(message);
        await page.close({ code: 1001 });
      });
    });
  }

  /** From here on everything arrives, and at once. */
  calm(): void {
    this.delay = 0;
    this.isFailing = false;
  }

  /** Comes once nothing is on its way. */
  async settled(): Promise<void> {
    while (this.underway > 0) await wait(20);
  }

  private async carry(route: Route): Promise<void> {
    this.underway += 1;
    const fate = this.isFailing ? this.chance.below(100) : 100;
    try {
      await wait(this.chance.below(this.delay + 1));
      if (fate < LOST) return await route.abort();
      if (fate < REFUSED)
        return await route.fulfill({ status: 503, json: { detail: 'The server has too much to do.' } });
      const response = await route.fetch();
      await wait(this.chance.below(this.delay + 1));
      if (fate < ANSWER_LOST) return await route.abort();
      await route.fulfill({ response });
    } catch {
      // The page was left while this was on its way.
    } finally {
      this.underway -= 1;
    }
  }
}
