import type { Page } from '@playwright/test';

/** A sheet, with the pages of the documents on its sides; a side that is not printed is null. */
export interface SheetOnPaper {
  readonly tray: string;
  readonly front: readonly number[];
  readonly back: readonly number[] | null;
}

/** What the screen shows of a job when Send is pressed. */
export interface SeenJob {
  readonly printer: string;
  readonly sets: number;
  /** Of one set. */
  readonly sheets: readonly SheetOnPaper[];
}

/**
 * Reads what the screen shows and presses Send at the very same moment, so that nothing comes between.
 *
 * @returns null where Send cannot be pressed, or not all sheets are on the screen
 */
export async function seeAndSend(page: Page): Promise<SeenJob | null> {
  const read = await page.evaluate(async () => {
    const all = (selector: string): string[] =>
      [...document.querySelectorAll(selector)].map((element) => element.textContent?.trim() ?? '');
    const sendButton = (): HTMLButtonElement | undefined =>
      [...document.querySelectorAll<HTMLButtonElement>('fo-tally-bar button')].find((button) =>
        /^Send \d/.test(button.textContent?.trim() ?? ''),
      );
    const frame = (): Promise<unknown> => new Promise((resolve) => requestAnimationFrame(resolve));
    // In the very frame in which it can be pressed: what was changed just before is not saved by then.
    for (let waited = 0; waited < 60 && sendButton()?.disabled !== false; waited += 1) await frame();
    const send = sendButton();
    if (!send || send.disabled || document.querySelector('fo-lanes .block, fo-lanes .pass')) return null;
    const [labels, figures, sentence] = [all('fo-lanes .sheet .heard'), all('.figures dt'), all('fo-sentence-bar p')];
    send.click();
    // The screen tells of it by the next frame.
    await frame();
    await frame();
    return { labels, sets: figures[0] ?? '', sentence: sentence.join(' ') };
  });
  if (!read) return null;
  const sheets = read.labels.map(readLabel);
  const count = Number(/ of (\d+),/.exec(read.labels[0] ?? '')?.[1]);
  if (sheets.length !== count) throw new Error(`${sheets.length} of ${count} sheets are on the screen`);
  return {
    printer: /Printed at\s+(.+?)\s*\./.exec(read.sentence)?.[1] ?? '',
    sets: Number(/(\d+) sets/.exec(read.sets)?.[1] ?? 1),
    sheets,
  };
}

/** "Sheet 2 of 5, Tray 1, front pages 3 and 4, back not printed" */
function readLabel(label: string): SheetOnPaper {
  const [, tray, front, back] = /^Sheet \d+ of \d+, (.+?), front (.+), back (.+)$/.exec(label) ?? [];
  if (!tray || !front || !back) throw new Error(`a sheet is called “${label}”`);
  return { tray, front: numbersIn(front), back: back === 'not printed' ? null : numbersIn(back) };
}

/** "page 3", "pages 5 to 8", "pages 1, 2 and 6 to 8", "page 1 of notes (2)", the second of that name; "blank" has none. */
function numbersIn(said: string): number[] {
  return [...said.replaceAll(/\(\d+\)/g, '').matchAll(/(\d+)(?: to (\d+))?/g)]
    .flatMap(([, from, to]) => {
      const first = Number(from);
      return Array.from({ length: Number(to ?? from) - first + 1 }, (_, index) => first + index);
    })
    .sort((a, b) => a - b);
}
