import { countWithoutAppearance } from './annotations';
import { drawFormFields } from './form-fields';
import type { OpenPdf } from './open';
import { pageContent } from './page-content';
import type { PageNode } from './page-tree';

/** Longer lists say nothing to anybody. */
const MOST_NAMED = 5;

/** What a viewer might show of a file but paper will not, in sentences. Draws the file's fields as printing does. */
export async function remarksOnUnprinted(pdf: OpenPdf, nodes: readonly PageNode[]): Promise<string[]> {
  const fields = await drawFormFields(pdf);
  const marked = nodes.flatMap((node, index) => (countWithoutAppearance(node, pdf.context) > 0 ? [index + 1] : []));
  const incomplete = nodes.flatMap((node, index) => (pageContent(node, pdf.context).isIncomplete ? [index + 1] : []));
  const remarks: string[] = [];
  if (incomplete.length > 0) {
    remarks.push(`Some of what ${pagesNamed(incomplete)} should show is not in the file; the rest is printed.`);
  }
  if (fields.length > 0) {
    const one = fields.length === 1;
    remarks.push(
      `The form field${one ? '' : 's'} ${named(fields.map((field) => `“${field}”`))} cannot be drawn and print${one ? 's' : ''} blank.`,
    );
  }
  if (marked.length > 0) {
    remarks.push(`Notes or marks on ${pagesNamed(marked)} do not say how they look and are not printed.`);
  }
  return remarks;
}

const pagesNamed = (pages: readonly number[]): string =>
  `page${pages.length === 1 ? '' : 's'} ${named(pages.map(String))}`;

function named(names: readonly string[]): string {
  if (names.length > MOST_NAMED)
    return `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
