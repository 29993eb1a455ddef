import { setFlagsFromString } from 'node:v8';

/**
 * From here on the engine collects garbage before it is a seventh of what is alive, and not once it is as much: a hundred thousand rows
 * take a tenth more time and a third less memory. For what is the last that its process does, and takes long.
 */
export const collectOften = (): void => setFlagsFromString('--heap-growing-percent=15');
