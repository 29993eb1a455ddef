/** A moment where the program runs, as plans take it: "2026-09-01T14:05" (ISO 8601, local time). */
export const momentOf = (moment: Date): string => {
  const [month, day, hour, minute] = [
    moment.getMonth() + 1,
    moment.getDate(),
    moment.getHours(),
    moment.getMinutes(),
  ].map((part) => String(part).padStart(2, '0'));
  return `${moment.getFullYear()}-${month}-${day}T${hour}:${minute}`;
};

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** "1 September 2026" of any ISO 8601 date; nothing where there is none. */
export function sayDay(moment: string | undefined): string {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})/.exec(moment ?? '') ?? [];
  return year ? `${Number(day)} ${MONTHS[Number(month) - 1]} ${year}` : '';
}

/** "1 September 2026, 14:05"; the day alone where no time is told. */
export function sayMoment(moment: string | undefined): string {
  const [, time] = /T(\d{2}:\d{2})/.exec(moment ?? '') ?? [];
  return [sayDay(moment), ...(time ? [time] : [])].join(', ');
}
