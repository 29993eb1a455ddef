import type { DocumentFacts } from '../pages/facts';
import type { Printer, Tray } from '../paper/printer';
import type { Ticket } from '../ticket/ticket';
import { route } from './route';
import { divideIntoRuns } from './run';
import { select } from './select';

const NO_TRAYS: Printer = {
  name: 'any printer',
  duplex: true,
  color: true,
  margin: 0,
  maxDuplexWeight: null,
  delivers: 'face-down',
  printsOn: 'lower',
  trays: [],
  prices: { mono: 0, color: 0 },
  sidesPerMinute: null,
  twoSidedFactor: 1,
  refeedTray: null,
  jobs: { overrides: ['media-col', 'sides'], documents: false },
};

/**
 * The printer a ticket is planned against where none is given (model, Command line): every tray the ticket names,
 * holding what is first asked of it, and one tray of each other size the job needs; duplex, no margin.
 */
export function profileForTicket(ticket: Ticket, documents: readonly DocumentFacts[]): Printer {
  const runs = divideIntoRuns(route(select(ticket, documents), ticket, documents), ticket, documents, NO_TRAYS);
  const trays: Tray[] = [];
  const add = (id: string, size: string, type: string | null): void => {
    trays.push({ id, name: null, size, type, weight: null, capacity: null, loaded: null, price: 0 });
  };
  for (const { tray, paper, settings } of runs) {
    if (tray !== null && !trays.some((one) => one.id === tray)) add(tray, paper.name, settings.paper.type);
  }
  for (const { tray, paper, settings } of runs) {
    const type = settings.paper.type;
    const held = trays.some((one) => one.size === paper.name && (type === null || one.type === type));
    if (tray === null && !held) add(freeTrayId(trays), paper.name, type);
  }
  return { ...NO_TRAYS, trays };
}

function freeTrayId(trays: readonly Tray[]): string {
  let number = 1;
  while (trays.some((tray) => tray.id === `tray-${number}`)) number += 1;
  return `tray-${number}`;
}
