/** A tray's id: a media-source keyword of the printer (PWG 5100.3). */
export const trayId = { type: 'string', minLength: 1, maxLength: 255, pattern: '^[a-z0-9][a-z0-9._-]*$' } as const;

export const trayOrNone = { anyOf: [trayId, { type: 'null' }] } as const;
