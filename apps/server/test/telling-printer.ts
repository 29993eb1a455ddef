import { createServer, type Server } from 'node:http';
import {
  decodeMessage,
  encodeMessage,
  enumeration,
  firstNumber,
  groupOf,
  integer,
  keyword,
  nameValue,
  OPERATIONS,
  STATUS,
  type Message,
} from '@foglio/ipp';
import { close, listening } from '../../../packages/ipp/test/small-printer';

/** How a job stands; its sheets null where the printer counts none. */
type Standing = readonly [state: number, reason: string, sheets: number | null];

/** Of a job that the printer knows nothing of any more. */
export const FORGOTTEN: Standing = [0, '', 0];

/** A printer that only tells of jobs: the least that the keeper asks for. */
export class TellingPrinter {
  readonly cancelled: number[] = [];
  /** How often it was asked what happened, and whether anything did since. */
  readonly events = { asked: 0, happened: false };
  /** What its list of jobs names them. */
  listed: Readonly<Record<number, string>> = {};
  private readonly asked = new Map<number, number>();
  private readonly server: Server;

  /** @param jobs by their numbers: how each stands the first time that it is asked for, the next, and from then on */
  constructor(private readonly jobs: Readonly<Record<number, readonly Standing[]>>) {
    this.server = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        const { message } = decodeMessage(Buffer.concat(parts));
        response.end(
          encodeMessage({ version: [2, 0], code: STATUS.ok, requestId: 1, groups: [], ...this.answer(message) }),
        );
      });
    });
  }

  start(): Promise<string> {
    return listening(this.server);
  }

  close(): void {
    close(this.server);
  }

  private answer({ code, groups }: Message): Partial<Message> {
    switch (code) {
      case OPERATIONS.createPrinterSubscriptions:
        return { groups: [{ tag: 'subscription', attributes: { 'notify-subscription-id': [integer(1)] } }] };
      case OPERATIONS.getNotifications: {
        this.events.asked += 1;
        const attributes = { 'notify-sequence-number': [integer(1)] };
        return { groups: this.events.happened ? [{ tag: 'event-notification', attributes }] : [] };
      }
      case OPERATIONS.getJobs:
        return {
          groups: Object.entries(this.listed).map(([job, name]) => ({
            tag: 'job',
            attributes: { 'job-id': [integer(Number(job))], 'job-name': [nameValue(name)] },
          })),
        };
      default:
        return this.tell(code, firstNumber(groupOf({ groups } as Message, 'operation'), 'job-id') ?? 0);
    }
  }

  private tell(code: number, id: number): Partial<Message> {
    const states = this.jobs[id] ?? [];
    const time = this.asked.get(id) ?? 0;
    if (code === OPERATIONS.cancelJob) this.cancelled.push(id);
    else this.asked.set(id, time + 1);
    const standing = states[Math.min(time, states.length - 1)] ?? FORGOTTEN;
    const [state, reason, sheets] = standing;
    const attributes = {
      'job-state': [enumeration(state)],
      'job-state-reasons': [keyword(reason)],
      ...(sheets === null ? {} : { 'job-media-sheets-completed': [integer(sheets)] }),
    };
    return { code: standing === FORGOTTEN ? STATUS.notFound : STATUS.ok, groups: [{ tag: 'job', attributes }] };
  }
}
