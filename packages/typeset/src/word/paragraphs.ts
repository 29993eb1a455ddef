import { childOf, childrenOf, element, elementsOf, isOn, valueOf, type XmlNode } from '../office/tree';
import { mark, markBetween, MARK, type ParagraphMark, type TabStop } from './marks';
import type { Story } from './reading';
import { chosen, inlineOf, type Inline } from './runs';
import { pointsOf } from './word-section';
import { attributeOf, holds, propertyOf, type WordStyles } from './word-styles';

/** Elements between paragraphs that are only around others (ISO/IEC 29500-1, 17.5). */
const AROUND = new Set(['w:customXml', 'w:sdtContent', 'w:ins', 'w:moveTo']);

/** What stands in a part, a cell or a note, as the library reads it, with the rest marked. */
export function blocksOf(nodes: readonly XmlNode[], story: Story): XmlNode[] {
  const joining: Joining = { begun: null };
  return [...blocks(nodes, story, joining), ...ended(joining, story)];
}

/** A paragraph whose end was deleted goes on in the next one; where none comes, it stands by itself. */
interface Joining {
  begun: { readonly inline: Inline; readonly properties: XmlNode | undefined } | null;
}

function ended(joining: Joining, story: Story): XmlNode[] {
  const { begun } = joining;
  joining.begun = null;
  return begun ? paragraphsOf(begun.properties, begun.inline, story) : [];
}

function blocks(nodes: readonly XmlNode[], story: Story, joining: Joining): XmlNode[] {
  return nodes.flatMap(chosen).flatMap((node) => {
    if (AROUND.has(node.name)) return blocks(elementsOf(node), story, joining);
    switch (node.name) {
      case 'w:p':
        return paragraphOf(node, story, joining);
      case 'w:tbl':
        return [...ended(joining, story), tableOf(node, story)];
      case 'w:sdt':
        return blocks(elementsOf(childOf(node, 'w:sdtContent')), story, joining);
      case 'w:del':
      case 'w:moveFrom':
        return story.reading.shown.changes ? blocks(elementsOf(node), story, joining) : [];
      case 'w:altChunk':
        story.reading.leftOut.add('document');
        return [];
      case 'w:sectPr':
        return [...ended(joining, story), ...(story.endSection?.(node) ?? [])];
      default:
        return [];
    }
  });
}

/** A paragraph, together with one before it whose end was deleted. */
function paragraphOf(node: XmlNode, story: Story, joining: Joining): XmlNode[] {
  const properties = childOf(node, 'w:pPr');
  const own = inlineOf(elementsOf(node), story);
  const before = joining.begun?.inline ?? { nodes: [], boxes: [] };
  joining.begun = null;
  const inline = { nodes: [...before.nodes, ...own.nodes], boxes: [...before.boxes, ...own.boxes] };
  const ofEnd = childOf(properties, 'w:rPr');
  const isEndGone = childOf(ofEnd, 'w:del') !== undefined || childOf(ofEnd, 'w:moveFrom') !== undefined;
  // One that ends a section ends it still.
  if (!story.reading.shown.changes && isEndGone && !childOf(properties, 'w:sectPr')) {
    joining.begun = { inline, properties };
    return [];
  }
  return paragraphsOf(properties, inline, story);
}

