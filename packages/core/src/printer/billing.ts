import type { PageFacts } from '../pages/facts';
import type { Printer } from './printer';

/** Whether a printer bills a page as colour; one of which it is not known yet counts as colour: the most it can cost. */
export const isBilledAsColor = (facts: PageFacts | undefined, { blackOfColors }: Printer['prices']): boolean =>
  facts?.color !== false || (facts.blackOfColors === true && blackOfColors === 'color');

/** Whether it is known of a page that nothing seen on it is coloured, however it is coded. */
export const looksGray = (facts: PageFacts | undefined): boolean =>
  facts?.color !== undefined && (facts.looksGray === true || !facts.color);
