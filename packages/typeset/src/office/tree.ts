import { damagedDocument } from '@foglio/pdf';
import { SaxesParser, type SaxesTagNS } from 'saxes';

/** An element of a part of an office document; its name and those of its attributes with the prefixes of {@link PREFIXES}. */
export interface XmlNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (XmlNode | string)[];
}

/**
 * Prefixes under which the namespaces of text documents are known here, whatever a file calls them: the transitional ones and
 * the strict ones alike (ISO/IEC 29500-1 and -4, A.1).
 */
const PREFIXES: Readonly<Record<string, string>> = {
  'http://schemas.openxmlformats.org/wordprocessingml/2006/main': 'w',
  'http://purl.oclc.org/ooxml/wordprocessingml/main': 'w',
  'http://schemas.openxmlformats.org/officeDocument/2006/relationships': 'r',
  'http://purl.oclc.org/ooxml/officeDocument/relationships': 'r',
  'http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing': 'wp',
  'http://purl.oclc.org/ooxml/drawingml/wordprocessingDrawing': 'wp',
  'http://schemas.openxmlformats.org/drawingml/2006/main': 'a',
  'http://purl.oclc.org/ooxml/drawingml/main': 'a',
  'http://schemas.openxmlformats.org/drawingml/2006/picture': 'pic',
  'http://purl.oclc.org/ooxml/drawingml/picture': 'pic',
  'http://schemas.openxmlformats.org/officeDocument/2006/math': 'm',
  'http://purl.oclc.org/ooxml/officeDocument/math': 'm',
  'http://schemas.openxmlformats.org/drawingml/2006/chart': 'c',
  'http://purl.oclc.org/ooxml/drawingml/chart': 'c',
  'http://schemas.openxmlformats.org/drawingml/2006/diagram': 'dgm',
  'http://purl.oclc.org/ooxml/drawingml/diagram': 'dgm',
  'http://schemas.openxmlformats.org/markup-compatibility/2006': 'mc',
  'http://schemas.microsoft.com/office/word/2010/wordprocessingShape': 'wps',
  'http://schemas.microsoft.com/office/word/2010/wordprocessingGroup': 'wpg',
  'urn:schemas-microsoft-com:vml': 'v',
  'urn:schemas-microsoft-com:office:office': 'o',
  'http://schemas.openxmlformats.org/package/2006/relationships': '',
  'http://www.w3.org/XML/1998/namespace': 'xml',
};

/** More than a text document of a thousand pages has in a part, in bytes; as a tree it takes ten times that. */
export const MOST_OF_TREE = 40 * 1024 * 1024;

/** Deeper than any table within tables of a person's; whoever reads a tree goes down in it step by step. */
const DEEPEST = 400;

interface Growing {
  readonly name: string;
  readonly attributes: Record<string, string>;
  readonly children: (Growing | string)[];
}

const nameOf = (prefix: string, local: string): string => (prefix === '' ? local : `${prefix}:${local}`);

/**
 * Reads a part of an office document whole. Elements of namespaces that nobody here knows are left out with all that is in
 * them, as their makers mean it (ISO/IEC 29500-3, 7.3). Entities of a document's own are not known, so that none can grow.
 *
 * @param what for whoever is told that it cannot be read
 * @throws PdfError where it is no XML
 */
