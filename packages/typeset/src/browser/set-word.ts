import type { PageElement } from './page-types';
import type { WordWindow } from './lay-word';

/**
 * Runs in the browser, once a text document's fonts are there: lines as high as their fonts have them, room between paragraphs, and
 * what is too wide.
 *
 * @returns how many tables were made smaller, and the fonts that are asked for
 */
export function setLines(): { readonly fitted: number; readonly fonts: readonly string[] } {
  const page = globalThis as unknown as WordWindow;
  const { document } = page;
  const POINTS = 72 / 96;
  const chosen = [...page.foglio.paragraphs];

  // The library gives fonts to runs and none to paragraphs, whose own would make every line as high as that.
  const looks = chosen.map(([paragraph]) => {
    let smallest: { size: number; family: string } | null = null;
    for (const run of paragraph.querySelectorAll('span')) {
      if ((run.textContent ?? '') === '' || run.closest('p') !== paragraph) continue;
      const computed = page.getComputedStyle(run);
      const size = parseFloat(computed.getPropertyValue('font-size'));
      if (!smallest || size < smallest.size) smallest = { size, family: computed.getPropertyValue('font-family') };
    }
    return smallest;
  });
  const natural = new Map<string, number>();
  const probe = document.createElement('div');
  probe.textContent = 'Hg';
  document.body.append(probe);
  for (const family of new Set(looks.flatMap((look) => (look ? [look.family] : [])))) {
    probe.style.setProperty('font', `100px/normal ${family}`);
    natural.set(family, probe.getBoundingClientRect().height / 100);
  }
  probe.remove();
  chosen.forEach(([paragraph, { lines }], at) => {
    const look = looks[at];
    if (look) {
      paragraph.style.setProperty('font-family', look.family);
      paragraph.style.setProperty('font-size', `${look.size}px`);
    }
    const high = natural.get(look?.family ?? '') ?? 1.2;
    const height =
      'times' in lines
        ? (high * lines.times).toFixed(4)
        : 'least' in lines
          ? `max(${high.toFixed(4)}em, ${lines.least}pt)`
          : `${lines.exact}pt`;
    paragraph.style.setProperty('line-height', height);
  });

  // The room after one and the room before the next are added up; close ones of one style have none.
  const margins = chosen.map(([paragraph]) => {
    const computed = page.getComputedStyle(paragraph);
    return [
      parseFloat(computed.getPropertyValue('margin-top')),
      parseFloat(computed.getPropertyValue('margin-bottom')),
    ];
  });
  const indexOf = new Map(chosen.map(([paragraph], at) => [paragraph, at]));
  chosen.forEach(([paragraph, mark], at) => {
    const next = paragraph.nextElementSibling;
    const other = next ? indexOf.get(next) : undefined;
    if (other === undefined) return;
    const isAlike = next!.className === paragraph.className;
    const after = isAlike && mark.isClose ? 0 : margins[at]![1]!;
    const before = isAlike && chosen[other]![1].isClose ? 0 : margins[other]![0]!;
    paragraph.style.setProperty('margin-bottom', `${after}px`);
    next!.style.setProperty('margin-top', `${before > 0 && after > 0 ? before + after : before}px`);
  });

  let fitted = 0;
  for (const table of document.querySelectorAll('.foglio-section > table')) {
    const section = table.closest('.foglio-section')!;
    const { left, right } = section.getBoundingClientRect();
    const room = right + parseFloat(section.style.getPropertyValue('--room')) / POINTS - left;
    const { width } = table.getBoundingClientRect();
    if (width <= room) continue;
    fitted += 1;
    table.style.setProperty('zoom', String((right - left) / width));
  }
  const fonts = [...natural.keys()].map((family) => family.split(',')[0]!.replace(/["']/g, '').trim());
  return { fitted, fonts: [...new Set(fonts)] };
}

/**
 * Runs in the browser: makes tabs as wide as it is to where they lead.
 *
 * @param tabEvery points from one to the next where none is set
 * @param within a selector of what is set
 */
export function setTabs({ tabEvery, within }: { readonly tabEvery: number; readonly within: string }): void {
  const page = globalThis as unknown as WordWindow;
  const { document } = page;
  const POINTS = 72 / 96;
  const chosen = [...page.foglio.paragraphs].filter(([paragraph]) => paragraph.closest(within) !== null);

  // All first tabs of a line, then all second ones: what is measured is not asked for anew after each.
  const isTab = (span: PageElement): boolean =>
    span.className === 'foglio-tab' || (span.className === '' && span.textContent === '\u2003');
  const lines = chosen.flatMap(([paragraph, { tabs = [] }]) => {
    const spans = [...paragraph.querySelectorAll('span > span')].filter(
      (span) => isTab(span) && span.closest('p') === paragraph,
    );
    const isTurned = page.getComputedStyle(paragraph).getPropertyValue('direction') === 'rtl';
    return spans.length === 0 || isTurned ? [] : [{ paragraph, tabs, spans }];
  });
  for (const { spans } of lines) {
    for (const span of spans) {
      span.className = 'foglio-tab';
      span.textContent = ' ';
      span.style.setProperty('white-space', 'pre');
      span.style.setProperty('display', 'inline-block');
      span.style.setProperty('width', '0');
    }
  }
  const most = Math.max(0, ...lines.map(({ spans }) => spans.length));
  for (let turn = 0; turn < most; turn += 1) {
    const found = lines.flatMap(({ paragraph, tabs, spans }) => {
      const span = spans[turn];
      if (!span) return [];
      const box = paragraph.getBoundingClientRect();
      const from = box.left - parseFloat(page.getComputedStyle(paragraph).getPropertyValue('margin-left'));
      const at = (span.getBoundingClientRect().left - from) * POINTS;
      const stop = tabs.find((one) => one.at > at + 0.5);
      // Between the tabs that are set there are none; after them there are, one every so often.
      const to = stop?.at ?? (Math.floor((at + 0.5) / tabEvery) + 1) * tabEvery;
      let width = to - at;
      if (stop && stop.kind !== 'left') {
        const range = document.createRange();
        range.setStartAfter(span);
        const next = spans[turn + 1];
        if (next) range.setEndBefore(next);
        else range.setEndAfter(paragraph);
        const rects = [...range.getClientRects()].filter((one) => one.width > 0);
        const top = rects[0]?.top ?? 0;
        const line = rects.filter((one) => Math.abs(one.top - top) < (rects[0]?.height ?? 0));
        const long = line.length === 0 ? 0 : (line.at(-1)!.right - line[0]!.left) * POINTS;
        width -= stop.kind === 'center' ? long / 2 : long;
      }
      // Never past the end of the line, where it would begin another.
      const room = (box.right - from) * POINTS - at;
      return [{ span, width: Math.max(1, Math.min(width, room - 0.5)), leader: stop?.leader ?? null }];
    });
    for (const { span, width, leader } of found) {
      span.style.setProperty('width', `${width.toFixed(2)}pt`);
      if (leader) {
        // Without letters its line is that on which letters stand.
        span.textContent = '';
        span.style.setProperty('border-bottom', leader === 'dot' ? '1pt dotted' : '.5pt solid');
      }
    }
  }
}
