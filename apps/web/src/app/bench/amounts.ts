/** "1 sheet", "18 sheets". */
export const countSheets = (count: number): string => (count === 1 ? '1 sheet' : `${count} sheets`);

/** What stands under a number of pieces: "pieces, 3 of them over". */
export const sayPieces = (pieces: number, over: number): string =>
  `${pieces === 1 ? 'piece' : 'pieces'}${over > 0 ? `, ${over} of them over` : ''}`;

/** Money in euros: "€ 1.90". */
export const sayMoney = (amount: number): string =>
  `€ ${amount.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })}`;

/** A duration a person can plan with: "36 s", "8 min", "1 h 10 min". */
export function sayTime(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 60) return `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** The height of a stack: "0.9 mm", "26 mm". */
export const sayHeight = (mm: number): string => `${mm < 10 ? mm.toFixed(1) : Math.round(mm)} mm`;
