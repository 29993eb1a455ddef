import { readXml } from '../office/xml';

/** Texts that cells refer to by their places (ECMA-376, 18.4.9); how parts of a text are set is left out. */
export function sharedStrings(part: Uint8Array | undefined): string[] {
  if (!part) return [];
  const strings: string[] = [];
  let text: string | null = null;
  // What is only read aloud (18.4.6) is not printed.
  let isPhonetic = false;
  let isText = false;
  readXml(part, 'the list of texts', {
    open: (name) => {
      if (name === 'si') text = '';
      if (name === 'rPh') isPhonetic = true;
      if (name === 't') isText = true;
    },
    text: (said) => {
      if (isText && !isPhonetic && text !== null) text += said;
    },
    close: (name) => {
      if (name === 't') isText = false;
      if (name === 'rPh') isPhonetic = false;
      if (name === 'si') {
        strings.push(unescaped(text ?? ''));
        text = null;
      }
    },
  });
  return strings;
}

/** "_x000D_" stands for a letter that XML cannot hold (ECMA-376, 22.9.2.19). */
export const unescaped = (text: string): string =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    : text;
