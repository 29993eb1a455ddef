import { scalesOf } from '@foglio/core';
import type { Situation } from './situation';

/** Sizes nearer to each other than this part are said as one. */
const SAME = 0.0005;

/** Tells for a route, from 0, how large its pages come out where that is not as the rest; for -1, how large the rest does. */
export type SizeWords = (route: number) => string | null;

/** "96 %", "71 to 100 %"; null where all are at actual size, or at the percentage that is said already. */
export function sizeWords({ ticket, documents, printer }: Situation): SizeWords {
  // Said of any file, nothing is known.
  const scales = documents.length === 0 ? null : scalesOf(ticket, documents, printer);
  const saidOf = (route: number): string | null => {
    const found = scales?.get(route);
    if (!found) return null;
    const { least, most } = found;
    if (most - least >= SAME) return `${percent(least)} to ${percent(most)} %`;
    const { mode, percent: wanted = 100 } = ticket.routes[route]?.scale ?? ticket.scale;
    return mode === 'percent' && Math.abs(least - wanted / 100) < SAME ? null : `${percent(least)} %`;
  };
  const rest = saidOf(-1);
  return (route) => {
    if (route === -1) return rest;
    const said = saidOf(route);
    return said === rest ? null : said;
  };
}

/** In whole percent; nearer to actual size with as many places as tell it from that. */
function percent(scale: number): string {
  const whole = (scale * 100).toFixed(0);
  if (whole !== '100') return whole;
  return (scale * 100).toFixed(1).replace(/\.0$/, '');
}
