import { collection, collections, integer, keyword, octets, type Attributes, type Value } from '@foglio/ipp';
import type { Manner } from './manner';
import { telling, unnamed, without } from './telling';

const EDGES = ['media-top-margin', 'media-bottom-margin', 'media-left-margin', 'media-right-margin'];

const withMargin = (media: Attributes, hundredths: number): Value =>
  collection({ ...media, ...Object.fromEntries(EDGES.map((edge) => [edge, [integer(hundredths)]])) });

/** Of their trays. */
export const trays = {
  'trays-twice': {
    is: 'lists each tray twice, with margins and to the edge of the paper',
    served: (printer) =>
      telling(printer, (told) => ({
        ...told,
        'media-col-ready': collections(told, 'media-col-ready').flatMap((media) => [
          collection(media),
          withMargin(media, 0),
        ]),
      })),
  },
  'own-margins': {
    is: 'keeps other margins free on each of its papers',
    served: (printer) =>
      telling(printer, (told) => ({
        ...told,
        'media-col-ready': collections(told, 'media-col-ready').map((media, at) => withMargin(media, 300 + at * 200)),
      })),
  },
  'trays-unnamed': {
    is: 'does not say from which tray a paper comes, but lists papers and trays in one order',
    served: (printer) =>
      telling(printer, (told) => ({
        ...told,
        'media-col-ready': collections(told, 'media-col-ready').map((media) =>
          collection(without(media, (name) => name === 'media-source')),
        ),
        'printer-input-tray': (told['printer-input-tray'] ?? []).map((tray) =>
          tray.tag === 'octetString' ? octets(new TextDecoder().decode(tray.value).replace(/source=[^;]*;/, '')) : tray,
        ),
      })),
  },
  'by-size': {
    is: 'cannot be told of trays, only of one size for a job, and goes by that',
    served: (printer) => ({
      ...telling(printer, (told) => ({
        ...without(told, (name) => ['media-col-supported', 'overrides-supported'].includes(name)),
        'job-creation-attributes-supported': [
          ...unnamed(told['job-creation-attributes-supported'], ['media-col', 'overrides']),
          keyword('media'),
        ],
      })),
      knows: (name) => name === 'media' || (!['media-col', 'overrides'].includes(name) && printer.knows(name)),
    }),
  },
} satisfies Readonly<Record<string, Manner>>;
