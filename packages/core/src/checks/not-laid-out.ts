import { isLaidOutAs } from '../pages/laid-out';
import type { CheckRule } from './context';

/** A document is not laid out as the ticket asks: what is seen is how it was before. */
export const notLaidOut: CheckRule = ({ plan, ticket, documents }) =>
  documents.flatMap(({ name, laid }, at) => {
    if (isLaidOutAs(laid, ticket.documents[at]?.form ?? {})) return [];
    const sheets = plan.sheets.filter((sheet) =>
      [...sheet.front.cells, ...(sheet.back?.cells ?? [])].some(({ document }) => document === at + 1),
    );
    return [
      {
        code: 'not-laid-out' as const,
        level: 'stop' as const,
        message: `${name} is not laid out as you asked yet; these sheets show it as it was before.`,
        sheets: sheets.map(({ index }) => index),
        pages: [],
      },
    ];
  });
