/**
 * A text in lines of at most a width: broken at spaces and after hyphens, within a word only where it is wider than a whole
 * line. Takes time in proportion to the text.
 *
 * @param width of a text
 * @param most the width of a line, in the same measure
 */
export function breakLines(text: string, width: (text: string) => number, most: number): string[] {
  return text.split(/\r\n?|\n/).flatMap((line) => (width(line) <= most ? [line] : breakLine(line, width, most)));
}

function breakLine(line: string, width: (text: string) => number, most: number): string[] {
  const lines: string[] = [];
  let now = '';
  let taken = 0;
  for (const word of line.match(/\s*[^\s-]*-*/g) ?? []) {
    if (word === '') continue;
    const wide = width(word);
    if (taken + wide <= most) {
      now += word;
      taken += wide;
      continue;
    }
    if (now.trim() !== '') lines.push(now.trimEnd());
    now = word.trimStart();
    taken = width(now);
    if (taken <= most) continue;
    const parts = breakWord(now, width, most);
    lines.push(...parts.slice(0, -1));
    now = parts.at(-1)!;
    taken = width(now);
  }
  return [...lines, now];
}

/** In pieces that fit; at least one letter each. */
function breakWord(word: string, width: (text: string) => number, most: number): string[] {
  const parts: string[] = [];
  let now = '';
  let taken = 0;
  for (const letter of word) {
    const wide = width(letter);
    if (now !== '' && taken + wide > most) {
      parts.push(now);
      [now, taken] = ['', 0];
    }
    now += letter;
    taken += wide;
  }
  return [...parts, now];
}
