import { Bonjour, type Service } from 'bonjour-service';
import { withinOctets } from '@foglio/ipp/serving';
import type { Queue } from './queue';
import { FORMATS } from './queue-attributes';
import { log } from '../log';

/** What programs read of a printer before they ask it (PWG 5100.14, 4.2: DNS-SD, the TXT record). */
const txtOf = ({ name, title, uuid, printer, ticket }: Queue, page: string): Record<string, string> => ({
  txtvers: '1',
  qtotal: '1',
  rp: `ipp/print/${name}`,
  ty: title,
  note: '',
  pdl: FORMATS.filter((format) => format !== 'application/octet-stream').join(','),
  UUID: uuid,
  Color: printer.profile.color && ticket.color !== 'monochrome' ? 'T' : 'F',
  Duplex: 'T',
  adminurl: page,
  TLS: '',
});

/** Octets of a service's name (RFC 6763, 4.1.1; RFC 1035, 2.3.4). */
const LONGEST_LABEL = 63;

/** What announces services by multicast DNS (RFC 6762). */
export type Publisher = Pick<Bonjour, 'publish' | 'unpublishAll' | 'destroy'>;

/**
 * Tells the net of the queues (RFC 6763, service type _ipp._tcp), each under its title, and of what is offered later or no
 * longer. Not as _universal: that asks for formats that are not taken here.
 */
export class Announcement {
  private readonly told = new Map<string, { readonly text: string; readonly service: Service }>();

  constructor(
    private readonly port: () => number,
    private readonly page: () => string,
    private readonly bonjour: Publisher = new Bonjour({}, ({ message }: Error) =>
      log.error(`announcing printers: ${message}`),
    ),
  ) {}

  /** What is offered now. */
  tell(queues: readonly Queue[]): void {
    const offered = new Set(queues.map(({ title }) => withinOctets(title, LONGEST_LABEL)));
    for (const [title, { service }] of this.told) {
      if (offered.has(title)) continue;
      withdraw(service);
      this.told.delete(title);
    }
    for (const queue of queues) {
      const name = withinOctets(queue.title, LONGEST_LABEL);
      const txt = txtOf(queue, this.page());
      const text = JSON.stringify(txt);
      const before = this.told.get(name);
      if (before?.text === text) continue;
      if (before) withdraw(before.service);
      // A name that was its own a moment ago is not asked for anew.
      const service = this.bonjour.publish({ name, type: 'ipp', port: this.port(), txt, probe: before === undefined });
      this.told.set(name, { text, service });
    }
  }

  /** Says good-bye, so that nobody prints to what is gone. */
  end(): Promise<void> {
    return new Promise((resolve) => {
      this.bonjour.unpublishAll(() => this.bonjour.destroy(() => resolve()));
    });
  }
}

const withdraw = ({ stop }: Service): void => (stop as (() => void) | undefined)?.();
