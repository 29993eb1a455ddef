import type { Printer } from '../printer/printer';
import type { Plan, Sheet, Side } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';
import type { BlankInformation } from './information-sheet';

/** All that one set feeds, and what is fed beside the sets. */
export interface Fed {
  readonly sheets: Sheet[];
  readonly slipBetweenSets: Plan['slipBetweenSets'];
  readonly information: BlankInformation | null;
}

/**
 * The fronts or the backs of all that is fed, as one-sided sheets; one that has no such face passes blank, so that the order
 * holds (model, Pages and pieces, Faces). Backs take their paper from where the stack goes in again.
 */
export function facesOf(fed: Fed, faces: Exclude<Ticket['faces'], 'both'>, { refeedTray }: Printer): Fed {
  const isBack = faces === 'backs';
  const trayOf = (tray: string | null): string | null => (isBack ? (refeedTray ?? tray) : tray);
  const alone = ({ tray }: Pick<Sheet, 'tray'>) => ({ sides: 'one-sided', back: null, tray: trayOf(tray) }) as const;
  const { slipBetweenSets: slip, information } = fed;
  return {
    sheets: fed.sheets.map((sheet) => ({ ...sheet, ...alone(sheet), front: isBack ? backOf(sheet) : sheet.front })),
    slipBetweenSets: slip && { ...slip, tray: trayOf(slip.tray) },
    information: information && {
      ...information,
      ...alone(information),
      fed: isBack ? (information.fedForBacks ?? information.fed) : information.fed,
      fedForBacks: null,
    },
  };
}

const backOf = ({ back, front }: Sheet): Side => back ?? { orientation: front.orientation, cells: [] };
