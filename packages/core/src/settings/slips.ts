import { trayOrNone } from './tray-id';

export const slips = {
  schema: {
    type: 'object',
    additionalProperties: false,
    default: {},
    description: 'Blank sheets between parts of the job',
    properties: {
      between: { enum: ['nothing', 'sets', 'documents'], default: 'nothing', description: 'Between which parts' },
      tray: { ...trayOrNone, default: null, description: 'Null: whichever holds the paper of the sheet before' },
    },
  },
  carriers: ['ticket'],
} as const;
