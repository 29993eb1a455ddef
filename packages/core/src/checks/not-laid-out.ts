import { isLaidOutAs } from '../pages/laid-out';
import type { DocumentFacts } from '../pages/facts';
import type { Ticket } from '../ticket/ticket';
import type { CheckRule } from './context';

/** A document is not laid out as the ticket asks, or not to its end: what is seen is not what would be printed. */
export const notLaidOut: CheckRule = ({ plan, ticket, documents }) =>
  documents.flatMap((facts, at) => {
    const message = sayWhy(facts, ticket.documents[at]?.form ?? {});
    if (message === null) return [];
    const sheets = plan.sheets.filter((sheet) =>
      [...sheet.front.cells, ...(sheet.back?.cells ?? [])].some(({ document }) => document === at + 1),
    );
    const [code, level] = ['not-laid-out', 'stop'] as const;
    return [{ code, level, message, sheets: sheets.map(({ index }) => index), pages: [] }];
  });

function sayWhy({ name, laid }: DocumentFacts, asked: Ticket['documents'][number]['form']): string | null {
  if (!isLaidOutAs(laid, asked)) {
    return `${name} is not laid out as you asked yet; these sheets show it as it was before.`;
  }
  if (!laid?.unfinished) return null;
  const { trouble, done, of } = laid.unfinished;
  const far = done === undefined || of === undefined ? '' : `, ${done} of ${of} pages`;
  return trouble === null
    ? `${name} is still being laid out${far}; these are its first pages.`
    : `Only the first pages of ${name} are here: ${trouble}`;
}