/** Several where pages end in it; none where nothing of it is left. */
function paragraphsOf(properties: XmlNode | undefined, { nodes, boxes }: Inline, story: Story): XmlNode[] {
  const { styles } = story.reading;
  const ofEnd = childOf(properties, 'w:rPr');
  const isEndGone = !story.reading.shown.changes && childOf(ofEnd, 'w:del') !== undefined;
  if (isEndGone && nodes.length === 0 && boxes.length === 0 && !childOf(properties, 'w:sectPr')) return [];
  const label = labelOf(properties, story);
  const own = paragraphMark(properties, label?.indent, styles);
  const written = writtenProperties(properties, label?.indent);
  const head = [mark({ paragraph: own }), ...(label?.nodes ?? [])];
  const parts = partsOf(nodes);
  const breaksBefore = holds(styles, properties, 'w:pageBreakBefore') && !story.isHead;
  const paragraphs = parts.flatMap(({ content, ends }, at) => {
    const first = at === 0 ? head : [mark({ paragraph: { ...own, css: { ...own.css, 'text-indent': '0' } } })];
    const isEmpty = !content.some(({ name }) => name !== 'w:bookmarkStart');
    // Nothing is left of it once the page has ended: what comes next begins the page.
    if (isEmpty && at > 0) return [];
    const filled = isEmpty && !(at === 0 && label) ? [...content, emptyLine(ofEnd)] : content;
    const line = isEmpty && ends ? [] : [element('w:p', {}, [...written, ...first, ...filled])];
    return ends ? [...line, markBetween({ ends })] : line;
  });
  const section = childOf(properties, 'w:sectPr');
  return [
    ...(breaksBefore ? [markBetween({ ends: 'page' })] : []),
    ...paragraphs,
    ...boxes.map((box) => boxed(blocksOf(box, story))),
    ...(section && story.endSection ? story.endSection(section) : []),
  ];
}

/** A line without letters is as high as its letters would be. */
const emptyLine = (ofEnd: XmlNode | undefined): XmlNode =>
  element('w:r', {}, [
    ...(ofEnd
      ? [
          element(
            'w:rPr',
            {},
            elementsOf(ofEnd).filter(({ name }) => name !== 'w:ins' && name !== 'w:del'),
          ),
        ]
      : []),
    element('w:t', {}, ['\u200b']),
  ]);

interface Part {
  readonly content: XmlNode[];
  readonly ends: 'page' | 'column' | null;
}

const ENDS = new Map<string, 'page' | 'column'>(
  (['page', 'column'] as const).map((ends) => [`${MARK}${JSON.stringify({ ends })}`, ends] as const),
);

/** What stands in a paragraph, parted where pages end in it. */
function partsOf(nodes: readonly XmlNode[]): Part[] {
  const parts: Part[] = [];
  let content: XmlNode[] = [];
  for (const node of nodes) {
    const ends = ENDS.get(node.attributes['w:name'] ?? '');
    if (ends) {
      parts.push({ content, ends });
      content = [];
    } else content.push(node);
  }
  return [...parts, { content, ends: null }];
}

/** A text box as a table of one cell. */
const boxed = (content: XmlNode[]): XmlNode => {
  const line = { 'w:val': 'single', 'w:sz': '4', 'w:color': '808080' };
  const borders = ['w:top', 'w:left', 'w:bottom', 'w:right'].map((side) => element(side, line));
  return element('w:tbl', {}, [
    element('w:tblPr', {}, [element('w:tblBorders', {}, borders)]),
    element('w:tr', {}, [element('w:tc', {}, content.length > 0 ? content : [element('w:p')])]),
  ]);
};

/** What the library is told of a paragraph: pages, lists and tabs are settled here. */
function writtenProperties(properties: XmlNode | undefined, indent: XmlNode | undefined): XmlNode[] {
  const kept = elementsOf(properties).filter(
    ({ name }) =>
      !['w:numPr', 'w:tabs', 'w:sectPr', 'w:pageBreakBefore', 'w:rPr', 'w:pPrChange', 'w:framePr'].includes(name),
  );
  const own = childOf(properties, 'w:ind');
  const withIndent =
    indent === undefined
      ? kept
      : [
          ...kept.filter(({ name }) => name !== 'w:ind'),
          element('w:ind', { ...indent.attributes, ...own?.attributes }),
        ];
  return withIndent.length > 0 ? [element('w:pPr', {}, withIndent.map(withoutLines))] : [];
}

