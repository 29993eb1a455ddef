import { trayId } from './tray-id';

export const tray = {
  schema: { ...trayId, default: 'auto', description: 'The tray’s id; auto: whichever holds the paper' },
  carriers: ['ticket', 'route'],
} as const;
