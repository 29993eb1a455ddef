/** Colours of the trays in the printer's order, after which they come again; the number tells them apart for certain. */
const COLOURS = 6;

/** @param place the tray's place in the printer's order, from 0; -1: the printer has no such tray */
export const trayColour = (place: number): string => (place < 0 ? '#8b8471' : `var(--tray-${(place % COLOURS) + 1})`);

/** What is written on a tray's tab: the number key that routes to it. */
export const trayMark = (place: number): string => (place < 0 ? '?' : String(place + 1));

/** Ink for a tray's mark: dark on the light colours, so that the number keeps a contrast of 4.5 to 1. */
export const trayInk = (place: number): string => (place < 0 || place % COLOURS === 0 ? '#fff' : '#12191e');
