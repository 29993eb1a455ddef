import type { Check } from '../plan/plan';
import { blankBack } from './blank-back';
import type { CheckContext, CheckRule } from './context';
import { largeRun } from './large-run';
import { noTrayForPaper } from './no-tray-for-paper';
import { trayShort } from './tray-short';
import { trayUnknown } from './tray-unknown';
import { trayWrongPaper } from './tray-wrong-paper';

/** In the order of the table in the model: what stops a job first. */
const RULES: readonly CheckRule[] = [trayUnknown, trayWrongPaper, noTrayForPaper, trayShort, blankBack, largeRun];

/** Everything the plan shows that a person should settle or know before paper moves. */
export const runChecks = (context: CheckContext): Check[] => RULES.flatMap((rule) => rule(context));
