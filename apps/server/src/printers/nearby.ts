import { setTimeout as wait } from 'node:timers/promises';
import { isIPv4, isIPv6 } from 'node:net';
import { Bonjour, type Browser, type Service } from 'bonjour-service';
import { log } from '../log';

/** A printer that announces itself on the net. */
export interface NearbyPrinter {
  /** As it announces itself, "Upper office". */
  readonly name: string;
  readonly uri: string;
  /** What it is and where it stands, as it says. */
  readonly model: string | null;
  readonly place: string | null;
}

/** What finds services by multicast DNS (RFC 6762). */
export type Finder = Pick<Bonjour, 'find' | 'destroy'>;

/** Printers answer within a second (RFC 6762, 6: after up to 500 ms, and the first question may be lost). */
const LISTENS_FOR_MS = 1_500;

/** Nobody looks any more. */
const RESTS_AFTER_MS = 60_000;

/** Protected connections before others, where a printer offers both (RFC 8011, 5.4.1; DNS-SD: PWG 5100.14, 4.2). */
const TYPES = ['ipps', 'ipp'] as const;

/** Printers on the net that announce themselves (RFC 6763, service types _ipp._tcp and _ipps._tcp), while somebody looks for any. */
export class Nearby {
  private finder: Finder | null = null;
  private browsers: { readonly type: (typeof TYPES)[number]; readonly browser: Browser }[] = [];
  private rest: NodeJS.Timeout | null = null;

  constructor(
    private readonly open: () => Finder = () =>
      new Bonjour({}, ({ message }: Error) => log.warn(`looking for printers: ${message}`)),
  ) {}

  /** Asks the net, listens for a moment, and tells what announced itself, by name. */
  async look(): Promise<NearbyPrinter[]> {
    if (this.rest) clearTimeout(this.rest);
    this.rest = setTimeout(() => this.end(), RESTS_AFTER_MS).unref();
    if (this.finder) for (const { browser } of this.browsers) browser.update();
    else {
      const finder = (this.finder = this.open());
      this.browsers = TYPES.map((type) => ({ type, browser: finder.find({ type }) }));
    }
    await wait(LISTENS_FOR_MS);
    const all = this.browsers.flatMap(({ type, browser }) =>
      browser.services.flatMap((one) => describe(one, type) ?? []),
    );
    const first = all.filter((one, at) => all.findIndex(({ name }) => name === one.name) === at);
    return first.sort((one, other) => one.name.localeCompare(other.name, 'en'));
  }

  end(): void {
    if (this.rest) clearTimeout(this.rest);
    this.rest = null;
    this.browsers = [];
    this.finder?.destroy();
    this.finder = null;
  }
}

const LONGEST = 127;

function describe(service: Service, type: (typeof TYPES)[number]): NearbyPrinter | null {
  const entries = Object.entries((service.txt ?? {}) as Record<string, unknown>);
  const txt = new Map(
    entries.flatMap(([key, value]) => (typeof value === 'string' ? [[key.toLowerCase(), value]] : [])),
  );
  const host = hostOf(service);
  const path = (txt.get('rp') ?? '').replace(/^\/+/, '');
  if (host === null || !service.port || !/^[\w./%-]*$/.test(path)) return null;
  const told = (key: string): string | null => txt.get(key)?.trim().slice(0, LONGEST).toWellFormed() || null;
  return {
    name: service.name.slice(0, LONGEST).toWellFormed(),
    uri: `${type}://${host}:${service.port}/${path}`,
    model: told('ty'),
    place: told('note'),
  };
}

/** An address by which it is reached from here; names on the net of multicast DNS alone are not known to all machines. */
function hostOf({ addresses = [], host }: Service): string | null {
  const four = addresses.find((one) => isIPv4(one) && !one.startsWith('169.254.'));
  const six = addresses.find((one) => isIPv6(one) && !/^fe[89ab]/i.test(one));
  return four ?? (six ? `[${six}]` : host || null);
}
