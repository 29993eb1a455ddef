/** A number as PDF writes it: PDF knows no exponents (ISO 32000-1, 7.3.3). */
export const decimal = (value: number): string => String(Number(value.toFixed(5)));