/** How high lines are depends on their font; the browser works it out. */
const withoutLines = (node: XmlNode): XmlNode => {
  if (node.name !== 'w:spacing') return node;
  const { 'w:line': _, 'w:lineRule': __, ...rest } = node.attributes;
  return element(node.name, rest);
};

/** Twentieths of a point, or 240ths of a line. */
function linesOf(styles: WordStyles, properties: XmlNode | undefined): ParagraphMark['lines'] {
  const line = attributeOf(styles, properties, 'w:spacing', 'w:line');
  const rule = attributeOf(styles, properties, 'w:spacing', 'w:lineRule') ?? 'auto';
  if (line === undefined) return { times: 1 };
  if (rule === 'exact') return { exact: pointsOf(line, 12) };
  return rule === 'atLeast' ? { least: pointsOf(line, 12) } : { times: (Number(line) || 240) / 240 };
}

function paragraphMark(
  properties: XmlNode | undefined,
  indent: XmlNode | undefined,
  styles: WordStyles,
): ParagraphMark {
  const level = levelOf(properties, styles);
  const tabs = tabsOf(properties, indent, styles);
  return {
    lines: linesOf(styles, properties),
    css: {
      ...(holds(styles, properties, 'w:keepNext') ? { 'break-after': 'avoid' } : {}),
      ...(holds(styles, properties, 'w:keepLines') ? { 'break-inside': 'avoid' } : {}),
      ...(isOn(properties, 'w:widowControl') === false ? { orphans: '1', widows: '1' } : {}),
    },
    ...(holds(styles, properties, 'w:contextualSpacing') ? { isClose: true } : {}),
    ...(tabs.length > 0 ? { tabs } : {}),
    ...(level === null ? {} : { level }),
  };
}

/** From 1; null of what is no heading. */
function levelOf(properties: XmlNode | undefined, styles: WordStyles): number | null {
  const said = propertyOf(styles, properties, 'w:outlineLvl')?.attributes['w:val'];
  const named = /^heading ([1-9])$/.exec(styles.nameOf(valueOf(properties, 'w:pStyle')))?.[1];
  const level = said === undefined ? Number(named ?? 0) : Number(said) + 1;
  return level >= 1 && level <= 9 ? level : null;
}

const KINDS: Readonly<Record<string, TabStop['kind']>> = {
  left: 'left',
  start: 'left',
  num: 'left',
  right: 'right',
  end: 'right',
  center: 'center',
  decimal: 'decimal',
  clear: 'clear',
};

/** Where tabs lead, the style's and the paragraph's own; a line that hangs out has one where the others begin. */
function tabsOf(properties: XmlNode | undefined, indent: XmlNode | undefined, styles: WordStyles): TabStop[] {
  const stops = new Map<number, TabStop>();
  const ofStyle = styles.find(valueOf(properties, 'w:pStyle'), 'w:tabs');
  for (const { attributes } of [ofStyle, childOf(properties, 'w:tabs')].flatMap((node) => childrenOf(node, 'w:tab'))) {
    const at = pointsOf(attributes['w:pos'], 0);
    const kind = KINDS[attributes['w:val'] ?? 'left'];
    const leader = { dot: 'dot', middleDot: 'dot', hyphen: 'line', underscore: 'line', heavy: 'line' } as const;
    if (kind === 'clear') stops.delete(at);
    else if (kind) {
      stops.set(at, { at, kind, leader: leader[attributes['w:leader'] as keyof typeof leader] ?? null });
    }
  }
  const said = (name: string): string | undefined =>
    childOf(properties, 'w:ind')?.attributes[name] ??
    indent?.attributes[name] ??
    attributeOf(styles, properties, 'w:ind', name);
  const left = pointsOf(said('w:left') ?? said('w:start'), 0);
  if (pointsOf(said('w:hanging'), 0) > 0 && !stops.has(left)) stops.set(left, { at: left, kind: 'left', leader: null });
  return [...stops.values()].sort((one, other) => one.at - other.at);
}

