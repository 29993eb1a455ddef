import { trayOrNone } from './tray-id';

export const informationSheet = {
  schema: {
    type: 'object',
    additionalProperties: false,
    default: {},
    description: 'A sheet before the job that says what it is',
    properties: {
      print: { type: 'boolean', default: false, description: 'Whether there is one' },
      by: { type: 'string', maxLength: 120, default: '', description: 'Who prints it' },
      tray: { ...trayOrNone, default: null, description: 'Null: whichever holds the paper of the first sheet' },
    },
  },
  carriers: ['ticket'],
} as const;
