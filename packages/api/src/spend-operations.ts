import type { Operation } from './operation';
import { spendRecord, whichSpend } from './spend-records';

/** What is told of what was printed and paid for. */
export const SPEND_OPERATIONS = {
  spend: {
    method: 'get',
    path: '/api/spend',
    says: 'What was delivered between two days, added up by time, printer, paper, kind and set-up.',
    query: whichSpend,
    status: 200,
    gives: spendRecord,
  },
  spendList: {
    method: 'get',
    path: '/api/spend.csv',
    says: 'What was delivered between two days, a line each (RFC 4180).',
    query: whichSpend,
    status: 200,
    gives: 'text/csv',
  },
} as const satisfies Readonly<Record<string, Operation>>;
