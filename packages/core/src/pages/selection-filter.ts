import { orientationOf } from '../paper/orientation';
import { findSize, isSize, KNOWN_SIZES } from '../paper/sizes';
import type { DocumentFacts, PageFacts } from './facts';
import { SelectionError } from './selection-error';
import type { Filter } from './selection-parse';

/**
 * The question a filter asks of a page (model, Choosing pages): "odd" and "even" look at its place in the document, the
 * others at the page as read, after its own Rotate entry and the document's `rotate`.
 *
 * @throws SelectionError where a size has no such name, or what is asked is not known of the document
 */
export function filterTest(filter: Filter, facts: DocumentFacts, rotate: number): (page: number) => boolean {
  const factsOf = (page: number): PageFacts => facts.pages[page - 1] as PageFacts;
  switch (filter.kind) {
    case 'odd':
      return (page) => page % 2 === 1;
    case 'even':
      return (page) => page % 2 === 0;
    case 'portrait':
    case 'landscape': {
      const sideways = rotate % 180 !== 0;
      return (page) => {
        const { width, height } = factsOf(page);
        return orientationOf(sideways ? height : width, sideways ? width : height) === filter.kind;
      };
    }
    case 'size': {
      const size = findSize(filter.name);
      if (!size) throw unknownSize(filter);
      return (page) => isSize(size, factsOf(page).width, factsOf(page).height);
    }
    case 'color':
    case 'blank': {
      const fact = filter.kind;
      return (page) => {
        const value = factsOf(page)[fact];
        if (value !== undefined) return value;
        const what = fact === 'color' ? 'holds colour' : 'is blank';
        const message = `whether page ${page} of ${facts.name} ${what} is not known yet`;
        throw new SelectionError(message, filter.at, filter.length, 'another filter until it has been read', null);
      };
    }
  }
}

function unknownSize({ name, at, length }: Filter): SelectionError {
  const shorts = KNOWN_SIZES.map((size) => size.name.split('_')[1] as string);
  const near = shorts.find((short) => short.startsWith(name) || name.startsWith(short)) ?? null;
  return new SelectionError(`no paper size is called "${name}"`, at, length, 'a size, as in size a4', near);
}
