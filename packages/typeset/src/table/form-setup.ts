import { readSizeName, type Form } from '@foglio/core';
import type { TableScale, TableSetup } from './table';

/** ISO 216. */
export const A4 = 'iso_a4_210x297mm';

/** The page of a size that stands so, in points. */
export function pageOf(paper: string, orientation: NonNullable<Form['orientation']>): TableSetup['page'] {
  const { width, height } = readSizeName(paper)!;
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  return orientation === 'portrait' ? { width: short, height: long } : { width: long, height: short };
}

const SCALES: Readonly<Record<NonNullable<Form['fit']>, TableScale>> = {
  actual: { kind: 'percent', percent: 100 },
  width: { kind: 'pages', wide: 1, tall: null },
  page: { kind: 'pages', wide: 1, tall: 1 },
  readable: { kind: 'readable' },
};

export const scaleFor = (fit: NonNullable<Form['fit']>): TableScale => SCALES[fit];
