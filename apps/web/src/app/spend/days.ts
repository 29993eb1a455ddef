import type { SpendRecord } from '@foglio/api';

/** Days as ISO 8601 writes them, "2026-09-01": without an hour, so that no time zone moves them. */
export type Day = string;

export type Step = SpendRecord['step'];

const dateOf = (day: Day): Date => new Date(`${day}T00:00Z`);
const dayOf = (date: Date): Day => date.toISOString().slice(0, 'YYYY-MM-DD'.length);

/** A day of this machine's calendar, as a calendar on the screen gives it. */
export const localDay = (date: Date): Day =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

/** The same day for a calendar on the screen. */
export const localDate = (day: Day): Date => new Date(`${day}T00:00`);

/** The 31st of February would be one of March. */
function isDay(text: string | null): text is Day {
  if (text === null || !/^\d{4}-\d\d-\d\d$/.test(text)) return false;
  const date = dateOf(text);
  return !Number.isNaN(date.getTime()) && dayOf(date) === text;
}

/** Two days in their order, from an address; what is no day there is the beginning of the month two months ago, and today. */
export function daysFrom(from: string | null, to: string | null, today: Day): { readonly from: Day; readonly to: Day } {
  const date = dateOf(today);
  const begin = dayOf(new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() - 2, 1)));
  const [first, last] = [isDay(from) ? from : begin, isDay(to) ? to : today];
  return first <= last ? { from: first, to: last } : { from: last, to: first };
}

/** The day, week (from its Monday, ISO 8601) or month that a day lies in, by its first day. */
function startOf(day: Day, step: Step): Day {
  const date = dateOf(day);
  if (step === 'week') date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7));
  if (step === 'month') date.setUTCDate(1);
  return dayOf(date);
}

function after(day: Day, step: Step): Day {
  const date = dateOf(day);
  if (step === 'month') date.setUTCMonth(date.getUTCMonth() + 1);
  else date.setUTCDate(date.getUTCDate() + (step === 'week' ? 7 : 1));
  return dayOf(date);
}

/** Every period between two days, by its first day, those without a delivery too. */
export function periodsBetween(from: Day, to: Day, step: Step): Day[] {
  const found: Day[] = [];
  for (let at = startOf(from, step); at <= to; at = after(at, step)) found.push(at);
  return found;
}

const words = (day: Day, how: Intl.DateTimeFormatOptions): string =>
  dateOf(day).toLocaleDateString('en-GB', { ...how, timeZone: 'UTC' });

/** "1 September 2026", or "today". */
export const sayDay = (day: Day, today: Day): string =>
  day === today ? 'today' : words(day, { day: 'numeric', month: 'long', year: 'numeric' });

/** Under its column: "31 Aug", of a month "Sept 2026". */
export const sayPeriod = (day: Day, step: Step): string =>
  words(day, step === 'month' ? { month: 'short', year: 'numeric' } : { day: 'numeric', month: 'short' });

/** Spans that people ask for, the later day of each not after today. */
export function commonSpans(
  today: Day,
  since: Day | null,
): { readonly name: string; readonly from: Day; readonly to: Day }[] {
  const date = dateOf(today);
  const month = (ago: number, day = 1): Day =>
    dayOf(new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() - ago, day)));
  return [
    { name: 'this month', from: month(0), to: today },
    { name: 'last month', from: month(1), to: month(0, 0) },
    { name: 'three months', from: month(2), to: today },
    { name: 'this year', from: `${today.slice(0, 4)}-01-01`, to: today },
    ...(since === null ? [] : [{ name: 'all there is', from: since, to: today }]),
  ];
}
