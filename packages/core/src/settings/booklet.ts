import { trayOrNone } from './tray-id';

/** Sheets folded in the middle, two pages a side. */
export const booklet = {
  sheetsPerSignature: {
    type: 'integer',
    minimum: 0,
    maximum: 1000,
    default: 0,
    description: 'Sheets folded together; 0: all of them',
  },
  creep: {
    type: 'number',
    minimum: 0,
    maximum: 5,
    default: 0,
    description: 'How far pages move towards the fold with each sheet further in, in millimetres',
  },
  cover: { ...trayOrNone, default: null, description: 'The tray of the outermost sheet; null: as the rest' },
  marks: { enum: ['none', 'fold'], default: 'none', description: 'Marks to fold by' },
} as const;
