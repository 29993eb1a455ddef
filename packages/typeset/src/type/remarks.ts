/** What is said of letters that no font has, in sentences. */
export function remarksOnLetters(missing: ReadonlySet<string>): string[] {
  const letters = [...missing].filter((letter) => !/[\s\p{Cc}\p{Cf}]/u.test(letter));
  if (letters.length === 0) return [];
  const shown = letters.slice(0, 5).join(' ');
  const what = letters.length === 1 ? `The letter ${shown} is` : `${letters.length} letters (${shown}) are`;
  return [`${what} not in the font and print as boxes.`];
}
