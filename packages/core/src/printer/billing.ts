import type { PageFacts } from '../pages/facts';
import type { Printer } from './printer';

/** Whether a printer bills a page as colour; one of which it is not known yet counts as colour: the most it can cost. */
export const isBilledAsColor = (facts: PageFacts | undefined, { blackOfColors }: Printer['prices']): boolean =>
  facts?.color !== false || (facts.blackOfColors === true && blackOfColors === 'color');
