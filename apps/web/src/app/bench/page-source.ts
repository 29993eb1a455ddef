import { addressOf, OPERATIONS, type JobDocument } from '@foglio/api';
import { ANY_FILE, type PageFacts } from '@foglio/core';
import type { PageSource } from '../pages/side-view';
import type { BenchState } from '../state/bench.state';
import { rulesOf } from './rules-of';

const NOTHING: PageSource = () => ({ url: '', turn: 0, grey: false, size: null });
let last: (Pick<BenchState, 'ticket' | 'documents' | 'printer'> & { readonly source: PageSource }) | null = null;

/** Where each page of the plan comes from. Made anew only with the ticket, since every side on the screen asks for it. */
export function pageSourceOf({
  ticket,
  documents,
  printer,
  trouble,
}: Pick<BenchState, 'ticket' | 'documents' | 'printer' | 'trouble'>): PageSource {
  // What is shown meanwhile is the plan of before. Documents whose facts have come in are still the same files.
  const before = (): PageSource => (last && areSame(last.documents, documents) ? last.source : NOTHING);
  if (!ticket || trouble) return before();
  if (last?.ticket === ticket && last.documents === documents && last.printer === printer) return last.source;
  const rules = rulesOf(ticket, documents);
  if (!rules) return before();
  const { rotationOf, settingsOf } = rules;
  // A printer without colour prints all in grey.
  const hasColour = printer?.profile.color ?? true;
  const source: PageSource = (document, page) => {
    const file = documents[document - 1];
    // A plan of before a document was taken out is shown until the next one is there.
    if (!file || file.id === ANY_FILE) return NOTHING(document, page);
    const grey = !hasColour || settingsOf(document, page).color === 'monochrome';
    const turn = rotationOf(document, page);
    const size = sizeAsRead(file.pages[page - 1], turn);
    return { url: contentAddress(file), turn, grey, size };
  };
  last = { ticket, documents, printer, source };
  return source;
}

function sizeAsRead(page: PageFacts | undefined, turn: number): ReturnType<PageSource>['size'] {
  if (!page) return null;
  const { width, height } = page;
  return turn % 180 === 0 ? { width, height } : { width: height, height: width };
}

const areSame = (some: BenchState['documents'], others: BenchState['documents']): boolean =>
  some.length === others.length && some.every(({ id }, index) => id === others[index]?.id);

/** Where the pages of a file are. What began with its first pages is other content once all is there. */
export function contentAddress({ id, sha256, laid }: Pick<JobDocument, 'id' | 'sha256' | 'laid'>): string {
  const address = addressOf(OPERATIONS.fileContent, { id });
  return laid ? `${address}?of=${sha256}` : address;
}
