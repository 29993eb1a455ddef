import type { DocumentFacts } from '../pages/facts';
import type { Printer, Tray } from '../printer/printer';
import { printerSchema } from '../printer/printer.schema';
import { KNOWN } from '../settings';
import { filledIn } from '../settings/defaults';
import type { Ticket } from '../ticket/ticket';
import type { Sheet } from '../plan/plan';
import { draft } from '../planning/draft';
import { outsideSets } from '../sending/printing-order';

const NO_TRAYS = filledIn(printerSchema, {
  name: 'any printer',
  trays: [],
  jobs: { overrides: ['media-col', 'sides'] },
}) as Printer;

/**
 * The printer a ticket is planned against where none is given (model, Command line): every tray the ticket names,
 * holding what is first asked of it, and one tray of each other size the job needs; duplex, no margin.
 *
 * @throws TicketError as planning does
 */
export function profileForTicket(ticket: Ticket, documents: readonly DocumentFacts[]): Printer {
  const { plan, runs } = draft(ticket, documents, NO_TRAYS);
  const trays: Tray[] = [];
  const add = (id: string, size: string, type: string | null): void => {
    trays.push(filledIn(printerSchema.properties.trays.items, { id, size, type }) as Tray);
  };
  const typeOf = ({ run, slip }: Sheet): string | null => (slip ? null : (runs[run - 1]?.settings.paper.type ?? null));
  const named = (id: string): boolean => trays.some((tray) => tray.id === id);
  for (const sheet of plan.sheets) {
    if (sheet.tray !== null && !named(sheet.tray)) add(sheet.tray, sheet.paper.size, typeOf(sheet));
  }
  const addFree = (size: string, type: string | null): void => {
    const held = trays.some((tray) => tray.size === size && (type === null || tray.type === type));
    if (!held) add(freeTrayId(trays), size, type);
  };
  const outside = outsideSets(plan);
  for (const { tray, paper } of outside) if (tray !== null && !named(tray)) add(tray, paper.size, null);
  for (const sheet of plan.sheets) if (sheet.tray === null) addFree(sheet.paper.size, typeOf(sheet));
  for (const { tray, paper } of outside) if (tray === null) addFree(paper.size, null);
  return { ...NO_TRAYS, ...neededBy(ticket), trays };
}

/** What else a printer must have for what ticket and routes ask. */
function neededBy(ticket: Ticket): Partial<Printer> {
  const fields = KNOWN.flatMap(({ name, field, needed }) => {
    const asked = [ticket, ...ticket.routes].flatMap((one) => (one as Readonly<Record<string, unknown>>)[name] ?? []);
    return needed ? [[field, needed(asked as never[])]] : [];
  });
  return Object.fromEntries(fields) as Partial<Printer>;
}

function freeTrayId(trays: readonly Tray[]): string {
  let number = 1;
  while (trays.some((tray) => tray.id === `tray-${number}`)) number += 1;
  return `tray-${number}`;
}
