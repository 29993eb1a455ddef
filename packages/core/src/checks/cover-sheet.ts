import type { Sheet } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';
import type { CheckContext } from './context';
import { mapRoutes } from './repair';

/** Whether a sheet's tray is that of a booklet's cover, and not of its run. */
export function isCoverSheet({ runs }: CheckContext, sheet: Sheet): boolean {
  const run = runs[sheet.run - 1];
  const layout = run?.settings.layout;
  return sheet.signature === 1 && layout?.kind === 'booklet' && layout.cover !== null && sheet.tray !== run?.tray;
}

/** The change that gives the covers among these sheets another tray; nothing where none is a cover. */
export function coverTrayChange(
  context: CheckContext,
  sheets: readonly Sheet[],
  tray: string | null,
): Pick<Partial<Ticket>, 'layout' | 'routes'> {
  const { ticket } = context;
  if (!sheets.some((sheet) => isCoverSheet(context, sheet))) return {};
  const { layout } = ticket;
  const routes = mapRoutes(ticket, ({ layout: own }) =>
    own?.kind === 'booklet' && own.cover ? { layout: { ...own, cover: tray } } : {},
  );
  return { layout: layout.kind === 'booklet' ? { ...layout, cover: tray } : layout, routes };
}
