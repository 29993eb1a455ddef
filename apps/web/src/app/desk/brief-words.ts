import type { JobBrief } from '@foglio/api';

/** A job in short, for a list: "14 pages, 2 copies, both sides: 18 sheets". */
export function brieflyInWords({ ticket, names, sheets }: JobBrief): string {
  const what = names.length > 1 ? `${names.length} documents` : (names[0] ?? 'no document');
  const copies = ticket.copies === 1 ? 'one copy' : `${ticket.copies} copies`;
  const sides = ticket.sides === 'two-sided' ? 'both sides' : 'one side';
  return `${what}, ${copies}, ${sides}: ${sheets === 1 ? '1 sheet' : `${sheets} sheets`}`;
}
