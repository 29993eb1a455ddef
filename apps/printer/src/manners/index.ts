import { abilities } from './abilities';
import { answers } from './answers';
import { jobs } from './jobs';
import type { Manner } from './manner';
import { trays } from './trays';

export { strangely } from './strangely';
export type { Manner } from './manner';

/** By name, as `--manner` takes them. */
export const MANNERS: Readonly<Record<string, Manner>> = { ...trays, ...abilities, ...jobs, ...answers };
