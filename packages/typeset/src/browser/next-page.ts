import type { OpenPage } from './print-page';

/** The page in which the next document is laid out, opened before that comes; each is used once. */
export class NextPage {
  private ready: Promise<OpenPage> | null = null;
  private timer: NodeJS.Timeout | undefined;

  /**
   * @param open told whether there is time for what is only likely to be needed
   * @param after milliseconds from one document to the next page: whoever waits for that document goes first; null: none is opened
   */
  constructor(
    private readonly open: (isAhead: boolean) => Promise<OpenPage>,
    private readonly after: number | null,
  ) {}

  /** One that is ready, or a new one. @throws PdfError */
  take(): Promise<OpenPage> {
    clearTimeout(this.timer);
    const ready = this.ready ?? this.open(false);
    this.ready = null;
    return ready;
  }

  /** To be called when a document is through. */
  getReady(): void {
    if (this.after === null) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.keep(), this.after);
  }

  close(): void {
    clearTimeout(this.timer);
  }

  /** One that cannot be opened, or ends before it is of use, is opened again when it is asked for. */
  private async keep(): Promise<void> {
    if (this.ready) return;
    const ready = (this.ready = this.open(true));
    const forget = (): void => {
      if (this.ready === ready) this.ready = null;
    };
    try {
      const { page } = await ready;
      page.once('crash', forget);
      page.once('close', forget);
    } catch {
      forget();
    }
  }
}
