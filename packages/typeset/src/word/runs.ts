import { childOf, childrenOf, element, elementsOf, lettersIn, valueOf, type XmlNode } from '../office/tree';
import { drawingOf, pictOf, type Drawn } from './drawings';
import { fieldCharacter, isUnseen, simpleField } from './fields';
import { mark } from './marks';
import { sayNumber, symbolOf } from './number-forms';
import type { Story } from './reading';

/** What stands in a line, as the library reads it. */
export interface Inline {
  readonly nodes: XmlNode[];
  /** Text boxes that hang on it: what stands in each. */
  readonly boxes: XmlNode[][];
}

/** Elements of lines that are only around others (ISO/IEC 29500-1, 17.5, 17.16.22, 17.3.2.3). */
const AROUND = new Set(['w:hyperlink', 'w:smartTag', 'w:customXml', 'w:sdtContent', 'w:dir', 'w:bdo', 'w:rubyBase']);

/** What stands in a line, without what is not shown, and with what the library knows nothing of marked. */
export function inlineOf(children: readonly XmlNode[], story: Story): Inline {
  const found = children.map((node) => oneInline(node, story));
  return { nodes: found.flatMap(({ nodes }) => nodes), boxes: found.flatMap(({ boxes }) => boxes) };
}

const NOTHING: Inline = { nodes: [], boxes: [] };

const only = (nodes: XmlNode[]): Inline => ({ nodes, boxes: [] });

function oneInline(node: XmlNode, story: Story): Inline {
  const { shown, leftOut, places } = story.reading;
  if (AROUND.has(node.name)) return inlineOf(elementsOf(node), story);
  switch (node.name) {
    case 'w:r':
      return runOf(node, story);
    case 'w:sdt':
      return inlineOf(elementsOf(childOf(node, 'w:sdtContent')), story);
    case 'w:ins':
    case 'w:moveTo':
    case 'w:del':
    case 'w:moveFrom': {
      const isGone = node.name === 'w:del' || node.name === 'w:moveFrom';
      if (!shown.changes) {
        leftOut.add('changes');
        return isGone ? NOTHING : inlineOf(elementsOf(node), story);
      }
      const { nodes, boxes } = inlineOf(elementsOf(node), story);
      // Marks stand outside: a page that ends in a change ends in its paragraph.
      const marked = nodes.map((one) =>
        one.name === 'w:bookmarkStart' ? one : element(isGone ? 'w:del' : 'w:ins', { 'w:id': '0' }, [one]),
      );
      return { nodes: marked, boxes };
    }
    case 'w:fldSimple': {
      const { nodes, boxes } = inlineOf(elementsOf(node), story);
      return { nodes: simpleField(node.attributes['w:instr'] ?? '', nodes), boxes };
    }
    case 'w:bookmarkStart': {
      const { 'w:name': name = '' } = node.attributes;
      return places.has(name) ? only([mark({ place: name })]) : NOTHING;
    }
    case 'm:oMath':
    case 'm:oMathPara':
      return isUnseen(story) ? NOTHING : only([node]);
    default:
      return NOTHING;
  }
}

