import { TOLD } from '@foglio/core';

type Name = (typeof TOLD)[number]['name'];

const wordsOf = (name: Name): [string, string | number][] =>
  Object.entries(TOLD.find((one) => one.name === name)?.values ?? {});

/** The word of IPP for a value of a setting, as printers are told of it: `quality`, "draft" is 3. */
export const wordFor = (name: Name, value: string): string | number | null =>
  wordsOf(name).find(([known]) => known === value)?.[1] ?? null;

/** The value of a setting for a word of IPP; null where it has none for that. */
export const settingFor = (name: Name, word: string | number | null): string | null =>
  wordsOf(name).find(([, known]) => known === word)?.[0] ?? null;
