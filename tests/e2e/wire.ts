import type { Page, WebSocketRoute } from '@playwright/test';

/** The news of a page, which a test may cut off. */
export class Wire {
  private readonly standing = new Set<WebSocketRoute>();
  private isCut = false;

  async begin(page: Page): Promise<void> {
    await page.routeWebSocket(/\/api\/news$/, (socket) => {
      if (this.isCut) return void socket.close();
      this.standing.add(socket);
      socket.connectToServer();
    });
  }

  async cut(): Promise<void> {
    this.isCut = true;
    for (const socket of this.standing) await socket.close();
    this.standing.clear();
  }

  mend(): void {
    this.isCut = false;
  }
}
