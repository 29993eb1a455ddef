import { inject, Injectable } from '@angular/core';
import type { SetupRecord } from '@foglio/api';
import type { Plan, Printer, Ticket } from '@foglio/core';
import { firstValueFrom } from 'rxjs';
import { Planner } from '../workers/planner';
import { sampleDocuments } from './sample-document';

/** Plans set-ups over the sample document, to draw them. */
@Injectable({ providedIn: 'root' })
export class SetupPlans {
  private readonly planner = inject(Planner);

  /** Of each set-up, by its id; null where it cannot be planned so. */
  async ofAll(
    setups: readonly SetupRecord[],
    printerOf: (setup: SetupRecord) => Printer,
  ): Promise<Map<string, Plan | null>> {
    const plans = new Map<string, Plan | null>();
    for (const setup of setups) plans.set(setup.id, await this.of(setup.ticket, printerOf(setup)));
    return plans;
  }

  async of(ticket: Ticket, printer: Printer): Promise<Plan | null> {
    const answer = await firstValueFrom(
      this.planner.ask<'plan'>({ kind: 'plan' }, ticket, sampleDocuments(ticket), printer),
    );
    return answer.plan;
  }
}
