import { TOLD } from '@foglio/core';
import { octets, OPERATIONS, text, type Attributes } from '@foglio/ipp';
import { nameUuid, printerAttributes } from '@foglio/ipp/serving';
import { isOver } from './archive';
import type { Machine } from './machine';

/** Job template attributes this printer takes; any other in a job is refused by name, not ignored. */
export const JOB_TEMPLATE = [...TOLD.map(({ attribute }) => attribute), 'multiple-document-handling', 'overrides'];

export const FORMATS = ['application/pdf', 'application/octet-stream'];

export const MOST_COPIES = 9999;

/** All that Get-Printer-Attributes tells. */
export function attributesOf(machine: Machine, address: string): Attributes {
  const { profile, loaded } = machine;
  const jobs = [...machine.jobs.values()];
  const panel = address.replace(/^ipp:/, 'http:').replace(/\/ipp\/print$/, '/panel');
  const trays = profile.trays.map((tray) => ({ ...tray, loaded: loaded.get(tray.id) ?? 0 }));
  const described = {
    profile: { ...profile, trays },
    info: profile.name,
    uuid: nameUuid(`${address} ${profile.name}`),
    operations: Object.values(OPERATIONS),
    formats: FORMATS,
    compressions: ['none'],
    takesSeveral: profile.jobs.documents,
    template: JOB_TEMPLATE,
    mostCopies: MOST_COPIES,
    otherSizes: [],
    isAnySize: false,
    rasterDpi: [],
    moreInfo: panel,
    icons: [],
    standing: {
      state: machine.stop ? 'stopped' : jobs.some(({ state }) => state === 'processing') ? 'processing' : 'idle',
      reasons: stateReasons(machine),
      message: '',
      queued: jobs.filter((job) => !isOver(job)).length,
      changedAt: STARTED,
    },
  } as const;
  // It is imposed at the paper's size already, so nothing else is taken.
  return {
    ...printerAttributes(described, address),
    ...suppliesOf(profile.color),
    'print-scaling-supported': [{ tag: 'keyword', value: 'none' }],
  };
}

/** What is left of each colour, in percent: nothing here is used up. */
const LEFT = { black: 62, cyan: 48, magenta: 71, yellow: 35 } as const;

/** PWG 5100.13, printer-supply. */
function suppliesOf(inColor: boolean): Attributes {
  const colours = inColor ? (['black', 'cyan', 'magenta', 'yellow'] as const) : (['black'] as const);
  return {
    'printer-supply': colours.map((colour) =>
      octets(`type=toner;maxcapacity=100;level=${LEFT[colour]};class=supplyThatIsConsumed;colorantname=${colour};`),
    ),
    'printer-supply-description': colours.map((colour) => text(`${colour[0]!.toUpperCase()}${colour.slice(1)} toner`)),
  };
}

const STARTED = new Date();

/** A tray with no more than this part of what it can hold is nearly empty. */
const LOW = 0.1;

/** printer-state-reasons (RFC 8011, 5.4.12): why it stands still, and which paper is running out. */
function stateReasons({ profile, stop, loaded, pulled }: Machine): string[] {
  const isLow = profile.trays.some(({ id, capacity }) => {
    const left = loaded.get(id) ?? 0;
    return left > 0 && left <= (capacity ?? 0) * LOW;
  });
  const reasons = [
    ...(stop ? [stop.reason] : []),
    ...(pulled.size > 0 && stop?.reason !== 'input-tray-missing' ? ['input-tray-missing-warning'] : []),
    ...(isLow ? ['media-low-warning'] : []),
  ];
  return reasons.length > 0 ? reasons : ['none'];
}
