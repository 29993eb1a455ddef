/** Spaces of all kinds, ends of lines, and controls (Unicode, general category Cc), which no screen, terminal or database wants. */
const UNSEEN = /[\s\u0000-\u001f\u007f-\u009f]+/g;

/** What a file says of itself, in one line of whole letters. */
export const oneLine = (text: string): string => text.toWellFormed().replace(UNSEEN, ' ').trim();
