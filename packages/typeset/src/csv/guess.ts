import type { Form } from '@foglio/core';
import { parse } from 'csv-parse/sync';

export type Delimiter = NonNullable<Form['delimiter']>;

const DELIMITERS: readonly Delimiter[] = [',', ';', '\t', '|'];

/** Records that are looked at. */
const SAMPLE = 200;

/** Letters in which they are looked for. */
const SAMPLE_LETTERS = 200_000;

/** A first line that says what stands between the fields (common practice of office programs). */
const SAID = /^sep=(.)\r?\n/i;

/** A text without a first line that only says its delimiter. */
export const withoutSaying = (text: string): string => text.replace(SAID, '');

/** The records of a text; fields may hold delimiters, quotes and lines within quotes (RFC 4180, section 2). */
export function recordsOf(text: string, delimiter: Delimiter, most = Infinity): string[][] {
  return parse(text, {
    delimiter,
    relax_column_count: true,
    // A quote within a field that does not begin with one stands for itself.
    relax_quotes: true,
    ...(most === Infinity ? {} : { to: most }),
  });
}

/** What stands between the fields: what gives the most columns in most records. */
export function delimiterOf(text: string): Delimiter {
  const said = SAID.exec(text)?.[1] as Delimiter | undefined;
  if (said && DELIMITERS.includes(said)) return said;
  const scores = DELIMITERS.map((delimiter) => ({ delimiter, score: scoreOf(sampleOf(text, delimiter)) }));
  return scores.reduce((best, one) => (one.score > best.score ? one : best)).delimiter;
}

function sampleOf(text: string, delimiter: Delimiter): string[][] {
  try {
    return recordsOf(text.slice(0, SAMPLE_LETTERS), delimiter, SAMPLE);
  } catch {
    return [];
  }
}

/** How many columns most records have, times the part of them that has so many; one column tells nothing. */
function scoreOf(records: readonly string[][]): number {
  const counts = new Map<number, number>();
  for (const { length } of records) counts.set(length, (counts.get(length) ?? 0) + 1);
  const [columns, times] = [...counts].reduce((most, one) => (one[1] > most[1] ? one : most), [1, 0]);
  return columns === 1 ? 0 : (columns * times ** 2) / records.length ** 2;
}

/** "1,234.50", "-3.5 %", "€ 12", "1.234,50", "2026-11-30", "30.11.2026" */
const NUMBER = /^[\s€$£+-]*\(?[\d]+(?:[.,'\s\u00a0\u202f:/-]\d+)*\)?\s*[%€$£-]?$/;

export const isNumeric = (text: string): boolean => NUMBER.test(text.trim());

/** Whether the first record names the columns: all of it is words, each once. */
export function hasHeader([first, ...others]: readonly string[][]): boolean {
  if (!first || others.length === 0) return false;
  const named = first.filter((name) => name.trim() !== '');
  return named.length === first.length && new Set(named).size === named.length && !named.some(isNumeric);
}