/** A run, in several where something stands between. */
function runOf(run: XmlNode, story: Story): Inline {
  const properties = propertiesOf(run, story);
  const nodes: XmlNode[] = [];
  const boxes: XmlNode[][] = [];
  let pending: XmlNode[] = [];
  const flush = (): void => {
    if (pending.length > 0) nodes.push(element('w:r', {}, [...(properties ? [properties] : []), ...pending]));
    pending = [];
  };
  const between = (...added: XmlNode[]): void => {
    flush();
    nodes.push(...added);
  };
  for (const child of elementsOf(run).flatMap(chosen)) {
    if (child.name === 'w:fldChar') {
      between(...fieldCharacter(child, properties, story));
      continue;
    }
    if (child.name === 'w:instrText') {
      const current = story.fields.at(-1);
      if (current && !current.isResult) current.instruction += lettersIn(child);
      continue;
    }
    if (isUnseen(story)) continue;
    const letters = lettersOf(child);
    if (letters !== null) {
      pending.push(textOf(letters));
      continue;
    }
    switch (child.name) {
      case 'w:tab':
      case 'w:ptab':
        pending.push(element('w:tab'));
        break;
      case 'w:br':
      case 'w:cr': {
        const type = child.attributes['w:type'];
        if (type === 'page' || type === 'column') between(mark({ ends: type }));
        else pending.push(element('w:br'));
        break;
      }
      case 'w:pgNum':
        between(...simpleField('PAGE', [element('w:r', {}, properties ? [properties] : [])]));
        break;
      case 'w:footnoteReference':
      case 'w:endnoteReference':
      case 'w:commentReference':
        between(...referenceOf(child, properties, story));
        break;
      case 'w:drawing':
      case 'w:pict':
      case 'w:object': {
        const drawn: Drawn = child.name === 'w:drawing' ? drawingOf(child, story) : pictOf(child, story);
        boxes.push(...drawn.boxes);
        for (const { place, drawing } of drawn.pictures) {
          between(mark({ picture: place }));
          pending.push(drawing);
        }
        break;
      }
      case 'w:ruby': {
        const { nodes: base } = inlineOf(elementsOf(childOf(child, 'w:rubyBase')), story);
        between(...base);
        break;
      }
    }
  }
  flush();
  return { nodes, boxes };

  function lettersOf(child: XmlNode): string | null {
    switch (child.name) {
      case 'w:t':
      case 'w:delText':
        return isSymbols(properties) ? symbolOf(shifted(lettersIn(child))) : symbolOf(lettersIn(child));
      case 'w:noBreakHyphen':
        return '\u2011';
      case 'w:softHyphen':
        return '\u00ad';
      case 'w:sym':
        return symbolOf(String.fromCodePoint(parseInt(child.attributes['w:char'] ?? '', 16) || 0x2022));
      case 'w:footnoteRef':
      case 'w:endnoteRef':
        return story.number ?? '';
      default:
        return null;
    }
  }
}

/** With what of its style the library does not see. */
function propertiesOf(run: XmlNode, { reading: { styles } }: Story): XmlNode | undefined {
  const own = childOf(run, 'w:rPr');
  const style = valueOf(own, 'w:rStyle');
  const raised = style !== undefined && !childOf(own, 'w:vertAlign') && styles.findOfRun(style, 'w:vertAlign');
  return raised ? element('w:rPr', {}, [...elementsOf(own), raised]) : own;
}

const textOf = (text: string): XmlNode => element('w:t', { 'xml:space': 'preserve' }, [text]);

/** Fonts whose letters are symbols, whatever they stand for elsewhere. */
const isSymbols = (properties: XmlNode | undefined): boolean =>
  /^(Symbol|Wingdings)/i.test(childOf(properties, 'w:rFonts')?.attributes['w:ascii'] ?? '');

/** Their letters stand in a row of their own. */
const shifted = (text: string): string =>
  text.replace(/[\u0021-\u00ff]/g, (letter) => String.fromCharCode(0xf000 + letter.charCodeAt(0)));

/** Of what is given in several forms, one that is read here (ISO/IEC 29500-3, 7.6): shapes and pictures, else what stands in for them. */
export function chosen(node: XmlNode): XmlNode[] {
  if (node.name !== 'mc:AlternateContent') return [node];
  const known = childrenOf(node, 'mc:Choice').find(({ attributes }) => /^wp[sgc]$/.test(attributes['Requires'] ?? ''));
  return elementsOf(known ?? childOf(node, 'mc:Fallback')).flatMap(chosen);
}

const RAISED = element('w:vertAlign', { 'w:val': 'superscript' });

/** The number of a note or comment where it is referred to. */
function referenceOf(node: XmlNode, properties: XmlNode | undefined, { reading, isHead }: Story): XmlNode[] {
  const kind = node.name.slice(2, -'Reference'.length) as 'footnote' | 'endnote' | 'comment';
  const { 'w:id': id = '', 'w:customMarkFollows': own } = node.attributes;
  if (isHead) return [];
  if (kind === 'comment' && !reading.shown.comments) {
    reading.leftOut.add('comments');
    return [];
  }
  const before = reading.referred.filter((one) => one.kind === kind).length;
  const isOwn = own !== undefined && own !== '0' && own !== 'false';
  const number = isOwn ? '' : kind === 'comment' ? `[${before + 1}]` : sayNumber(before + 1, reading.noteForms[kind]);
  reading.referred.push({ kind, id, number });
  const rest = elementsOf(properties).filter(({ name }) => name !== 'w:vertAlign' && name !== 'w:rStyle');
  const run = element('w:r', {}, [element('w:rPr', {}, [...rest, RAISED]), textOf(number)]);
  return [mark({ note: `${kind} ${id}` }), ...(isOwn ? [] : [run])];
}
