import {
  enumeration,
  firstNumber,
  groupOf,
  integer,
  JOB_STATES,
  keyword,
  STATUS,
  type Attributes,
  type Message,
} from '../message';
import { Refusal, type Answer, type ServedEvents } from './served-printer';

/** Create-Printer-Subscriptions (RFC 3995, 11.1.2): of jobs, to be asked for (RFC 3996). @throws Refusal */
export function createSubscription(message: Message, events: ServedEvents): Answer {
  const asked = groupOf(message, 'subscription');
  const method = asked['notify-pull-method']?.[0];
  if (method?.tag !== 'keyword' || method.value !== 'ippget')
    throw new Refusal(STATUS.attributesOrValuesNotSupported, 'notify-pull-method is not ippget', asked);
  const { id, seconds } = events.subscribe();
  const attributes = { 'notify-subscription-id': [integer(id)], 'notify-lease-duration': [integer(seconds)] };
  return { status: STATUS.ok, groups: [{ tag: 'subscription', attributes }] };
}

/** Get-Notifications (RFC 3996, 5), which answers at once. @throws Refusal */
export function getNotifications(operation: Attributes, events: ServedEvents): Answer {
  const id = firstNumber(operation, 'notify-subscription-ids');
  if (id === null) throw new Refusal(STATUS.badRequest, 'notify-subscription-ids is missing');
  const found = events.since(id, firstNumber(operation, 'notify-sequence-numbers') ?? 1);
  if (!found) throw new Refusal(STATUS.notFound, `there is no subscription ${id}`);
  return {
    status: STATUS.ok,
    operation: { 'notify-get-interval': [integer(events.everySeconds)] },
    groups: found.map(({ sequence, job, state }) => ({
      tag: 'event-notification',
      attributes: {
        'notify-subscription-id': [integer(id)],
        'notify-sequence-number': [integer(sequence)],
        'notify-subscribed-event': [keyword('job-progress')],
        'notify-job-id': [integer(job)],
        'job-state': [enumeration(JOB_STATES[state])],
      },
    })),
  };
}
