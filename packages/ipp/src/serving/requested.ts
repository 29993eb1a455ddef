import { allStrings, type Attributes } from '../message';

/** Told only where it is asked for by its name: it may be long (PWG 5100.7, media-col-database). */
const BY_NAME_ALONE = ['media-col-database'];

/** Endings of the job template attributes that a printer tells (RFC 8011, section 5.2). */
const OF_TEMPLATE = /-(default|supported|ready|database)$/;

/** Attributes that end so and tell of the printer itself (RFC 8011, section 5.4). */
const OF_ITSELF =
  /^(charset|natural-language|generated-natural-language|ipp-versions|ipp-features|operations|document-format|compression|uri-(security|authentication)|printer-uri|multiple-document-jobs|pdl-override|color|reference-uri-schemes|which-jobs|identify-actions|job-ids|job-creation-attributes|printer-get-attributes|preferred-attributes|pwg-raster-document-\w+(-\w+)*)-/;

/**
 * The attributes that `requested-attributes` names, one by one or as a group (RFC 8011, 4.2.5.1 and 4.3.4.1); all where it
 * names none.
 */
export function requested(all: Attributes, operation: Attributes, what: 'printer' | 'job'): Attributes {
  const wanted = allStrings(operation, 'requested-attributes');
  const everything = wanted.length === 0 || wanted.includes('all');
  const isWanted = (name: string): boolean => {
    if (wanted.includes(name)) return true;
    if (BY_NAME_ALONE.includes(name)) return false;
    if (everything) return true;
    if (what === 'job') return wanted.includes('job-description');
    const isTemplate = OF_TEMPLATE.test(name) && !OF_ITSELF.test(name);
    return wanted.includes(isTemplate ? 'job-template' : 'printer-description');
  };
  return Object.fromEntries(Object.entries(all).filter(([name]) => isWanted(name)));
}
