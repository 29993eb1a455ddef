import type { Value } from '../message';

/**
 * A moment in the seconds in which printer-up-time counts (RFC 8011, 5.4.29). Counted from 1970 and not from the last start,
 * so that times of jobs stay what they were.
 */
export const secondsOf = (moment: Date): number => Math.floor(moment.getTime() / 1000);

/** DateAndTime (RFC 2579, section 2), in Universal Time. */
export function dateTime(moment: Date): Value {
  const year = moment.getUTCFullYear();
  const value = Uint8Array.from([
    year >> 8,
    year & 0xff,
    moment.getUTCMonth() + 1,
    moment.getUTCDate(),
    moment.getUTCHours(),
    moment.getUTCMinutes(),
    moment.getUTCSeconds(),
    Math.floor(moment.getUTCMilliseconds() / 100),
    0x2b,
    0,
    0,
  ]);
  return { tag: 'dateTime', value };
}