export function readTree(bytes: Uint8Array, what: string): XmlNode {
  const parser = new SaxesParser({ xmlns: true });
  const root: Growing = { name: '', attributes: {}, children: [] };
  const open: Growing[] = [root];
  let unknown = 0;
  parser.on('opentag', ({ uri, local, attributes }: SaxesTagNS) => {
    const prefix = PREFIXES[uri];
    if (unknown > 0 || (prefix === undefined && open.length > 1)) {
      unknown += 1;
      return;
    }
    if (open.length > DEEPEST) throw new Error('its parts stand in one another too deep');
    const node: Growing = { name: nameOf(prefix ?? '', local), attributes: {}, children: [] };
    for (const { uri: of, local: name, prefix: asked, value } of Object.values(attributes)) {
      const known = of === '' ? '' : PREFIXES[of];
      if (known !== undefined && asked !== 'xmlns' && name !== 'xmlns') node.attributes[nameOf(known, name)] = value;
    }
    open.at(-1)!.children.push(node);
    open.push(node);
  });
  parser.on('closetag', () => {
    if (unknown > 0) unknown -= 1;
    else open.pop();
  });
  const addText = (text: string): void => {
    if (unknown === 0) open.at(-1)!.children.push(text);
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  try {
    parser.write(new TextDecoder().decode(bytes)).close();
  } catch (error) {
    throw damagedDocument(`${what} cannot be read (${(error as Error).message.split('\n')[0]})`);
  }
  const [node] = root.children.filter((child) => typeof child !== 'string');
  if (!node) throw damagedDocument(`${what} is empty`);
  return node;
}

const ESCAPED: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

const escape = (text: string): string => text.replace(/[&<>"]/g, (letter) => ESCAPED[letter]!);

/** Of each prefix the namespace that a reader of the transitional form knows. */
const DECLARED = Object.entries(
  Object.fromEntries(
    Object.entries(PREFIXES)
      .filter(([uri, prefix]) => prefix !== '' && prefix !== 'xml' && !uri.includes('purl.oclc.org'))
      .map(([uri, prefix]) => [prefix, uri]),
  ),
)
  .map(([prefix, uri]) => ` xmlns:${prefix}="${uri}"`)
  .join('');

/** An element as XML, with the namespaces declared on it. */
export function writeTree(root: XmlNode, own = DECLARED): string {
  const parts = ['<?xml version="1.0" encoding="UTF-8" standalone="yes"?>'];
  write(root, own, parts);
  return parts.join('');
}

function write({ name, attributes, children }: XmlNode, declared: string, parts: string[]): void {
  const said = Object.entries(attributes).map(([key, value]) => ` ${key}="${escape(value)}"`);
  parts.push(`<${name}${declared}${said.join('')}`);
  if (children.length === 0) {
    parts.push('/>');
    return;
  }
  parts.push('>');
  for (const child of children) {
    if (typeof child === 'string') parts.push(escape(child));
    else write(child, '', parts);
  }
  parts.push(`</${name}>`);
}

/** An element of one's own. */
export const element = (
  name: string,
  attributes: Readonly<Record<string, string>> = {},
  children: readonly (XmlNode | string)[] = [],
): XmlNode => ({ name, attributes, children });

export const elementsOf = (node: XmlNode | undefined): XmlNode[] =>
  node?.children.filter((child): child is XmlNode => typeof child !== 'string') ?? [];

export const childOf = (node: XmlNode | undefined, name: string): XmlNode | undefined =>
  elementsOf(node).find((child) => child.name === name);

export const childrenOf = (node: XmlNode | undefined, name: string): XmlNode[] =>
  elementsOf(node).filter((child) => child.name === name);

/** The first element of a name anywhere in another, which may be it. */
export function findIn(node: XmlNode | undefined, name: string): XmlNode | undefined {
  if (!node || node.name === name) return node;
  for (const child of elementsOf(node)) {
    const found = findIn(child, name);
    if (found) return found;
  }
  return undefined;
}

/** `w:val` of a child of that name. */
export const valueOf = (node: XmlNode | undefined, name: string): string | undefined =>
  childOf(node, name)?.attributes['w:val'];

/** Whether a property of "on" and "off" (ISO/IEC 29500-1, 22.9.2.7) says on. */
export const isSaid = ({ attributes }: XmlNode): boolean => !['0', 'false', 'off'].includes(attributes['w:val'] ?? '1');

/** The same of a child; undefined where there is none. */
export function isOn(node: XmlNode | undefined, name: string): boolean | undefined {
  const found = childOf(node, name);
  return found && isSaid(found);
}

/** The text in an element, whatever is around it. */
export const lettersIn = (node: XmlNode | string): string =>
  typeof node === 'string' ? node : node.children.map(lettersIn).join('');
