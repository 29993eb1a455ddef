import type { FromSchema } from 'json-schema-to-ts';
import type { Portion } from './marks';
import type { Ticket } from '../ticket/ticket';
import type { planSchema } from './plan.schema';

/** The exact list of sheets that a ticket comes to on a given printer. */
export type Plan = Omit<FromSchema<typeof planSchema>, 'checks'> & { checks: Check[] };

export type Sheet = Plan['sheets'][number];
export type Side = Sheet['front'];
export type Cell = Side['cells'][number];
export type Mark = NonNullable<Side['marks']>[number];
type CheckData = FromSchema<typeof planSchema>['checks'][number];
export type Text = NonNullable<Side['texts']>[number];
export type PageName = CheckData['pages'][number];

/** A change of the ticket that settles a check: what to say on its button, and the ticket's fields with new values. */
export interface Repair {
  readonly label: string;
  readonly patch: Partial<Ticket>;
}

export type Check = Omit<CheckData, 'repair'> & { repair?: Repair };

export interface PlanOptions {
  /** Sheets above which the check large-run speaks (model, Checks; 200 unless set). */
  readonly largeRun?: number;
  /** When it is printed, "2026-09-01T14:05" (ISO 8601), for what tells it. */
  readonly now?: string;
  /** The ticket in words, for the information sheet. */
  readonly sentence?: string;
  /** What of it is printed, where that is not all of it. */
  readonly portion?: Portion;
}

/** A plan before its checks are run. */
export type GatheredPlan = Omit<Plan, 'checks'>;
