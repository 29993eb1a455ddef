import { printerSchema } from '@foglio/core';
import { listOfWords, maybeCount, maybeWords, moment, record, words, type Described } from './record';

/** What the API tells of printers. */

/** One that a printer shows, as a person may compare it. */
export const certificate = record('Certificate', {
  fingerprint: { ...words, description: 'SHA-256.' },
  subject: { ...words, description: 'Whose it says it is.' },
  validTo: words,
});

export const nearbyPrinter = record(
  'Printer nearby',
  {
    name: words,
    uri: words,
    model: maybeWords,
    place: { ...maybeWords, description: 'Where it stands, as it says itself.' },
    printerId: { ...maybeWords, description: 'Where it is in the list already.' },
  },
  { description: 'A printer that announces itself on the net (DNS-SD).' },
);

export const printerRecord = record(
  'Printer',
  {
    id: words,
    name: words,
    uri: words,
    simulated: { type: 'boolean', description: 'Has a front panel that can be worked from here.' },
    answers: { type: 'boolean' },
    askedAt: { ...moment, description: 'When it was asked: of two answers that cross, the one asked later holds.' },
    seenAt: { ...moment, description: 'When it answered last.' },
    login: { ...maybeWords, description: 'The name under which it is asked.' },
    wants: { enum: ['login', null], description: 'What it wants before it says more of itself.' },
    certificate: {
      anyOf: [certificate, { type: 'null' }],
      description: 'One that it shows and nobody has said to trust.',
    },
    state: { enum: ['idle', 'processing', 'stopped'], description: 'printer-state (RFC 8011, 5.4.11).' },
    reasons: { ...listOfWords, description: 'printer-state-reasons (RFC 8011, 5.4.12).' },
    pace: {
      type: 'number',
      description: 'How many times as long as by its profile it takes, by what it printed last.',
    },
    heldBack: { type: 'boolean', description: 'Nothing more is sent to it until a person says so.' },
    queued: { ...maybeCount, description: 'Jobs that it has and has not ended; null where it does not say.' },
    supplies: {
      type: 'array',
      items: record('Supply', {
        name: words,
        colour: { ...maybeWords, description: '#rrggbb' },
        percent: { ...maybeCount, description: 'Of what it held when it was new; null where it is not measured.' },
      }),
      description: 'What it prints with, and how much is left.',
    },
    faults: { ...listOfWords, description: 'What keeps it from printing and what to do about it, in sentences.' },
    profile: printerSchema,
    reportedSizes: {
      type: 'object',
      additionalProperties: words,
      description: 'What the printer reports of the trays in which a person said that another size lies, by tray.',
    },
  },
  { description: 'As it is now where it answers, otherwise as it was last seen.' },
);

export type NearbyPrinter = Described<typeof nearbyPrinter>;
export type PrinterRecord = Described<typeof printerRecord>;
