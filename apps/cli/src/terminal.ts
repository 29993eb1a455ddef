/**
 * What a terminal would take as a command and not as a letter: controls but for ends of lines and tabs (ECMA-48, 5.2 and 5.3). Names
 * of files, titles and what printers say come from strangers.
 */
const COMMANDS = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/g;

const harmless = (text: string): string => text.replace(COMMANDS, '\ufffd');

/** Answers a person. */
export const say = (text: string): void => void process.stdout.write(`${harmless(text)}\n`);

/** Tells a person, beside the answer, what is the matter. */
export const complain = (text: string): void => void process.stderr.write(`${harmless(text)}\n`);

/** Asks a person, on the same line. */
export const ask = (text: string): void => void process.stderr.write(harmless(text));

/** Answers a program: the same controls as JSON writes those that it has to (RFC 8259, 7). */
export const sayJson = (data: unknown): void =>
  say(
    JSON.stringify(data, null, 2).replace(
      /[\u007f-\u009f]/g,
      (letter) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`,
    ),
  );
