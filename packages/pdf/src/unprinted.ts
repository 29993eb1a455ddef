import { countWithoutAppearance } from './annotations';
import { drawFormFields } from './form-fields';
import type { OpenPdf } from './open';
import type { PageNode } from './page-tree';

/** Longer lists say nothing to anybody. */
const MOST_NAMED = 5;

/** What a viewer might show of a file but paper will not, in sentences. Draws the file's fields as printing does. */
export async function remarksOnUnprinted(pdf: OpenPdf, nodes: readonly PageNode[]): Promise<string[]> {
  const fields = await drawFormFields(pdf);
  const marked = nodes.flatMap((node, index) => (countWithoutAppearance(node, pdf.context) > 0 ? [index + 1] : []));
  const remarks: string[] = [];
  if (fields.length > 0) {
    const one = fields.length === 1;
    remarks.push(
      `The form field${one ? '' : 's'} ${named(fields.map((field) => `“${field}”`))} cannot be drawn and print${one ? 's' : ''} blank.`,
    );
  }
  if (marked.length > 0) {
    const pages = `page${marked.length === 1 ? '' : 's'} ${named(marked.map(String))}`;
    remarks.push(`Notes or marks on ${pages} do not say how they look and are not printed.`);
  }
  return remarks;
}

function named(names: readonly string[]): string {
  if (names.length > MOST_NAMED)
    return `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
