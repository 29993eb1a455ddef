import { SelectionError, selectPages, type DocumentFacts } from '@foglio/core';

/** How many are shown. */
const MOST = 3;

/** What can be written, the most telling first; what a document has no such pages for is passed over. */
const EXAMPLES = (last: number, title: string | undefined): readonly string[] => [
  'section 2',
  ...(title === undefined ? [] : [`"${title}"`]),
  last > 3 ? '2 to 4' : '1 to 2',
  '1, last',
  'all but 3',
  '3-',
  '1 x4',
];

/** A heading that is longer would hide the others. */
const SHORT_TITLE = 12;

/** Selections that a person could write for this very document, each of some of its pages; none where it has but one. */
export function examplesOf(facts: DocumentFacts): readonly string[] {
  const last = facts.pages.length;
  if (last < 2) return [];
  const title = facts.outline?.find(({ title: { length } }) => length <= SHORT_TITLE)?.title;
  return EXAMPLES(last, title)
    .filter((text) => fits(text, facts))
    .slice(0, MOST);
}

function fits(text: string, facts: DocumentFacts): boolean {
  try {
    return selectPages(text, { facts, rotate: 0, forgiving: false }).length > 0;
  } catch (error) {
    if (error instanceof SelectionError) return false;
    throw error;
  }
}
