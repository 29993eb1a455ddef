import { DONE } from '../exit-status';
import { loadDocument } from '../document-file';
import { openingOf, type OpeningOptions } from '../opening';
import { describePages, pagesTable } from '../tables';
import { say, sayJson } from '../terminal';

export interface PagesOptions extends OpeningOptions {
  readonly json?: boolean;
}

/** `pages FILE...`: page facts as a table, or as JSON. */
export async function pages(files: readonly string[], options: PagesOptions): Promise<number> {
  const opening = openingOf(options);
  const described = [];
  for (const file of files) described.push(describePages(file, await loadDocument(file, opening)));
  if (options.json) sayJson(described);
  else say(described.map(pagesTable).join('\n\n'));
  return DONE;
}
