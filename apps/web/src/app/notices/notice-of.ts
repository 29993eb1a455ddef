import type { SendingRecord } from '@foglio/api';
import { isAsking, sayPortion } from '../queue/sending-words';

/** What a person should hear of a sending, whatever they look at. */
export interface Notice {
  readonly sendingId: string;
  readonly printerId: string;
  /** Whether it is done, goes on only when somebody does something, or ended without its sheets. */
  readonly kind: 'ready' | 'asks' | 'failed';
  readonly text: string;
}

/** What is to be heard of it as it stands; null: nothing. */
export function noticeOf(sending: SendingRecord): Notice | null {
  const { id: sendingId, printerId } = sending;
  const kind = kindOf(sending);
  return kind && { sendingId, printerId, kind, text: TEXTS[kind](sending, `“${sending.title || 'Untitled job'}”`) };
}

function kindOf(sending: SendingRecord): Notice['kind'] | null {
  if (isAsking(sending)) return 'asks';
  if (sending.state === 'completed') return 'ready';
  // What somebody cancelled is no news to them.
  return ['failed', 'aborted', 'interrupted'].includes(sending.state) ? 'failed' : null;
}

const TEXTS: Record<Notice['kind'], (sending: SendingRecord, title: string) => string> = {
  ready: (sending, title) => {
    const portion = sayPortion(sending);
    return portion === null ? `${title} is ready.` : `${title} is ready: ${portion}.`;
  },
  asks: ({ state, message }, title) => {
    if (state === 'proofed') return `One set of ${title} is out: look at it.${message ? ` ${message}` : ''}`;
    if (state === 'turning') return `The fronts of ${title} are out: put the stack back in.`;
    if (state === 'uncertain') return `${title} may have been printed: look whether it was.`;
    return `${title} waits. ${message}`;
  },
  failed: ({ state, message }, title) => {
    const how = state === 'failed' ? 'was not sent' : state === 'aborted' ? 'was aborted by the printer' : 'broke off';
    return message ? `${title} ${how}: ${message}` : `${title} ${how}.`;
  },
};
