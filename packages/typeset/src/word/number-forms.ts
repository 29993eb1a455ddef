const ROMAN: readonly (readonly [value: number, letters: string])[] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

function roman(count: number): string {
  let left = count;
  return ROMAN.map(([value, letters]) => {
    const times = Math.floor(left / value);
    left -= times * value;
    return letters.repeat(times);
  }).join('');
}

/** a to z, then aa to zz, as text documents count (ISO/IEC 29500-1, 17.18.59). */
const letters = (count: number): string =>
  String.fromCharCode(97 + ((count - 1) % 26)).repeat(Math.min(100, Math.ceil(count / 26)));

/** English ones, whatever the document's language. */
const ordinal = (count: number): string => {
  const ends = count % 100 > 10 && count % 100 < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][count % 10] ?? 'th');
  return `${count}${ends}`;
};

/** Numbers larger than any page or item of a list are written in digits. */
const MOST = 9_999;

/** A number in one of the forms of text documents (ISO/IEC 29500-1, 17.18.59); forms that are not known here are digits. */
export function sayNumber(count: number, format: string): string {
  if (format === 'none') return '';
  if (count < 1 || count > MOST) return String(count);
  switch (format) {
    case 'lowerRoman':
      return roman(count);
    case 'upperRoman':
      return roman(count).toUpperCase();
    case 'lowerLetter':
      return letters(count);
    case 'upperLetter':
      return letters(count).toUpperCase();
    case 'decimalZero':
      return String(count).padStart(2, '0');
    case 'ordinal':
      return ordinal(count);
    case 'numberInDash':
      return `- ${count} -`;
    default:
      return String(count);
  }
}

/** Letters of symbol fonts that nobody may ship, as letters that every font has (from memory of their tables). */
const SYMBOLS: Readonly<Record<string, string>> = {
  '\uf0b7': '•',
  '\uf0a7': '▪',
  '\uf0a8': '☐',
  '\uf06f': '☐',
  '\uf0fe': '☑',
  '\uf0fc': '✓',
  '\uf0d8': '➢',
  '\uf076': '❖',
  '\uf0e0': '→',
  '\uf0e8': '→',
  '\uf06e': '■',
  '\uf06c': '●',
  '\uf075': '◆',
  '\uf0b0': '°',
  '\uf02d': '–',
  '\uf0a3': '≤',
  '\uf0b3': '≥',
  '\uf0b1': '±',
  '\uf0b4': '×',
};

/** What a text of a symbol font shows; a letter of it that is not known here is a bullet. */
export const symbolOf = (text: string): string => text.replace(/[\uf000-\uf0ff]/g, (letter) => SYMBOLS[letter] ?? '•');
