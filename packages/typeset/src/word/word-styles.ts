import { childOf, childrenOf, elementsOf, isSaid, valueOf, type XmlNode } from '../office/tree';

/** The styles of a text document (ISO/IEC 29500-1, 17.7), as far as pages and numbers depend on them. */
export interface WordStyles {
  /** The style that paragraphs have where they name none. */
  readonly ofParagraphs: string | undefined;
  /** What a paragraph's style, or one that it is based on, says of a property of paragraphs, with an attribute of it where one is asked for; undefined where none does. */
  readonly find: (id: string | undefined, property: string, attribute?: string) => XmlNode | undefined;
  /** The same of a character style and a property of runs. */
  readonly findOfRun: (id: string, property: string) => XmlNode | undefined;
  /** "heading 1": the name under which a program knows a style. */
  readonly nameOf: (id: string | undefined) => string;
}

/** Styles that lead back to themselves end there. */
const DEEPEST = 30;

export function readStyles(root: XmlNode | undefined): WordStyles {
  const styles = new Map(childrenOf(root, 'w:style').map((style) => [style.attributes['w:styleId'] ?? '', style]));
  const defaults = childOf(childOf(childOf(root, 'w:docDefaults'), 'w:pPrDefault'), 'w:pPr');
  const isDefault = ({ attributes }: XmlNode): boolean =>
    attributes['w:type'] === 'paragraph' && ['1', 'true', 'on'].includes(attributes['w:default'] ?? '');
  const ofParagraphs = [...styles].find(([, style]) => isDefault(style))?.[0];
  const search = (id: string, within: string, says: (properties: XmlNode | undefined) => XmlNode | undefined) => {
    let style = styles.get(id);
    for (let depth = 0; style && depth < DEEPEST; depth += 1) {
      const found = says(childOf(style, within));
      if (found) return found;
      style = styles.get(valueOf(style, 'w:basedOn') ?? '');
    }
    return undefined;
  };
  return {
    ofParagraphs,
    nameOf: (id) => (id === undefined ? '' : (valueOf(styles.get(id), 'w:name') ?? id)).toLowerCase(),
    findOfRun: (id, property) => search(id, 'w:rPr', (properties) => childOf(properties, property)),
    find: (id, property, attribute) => {
      const says = (properties: XmlNode | undefined): XmlNode | undefined => {
        const found = childOf(properties, property);
        return attribute === undefined || found?.attributes[attribute] !== undefined ? found : undefined;
      };
      return search(id ?? ofParagraphs ?? '', 'w:pPr', says) ?? says(defaults);
    },
  };
}

/** A paragraph's own property, else its style's. */
export const propertyOf = (styles: WordStyles, properties: XmlNode | undefined, name: string): XmlNode | undefined =>
  childOf(properties, name) ?? styles.find(valueOf(properties, 'w:pStyle'), name);

/** Whether a property of "on" and "off" holds for a paragraph. */
export function holds(styles: WordStyles, properties: XmlNode | undefined, name: string): boolean {
  const found = propertyOf(styles, properties, name);
  return found !== undefined && isSaid(found);
}

/** One attribute of a property, each of which is a style's own (ISO/IEC 29500-1, 17.7.2). */
export const attributeOf = (
  styles: WordStyles,
  properties: XmlNode | undefined,
  name: string,
  attribute: string,
): string | undefined =>
  childOf(properties, name)?.attributes[attribute] ??
  styles.find(valueOf(properties, 'w:pStyle'), name, attribute)?.attributes[attribute];

/** Styles without what the library would act on by itself: pages and numbers are settled here. */
export function withoutPaging(root: XmlNode): XmlNode {
  const settled = new Set(['w:pageBreakBefore', 'w:numPr', 'w:tabs']);
  const strip = (node: XmlNode): XmlNode => ({
    ...node,
    children: node.children.flatMap((child): (XmlNode | string)[] => {
      if (typeof child === 'string') return [child];
      if (child.name === 'w:pPr')
        return [{ ...child, children: elementsOf(child).filter(({ name }) => !settled.has(name)) }];
      return child.name === 'w:style' || child.name.startsWith('w:docDefaults') || child.name === 'w:pPrDefault'
        ? [strip(child)]
        : [child];
    }),
  });
  return strip(root);
}
