import type { Printer } from '@foglio/core';
import { askPrinter } from './client';
import { firstNumber, groupOf, integer, keyword, nameValue, OPERATIONS } from './message';
import type { PrinterAddress } from './access';

/** Whether a printer tells what happens to its jobs to who asks for that (RFC 3996). */
export const tellsEvents = ({ jobs: { operations } }: Pick<Printer, 'jobs'>): boolean =>
  operations.includes(OPERATIONS.createPrinterSubscriptions) && operations.includes(OPERATIONS.getNotifications);

/** A subscription to what happens to a printer's jobs. */
export interface Subscription {
  readonly id: number;
  /** For so long it holds; null: for as long as the printer is on. */
  readonly seconds: number | null;
}

/** Create-Printer-Subscriptions (RFC 3995, 11.1.2); null where the printer gives it no number. @throws IppError */
export async function subscribe(printer: PrinterAddress, userName: string): Promise<Subscription | null> {
  const answer = await askPrinter(printer, {
    operation: OPERATIONS.createPrinterSubscriptions,
    operationAttributes: { 'requesting-user-name': [nameValue(userName)] },
    groups: [
      {
        tag: 'subscription',
        attributes: {
          'notify-pull-method': [keyword('ippget')],
          'notify-events': ['job-state-changed', 'job-progress', 'printer-state-changed'].map(keyword),
          'notify-lease-duration': [integer(LEASE_SECONDS)],
        },
      },
    ],
  });
  const told = groupOf(answer, 'subscription');
  const id = firstNumber(told, 'notify-subscription-id');
  const seconds = firstNumber(told, 'notify-lease-duration');
  return id === null ? null : { id, seconds: seconds === 0 ? null : seconds };
}

const LEASE_SECONDS = 3_600;

/** What happened, as far as it was not heard of. */
export interface Heard {
  /** Whether anything did. */
  readonly hasNews: boolean;
  /** The number of the next event. */
  readonly next: number;
}

/** Get-Notifications (RFC 3996, 5), without waiting. @throws IppError; with status not-found where it holds no longer */
export async function hearEvents(
  printer: PrinterAddress,
  { id }: Pick<Subscription, 'id'>,
  next: number,
  userName: string,
): Promise<Heard> {
  const answer = await askPrinter(printer, {
    operation: OPERATIONS.getNotifications,
    operationAttributes: {
      'requesting-user-name': [nameValue(userName)],
      'notify-subscription-ids': [integer(id)],
      'notify-sequence-numbers': [integer(next)],
    },
  });
  const numbers = answer.groups.flatMap(({ tag, attributes }) =>
    tag === 'event-notification' ? (firstNumber(attributes, 'notify-sequence-number') ?? []) : [],
  );
  const fresh = numbers.filter((number) => number >= next);
  return { hasNews: fresh.length > 0, next: Math.max(next, ...fresh.map((number) => number + 1)) };
}