/** What stands before a paragraph of a list. */
function labelOf(
  properties: XmlNode | undefined,
  { reading: { styles, labels } }: Story,
): { readonly nodes: XmlNode[]; readonly indent: XmlNode | undefined } | null {
  const own = childOf(properties, 'w:numPr');
  const ofStyle = styles.find(valueOf(properties, 'w:pStyle'), 'w:numPr');
  const numId = valueOf(own, 'w:numId') ?? valueOf(ofStyle, 'w:numId');
  // None of that number: a paragraph that its style would number is not (ISO/IEC 29500-1, 17.9.18).
  if (numId === undefined || numId === '0') return null;
  const label = labels.next(numId, Number(valueOf(own, 'w:ilvl') ?? valueOf(ofStyle, 'w:ilvl') ?? 0));
  if (!label) return null;
  const run = (child: XmlNode): XmlNode => element('w:r', {}, [look, child]);
  // A label looks as the end of its paragraph does, and then as its list says (17.9.24).
  const fromEnd = elementsOf(childOf(properties, 'w:rPr')).filter(
    ({ name }) => !['w:ins', 'w:del', 'w:rPrChange'].includes(name),
  );
  const fromList = elementsOf(label.run).filter(({ name }) => name !== 'w:rFonts' || !isSymbolFont(label.run));
  const names = new Set(fromList.map(({ name }) => name));
  const look = element('w:rPr', {}, [...fromEnd.filter(({ name }) => !names.has(name)), ...fromList]);
  const suffix = {
    tab: [run(element('w:tab'))],
    space: [run(element('w:t', { 'xml:space': 'preserve' }, [' ']))],
    nothing: [],
  };
  return { nodes: [run(element('w:t', {}, [label.text])), ...suffix[label.suffix]], indent: label.indent };
}

const isSymbolFont = (run: XmlNode | undefined): boolean =>
  /^(Symbol|Wingdings|Courier)/i.test(childOf(run, 'w:rFonts')?.attributes['w:ascii'] ?? '');

/** A table, whatever is around its rows and cells taken away. */
function tableOf(table: XmlNode, story: Story): XmlNode {
  const properties = elementsOf(table).filter(({ name }) => name === 'w:tblPr' || name === 'w:tblGrid');
  return element('w:tbl', {}, [...properties, ...within(table, 'w:tr').flatMap((row) => rowOf(row, story))]);
}

/** Elements of a name that stand in another, also within what is only around them. */
const within = (node: XmlNode, name: string): XmlNode[] =>
  elementsOf(node).flatMap((child) => {
    if (child.name === name) return [child];
    return AROUND.has(child.name) || child.name === 'w:sdt' ? within(child, name) : [];
  });

function rowOf(row: XmlNode, story: Story): XmlNode[] {
  const properties = childOf(row, 'w:trPr');
  if (!story.reading.shown.changes && childOf(properties, 'w:del')) {
    story.reading.leftOut.add('changes');
    return [];
  }
  const marked = {
    isHead: isOn(properties, 'w:tblHeader') ?? false,
    isWhole: isOn(properties, 'w:cantSplit') ?? false,
  };
  const cells = within(row, 'w:tc').map((cell, at) => {
    const content = blocksOf(
      elementsOf(cell).filter(({ name }) => name !== 'w:tcPr'),
      story,
    );
    const [first, ...rest] = content.length > 0 ? content : [element('w:p')];
    const isMarked = at === 0 && first!.name === 'w:p' && (marked.isHead || marked.isWhole);
    const begun = isMarked ? { ...first!, children: [...first!.children, mark({ row: marked })] } : first!;
    return element('w:tc', {}, [...childrenOf(cell, 'w:tcPr'), begun, ...rest]);
  });
  return cells.length === 0 ? [] : [element('w:tr', {}, [...(properties ? [properties] : []), ...cells])];
}
