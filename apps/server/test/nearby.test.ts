import { Bonjour, type Service } from 'bonjour-service';
import { Nearby, type Finder } from '../src/printers/nearby';
import { ON_LOOPBACK, startServer, type RunningServer } from './running-server';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

test('a printer that announces itself on the net is found (RFC 6762, RFC 6763), with its address to be asked at', async () => {
  const net = new Bonjour(ON_LOOPBACK);
  const txt = { rp: 'ipp/print', ty: 'Foglio', note: 'First floor', UUID: 'x' };
  net.publish({ name: 'Upper office', type: 'ipp', port: 8731, txt });
  try {
    const look = async (): Promise<{ uri: string }[]> => {
      const answer = await fetch(`${server.base}/api/nearby-printers`);
      return (await answer.json()) as { uri: string }[];
    };
    // The first question on a net may be lost; whoever looks again asks again.
    let found = await look();
    for (let round = 0; found.length === 0 && round < 20; round += 1) found = await look();
    expect(found).toMatchObject([{ name: 'Upper office', model: 'Foglio', place: 'First floor', printerId: null }]);
    expect(found[0]!.uri).toMatch(/^ipp:\/\/\S+:8731\/ipp\/print$/);
  } finally {
    await new Promise<void>((resolve) => net.unpublishAll(() => net.destroy(() => resolve())));
  }
});

/** Services as they are heard of, whatever they say. */
function hearing(services: Readonly<Record<string, readonly Partial<Service>[]>>): Nearby {
  const find = ({ type }: { readonly type: string }) => ({ services: services[type] ?? [], update: () => undefined });
  return new Nearby(() => ({ find, destroy: () => undefined }) as unknown as Finder);
}

describe('of what announces itself', () => {
  const service = (change: Partial<Service>): Partial<Service> => ({
    name: 'Library',
    host: 'library.local',
    port: 631,
    txt: { rp: 'ipp/print' },
    addresses: ['fe80::1', '169.254.3.4', '192.0.2.7'],
    ...change,
  });

  test.each<[string, Partial<Service>, string]>([
    ['an address of the net goes before its name', {}, 'ipp://192.0.2.7:631/ipp/print'],
    [
      'one of the sixth version is written in brackets',
      { addresses: ['fe80::1', '2001:db8::5'] },
      'ipp://[2001:db8::5]:631/ipp/print',
    ],
    ['where all are of the link alone, its name', { addresses: ['fe80::1'] }, 'ipp://library.local:631/ipp/print'],
    ['keys are in letters of any size', { txt: { RP: '/ipp/print/a' } }, 'ipp://192.0.2.7:631/ipp/print/a'],
  ])('%s', async (_what, change, uri) => {
    expect(await hearing({ ipp: [service(change)] }).look()).toMatchObject([{ uri }]);
  });

  test('a protected connection goes before another to the same printer', async () => {
    const both = hearing({ ipp: [service({})], ipps: [service({ port: 443 })] });
    expect((await both.look()).map(({ uri }) => uri)).toEqual(['ipps://192.0.2.7:443/ipp/print']);
  });

  test('what could be no address is not offered', async () => {
    const odd = [service({ txt: { rp: 'a b?c' } }), service({ port: 0 }), service({ host: '', addresses: [] })];
    expect(await hearing({ ipp: odd }).look()).toEqual([]);
  });
});
