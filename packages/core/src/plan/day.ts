/** A moment's day where the program runs, as plans take it: "2026-09-01" (ISO 8601). */
export const dayOf = (moment: Date): string =>
  [moment.getFullYear(), moment.getMonth() + 1, moment.getDate()]
    .map((part) => String(part).padStart(2, '0'))
    .join('-');
