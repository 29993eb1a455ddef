import { readTicket } from '@foglio/core/validate';
import type { Service, ServiceConfig } from 'bonjour-service';
import { Announcement, type Publisher } from '../src/incoming/announcement';
import type { Queue } from '../src/incoming/queue';
import { PROFILE } from './running-server';

/** Tells what is published and withdrawn; the net itself is the package's business. */
function listening() {
  const heard: string[] = [];
  const told = new Map<string, Partial<ServiceConfig>>();
  const publisher: Publisher = {
    publish: (options) => {
      heard.push(`+ ${options.name}`);
      told.set(options.name, options);
      const stop = (): void => void heard.push(`- ${options.name}`);
      return { stop } as unknown as Service;
    },
    unpublishAll: (done) => {
      heard.push('- all');
      (done as () => void)();
    },
    destroy: (done) => (done as () => void)(),
  };
  return { heard, told, publisher };
}

const queue = (name: string, title: string, settings: object = {}): Queue => ({
  name,
  title,
  uuid: '5d1e7a52-0d0b-4f5c-9a43-6f0f2b2c8a11',
  setup: null,
  ticket: readTicket({ version: 1, documents: [{ file: '*' }], ...settings }),
  printer: {
    id: 'p',
    name: 'Office',
    uri: 'ipp://127.0.0.1:9/ipp/print',
    panel: null,
    access: null,
    pace: 1,
    heldBack: false,
    place: 0,
    profile: PROFILE,
    papers: {},
    seenAt: new Date(),
  },
});

test('a long name is cut to what a name on the net can be (RFC 1035, 2.3.4)', () => {
  const { told, publisher } = listening();
  new Announcement(
    () => 8632,
    () => 'http://127.0.0.1:4800/print-from-programs',
    publisher,
  ).tell([queue('long', 'ü'.repeat(100))]);
  expect([...told.keys()].map((label) => Buffer.byteLength(label))).toEqual([62]);
});

test('each queue is announced once, anew where something of it changes, and withdrawn when it is no longer offered', async () => {
  const { heard, told, publisher } = listening();
  const announcement = new Announcement(
    () => 8632,
    () => 'http://127.0.0.1:4800/print-from-programs',
    publisher,
  );
  const desk = queue('desk', 'Foglio Desk');
  announcement.tell([desk, queue('letters', 'Letters')]);
  announcement.tell([desk, queue('letters', 'Letters')]);
  expect(heard).toEqual(['+ Foglio Desk', '+ Letters']);
  // RFC 6763, 4.1 and 6; the keys of the TXT record: PWG 5100.14, 4.2.
  expect(told.get('Letters')).toMatchObject({
    type: 'ipp',
    port: 8632,
    txt: { txtvers: '1', rp: 'ipp/print/letters', ty: 'Letters', Color: 'T', Duplex: 'T' },
  });
  expect(told.get('Letters')?.subtypes).toBeUndefined();
  heard.length = 0;
  announcement.tell([desk, queue('letters', 'Letters', { color: 'monochrome' })]);
  expect(heard).toEqual(['- Letters', '+ Letters']);
  expect(told.get('Letters')?.txt).toMatchObject({ Color: 'F' });
  heard.length = 0;
  announcement.tell([desk]);
  await announcement.end();
  expect(heard).toEqual(['- Letters', '- all']);
});
