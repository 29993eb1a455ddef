import { trayName, type Tray } from '../printer/printer';
import { saySize } from '../paper/sizes';
import type { PageName, Repair } from '../plan/plan';
import type { CheckContext } from './context';
import { changePages } from './repair';

/** Prints pages on what lies in a tray, shrunk where they are larger; a type that the tray does not hold is given up. */
export function scaleTo(context: CheckContext, pages: readonly PageName[], tray: Tray): Repair {
  const settings = pages.map(({ document, page }) => context.rules.settingsOf(document, page));
  const fixed = settings.some(({ scale }) => scale.mode === 'none' || scale.mode === 'percent');
  const typed = settings.some(({ paper }) => paper.type !== null && paper.type !== tray.type);
  const change = {
    paper: { size: tray.size, ...(typed ? { type: null } : {}) },
    ...(fixed ? { scale: { mode: 'auto-fit' as const } } : {}),
  };
  const label = `Fit these pages to the ${saySize(tray.size)} in ${trayName(tray)}`;
  return { label, patch: changePages(context, pages, change) };
}
