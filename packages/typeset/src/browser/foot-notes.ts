import type { WordWindow } from './lay-word';
import type { PageElement, PageNode } from './page-types';

/** The pages of a section as notes find them, in points. */
export interface RoomForNotes {
  /** Height of their text. */
  readonly page: number;
  /** What the first one has besides. */
  readonly spacer: number;
  /** Whether a page of it is another section's too: its notes then stand at its end. */
  readonly isShared: boolean;
}

/**
 * Runs in the browser, once paragraphs are set: puts notes at the foot of the pages on which they are referred to. A browser knows no
 * notes, so that in sections that have any the pages are ended here, line by line, where the text and its notes fill them.
 */
export function placeFootNotes(rooms: readonly RoomForNotes[]): void {
  const page = globalThis as unknown as WordWindow;
  const { document, foglio } = page;
  const PIXELS = 96 / 72;
  /** Less than what rounding makes of a page, in pixels. */
  const SLACK = 1.5;
  const LEAST_LINES = 2;
  const make = (css: Readonly<Record<string, string>>): PageElement => {
    const made = document.createElement('div');
    for (const [name, value] of Object.entries(css)) made.style.setProperty(name, value);
    return made;
  };
  const isParagraph = (block: PageElement): boolean => block.tagName === 'P';
  const endsPage = (block: PageElement): boolean => block.style.getPropertyValue('break-after') === 'page';
  const keepsNext = (block: PageElement): boolean => block.style.getPropertyValue('break-after') === 'avoid';

  /** Bottoms of a block's lines, or of a table's rows, where a page may end after each. */
  const endsOf = (block: PageElement): number[] => {
    const { bottom } = block.getBoundingClientRect();
    if (block.tagName === 'TABLE') {
      return [...block.querySelectorAll('tr')]
        .filter((row) => row.closest('table') === block)
        .map((row) => row.getBoundingClientRect().bottom);
    }
    if (!isParagraph(block) || block.style.getPropertyValue('break-inside') === 'avoid') return [bottom];
    const range = document.createRange();
    range.selectNodeContents(block);
    const rects = [...range.getClientRects()]
      .filter(({ height }) => height > 0)
      .sort((one, other) => one.top - other.top);
    const lines: { top: number; bottom: number }[] = [];
    for (const rect of rects) {
      const line = lines.at(-1);
      if (line && rect.top < line.bottom - 1) line.bottom = Math.max(line.bottom, rect.bottom);
      else lines.push({ top: rect.top, bottom: rect.bottom });
    }
    return lines.map((line, at) => (at + 1 < lines.length ? (line.bottom + lines[at + 1]!.top) / 2 : bottom));
  };

  /** What of a paragraph stands below a height, as a paragraph of its own after it. */
  const split = (paragraph: PageElement, at: number): PageElement => {
    const walker = document.createTreeWalker(paragraph, 4);
    const range = document.createRange();
    const topOf = (node: PageNode, from: number): number => {
      range.setStart(node, from);
      range.setEnd(node, from + 1);
      const { top, bottom } = range.getBoundingClientRect();
      return (top + bottom) / 2;
    };
    let found: readonly [PageNode, number] | null = null;
    for (let node = walker.nextNode(); node && !found; node = walker.nextNode()) {
      const { length } = node.textContent ?? '';
      if (length === 0 || topOf(node, length - 1) < at) continue;
      let [low, high] = [0, length - 1];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (topOf(node, middle) < at) low = middle + 1;
        else high = middle;
      }
      found = [node, low];
    }
    const rest = paragraph.cloneNode(false);
    if (found) {
      range.setStart(found[0], found[1]);
      range.setEndAfter(paragraph.lastChild!);
      rest.append(range.extractContents());
    }
    paragraph.after(rest);
    rest.style.setProperty('text-indent', '0');
    rest.style.setProperty('margin-top', '0');
    paragraph.style.setProperty('margin-bottom', '0');
    if (page.getComputedStyle(paragraph).getPropertyValue('text-align') === 'justify') {
      paragraph.style.setProperty('text-align-last', 'justify');
    }
    return rest;
  };

  /** The rows of a table below a height, as a table of its own after it. */
  const splitTable = (table: PageElement, at: number): PageElement => {
    const rest = table.cloneNode(false);
    const columns = table.querySelector('colgroup');
    const head = table.querySelector('thead');
    if (columns) rest.append(columns.cloneNode(true));
    if (head) rest.append(head.cloneNode(true));
    const rows = [...table.children].filter(
      (row) => row.tagName === 'TR' && row.getBoundingClientRect().bottom > at + 0.5,
    );
    // Cells that go on from rows above show themselves in the first row below.
    [...(rows[0]?.children ?? [])].forEach((cell, index) => {
      if (cell.style.getPropertyValue('display') !== 'none') return;
      const ends = rows.findIndex((row) => [...row.children][index]?.style.getPropertyValue('display') !== 'none');
      cell.style.setProperty('display', '');
      cell.rowSpan = ends < 0 ? rows.length : ends;
    });
    rest.append(...rows);
    table.after(rest);
    return rest;
  };

  [...document.querySelectorAll('.foglio-section')].forEach((section, index) => {
    const references = [...section.querySelectorAll('[id^="foglio-note:footnote "]')];
    const { page: height, spacer, isShared } = rooms[index]!;
    if (references.length === 0 || isShared || section.querySelector('.foglio-columns')) return;
    const noteOf = (reference: PageElement): PageElement | undefined =>
      foglio.notes.get(reference.id.slice('foglio-note:'.length));
    const high = height * PIXELS - SLACK;
    const heightOf = new Map(references.map((one) => [one, noteOf(one)?.getBoundingClientRect().height ?? 0] as const));
    /** The line above notes, and the room around it. */
    const ruled = 17 * PIXELS;
    const atEnd = section.querySelector('.foglio-notes');
    let first: PageElement | null = section.firstElementChild;
    let used = spacer * PIXELS;
    for (let pages = 0; first && first !== atEnd && pages < 10_000; pages += 1) {
      // Room above what begins a page is kept there.
      const above: number = parseFloat(page.getComputedStyle(first).getPropertyValue('margin-top'));
      const top: number = first.getBoundingClientRect().top - above - used;
      let notes: PageElement[] = [];
      let taken = 0;
      let end: { block: PageElement; at: number | null } | null = null;
      let lastFit: PageElement | null = null;
      let bottom: number = top + used;
      for (let block: PageElement | null = first; block && block !== atEnd && !end; block = block.nextElementSibling) {
        const ends = endsOf(block);
        const inside = references.filter((one) => block.contains(one));
        let [fit, fitNotes, fitTaken] = [0, notes, taken];
        for (const [line, lower] of ends.entries()) {
          const upper = ends[line - 1] ?? -Infinity;
          const own = inside.filter((one) => {
            const rect = one.nextElementSibling?.getBoundingClientRect() ?? one.getBoundingClientRect();
            const middle = (rect.top + rect.bottom) / 2;
            return middle > upper && (middle <= lower || line === ends.length - 1);
          });
          // A note as high as half a page goes to the end of its section.
          const small = own.filter((one) => heightOf.get(one)! > 0 && heightOf.get(one)! < high / 2);
          const more = small.reduce((sum, one) => sum + heightOf.get(one)!, fitTaken);
          const needed = lower - top + more + (more > 0 ? ruled : 0);
          const isFirst = block === first && line === 0;
          if (needed > high && !isFirst) break;
          [fit, fitNotes, fitTaken] = [line + 1, [...fitNotes, ...small], more];
        }
        if (fit === ends.length) {
          [notes, taken, lastFit] = [fitNotes, fitTaken, block];
          bottom = ends.at(-1) ?? bottom;
          if (endsPage(block)) end = { block, at: null };
          continue;
        }
        // As many lines stay together at the foot of a page and at the head of the next as elsewhere.
        const kept = isParagraph(block) ? Math.min(fit, ends.length - LEAST_LINES) : fit;
        const isSplit = kept >= (isParagraph(block) ? LEAST_LINES : 1);
        if (isSplit) {
          const at = ends[kept - 1]!;
          const isAbove = (one: PageElement): boolean => one.getBoundingClientRect().top < at;
          notes = [...notes, ...fitNotes.filter((one) => !notes.includes(one) && isAbove(one))];
          taken = notes.reduce((sum, one) => sum + heightOf.get(one)!, 0);
          bottom = at;
          end = { block, at };
        } else if (lastFit) {
          let before: PageElement = lastFit;
          while (keepsNext(before) && before !== first && before.previousElementSibling)
            before = before.previousElementSibling;
          notes = notes.filter((one) => !(before.compareDocumentPosition(one) & 4) || before.contains(one));
          taken = notes.reduce((sum, one) => sum + heightOf.get(one)!, 0);
          bottom = endsOf(before).at(-1) ?? bottom;
          end = { block: before, at: null };
        } else {
          end = { block, at: null };
          bottom = ends.at(-1) ?? bottom;
        }
      }
      let last: PageElement | null = end?.block ?? lastFit;
      let next: PageElement | null = null;
      const isForced = last !== null && end !== null && end.at === null && endsPage(last);
      if (end?.at != null) next = isParagraph(end.block) ? split(end.block, end.at) : splitTable(end.block, end.at);
      else next = last?.nextElementSibling ?? null;
      if (next === atEnd) next = null;
      if (isForced && last) {
        // What ends the page comes after its notes.
        const ender = last;
        last = ender.previousElementSibling;
        if (notes.length === 0) last = ender;
        else ender.before(make({}));
        if (notes.length > 0) last = ender.previousElementSibling;
      }
      if (notes.length > 0 && last) {
        // Margins around it are not one, whatever its height.
        const filled = make({ display: 'flow-root', height: '1px' });
        const foot = make({});
        foot.className = 'foglio-notes';
        foot.style.setProperty('break-inside', 'avoid');
        foot.append(...notes.flatMap((one) => noteOf(one) ?? []));
        last.style.setProperty('margin-bottom', '0');
        last.after(filled, foot);
        const left = high - (foot.getBoundingClientRect().bottom - top);
        filled.style.setProperty('height', `${Math.max(1, left + 1)}px`);
        last = foot;
      }
      if (next && !isForced && last) {
        last.after(make({ 'break-after': 'page' }));
        if (isParagraph(next)) next.style.setProperty('margin-top', '0');
      }
      first = next;
      used = 0;
    }
    if (atEnd && atEnd.children.length === 0) atEnd.remove();
  });
}
