import { element, elementsOf, findIn, isOn, lettersIn, type XmlNode } from '../office/tree';
import { mark, type PageField } from './marks';
import type { Story } from './reading';

/** Fields that only whoever makes pages knows (ISO/IEC 29500-1, 17.16.5), and what they show. */
const SHOWS: Readonly<Record<string, PageField['shows']>> = {
  PAGE: 'page',
  PAGEREF: 'page',
  NUMPAGES: 'pages',
  SECTIONPAGES: 'section-pages',
};

/** Forms that a field asks for (17.16.4.3.1). */
const FORMS: Readonly<Record<string, string>> = {
  roman: 'lowerRoman',
  ROMAN: 'upperRoman',
  alphabetic: 'lowerLetter',
  ALPHABETIC: 'upperLetter',
  Arabic: 'decimal',
  ArabicDash: 'numberInDash',
};

/** Forms in which a page's number may be asked for, whatever its section's is. */
export const FIELD_FORMS: readonly string[] = Object.values(FORMS);

function pageField(instruction: string): PageField | null {
  const [name = '', place] = instruction.trim().split(/\s+/);
  const shows = SHOWS[name.toUpperCase()];
  if (!shows || (name.toUpperCase() === 'PAGEREF' && !place)) return null;
  const form = FORMS[/\\\*\s*(\w+)/.exec(instruction.replace(/\\\*\s*MERGEFORMAT/i, ''))?.[1] ?? ''];
  return {
    shows,
    ...(name.toUpperCase() === 'PAGEREF' ? { of: place! } : {}),
    ...(form ? { form } : {}),
  };
}

/** Names of places of which the pages are asked, wherever they are asked for. */
export const placesAskedFor = (root: XmlNode): ReadonlySet<string> =>
  new Set([...instructionsIn(root).matchAll(/PAGEREF\s+(\S+)/gi)].map(([, name]) => name!));

/** All that fields are told, one parted from the other. */
function instructionsIn(node: XmlNode): string {
  if (node.name === 'w:instrText') return lettersIn(node);
  const own =
    node.name === 'w:fldSimple' ? ` ${node.attributes['w:instr'] ?? ''} ` : node.name === 'w:fldChar' ? ' ' : '';
  return own + elementsOf(node).map(instructionsIn).join('');
}

/** Whether what is read now is not shown: what a field is told, or showed last and shows no more. */
export const isUnseen = ({ fields }: Story): boolean => fields.some(({ isResult, isLive }) => !isResult || isLive);

/** A field in one element, which shows what it showed last unless only the pages tell it. */
export function simpleField(instruction: string, last: XmlNode[]): XmlNode[] {
  const field = pageField(instruction);
  return field ? shown(field, last[0]) : last;
}

const shown = (field: PageField, like: XmlNode | undefined): XmlNode[] => [
  mark({ field }),
  element('w:r', {}, [
    ...(like?.children.filter((child) => typeof child !== 'string' && child.name === 'w:rPr') ?? []),
    element('w:t', {}, ['0']),
  ]),
];

/** Whether the box of a form is ticked, or is unless somebody changes it (ISO/IEC 29500-1, 17.16.7). */
function isTicked(node: XmlNode): boolean {
  const box = findIn(node, 'w:checkBox');
  return isOn(box, 'w:checked') ?? isOn(box, 'w:default') ?? false;
}

/** What a character of a field does. @param properties of its run @returns what is shown in its place */
export function fieldCharacter(node: XmlNode, properties: XmlNode | undefined, { fields }: Story): XmlNode[] {
  const like = element('w:r', {}, properties ? [properties] : []);
  const current = fields.at(-1);
  switch (node.attributes['w:fldCharType']) {
    case 'begin':
      fields.push({ instruction: '', isResult: false, isLive: false, isTicked: isTicked(node) });
      return [];
    case 'separate': {
      if (!current) return [];
      const field = pageField(current.instruction);
      const isSeen = fields.slice(0, -1).every((one) => one.isResult && !one.isLive);
      current.isResult = true;
      current.isLive = field !== null;
      return field && isSeen ? shown(field, like) : [];
    }
    case 'end': {
      const ended = fields.pop();
      const isSeen = fields.every((one) => one.isResult && !one.isLive);
      // A box to be ticked shows nothing but itself.
      if (isSeen && /^\s*FORMCHECKBOX\b/i.test(ended?.instruction ?? '')) {
        const box = element('w:t', {}, [ended!.isTicked ? '☒' : '☐']);
        return [{ ...like, children: [...like.children, box] }];
      }
      const field = ended && !ended.isResult ? pageField(ended.instruction) : null;
      return field && isSeen ? shown(field, like) : [];
    }
    default:
      return [];
  }
}
