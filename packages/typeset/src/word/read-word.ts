import { formFor, laidOut, readSizeName, type Form, type LaidOut } from '@foglio/core';
import { strToU8, zipSync } from 'fflate';
import { element, elementsOf, childOf, childrenOf, findIn, valueOf, writeTree, type XmlNode } from '../office/tree';
import { placesAskedFor } from './fields';
import { Count } from './left-out';
import { listLabels } from './list-labels';
import { markBetween } from './marks';
import { blocksOf } from './paragraphs';
import type { Reading, Story } from './reading';
import { openWord, readPart, type WordPackage, type WordPart } from './word-package';
import { onPaper, pointsOf, readSection, type WordSection } from './word-section';
import { readStyles, withoutPaging } from './word-styles';

/** A text document, ready to be laid out by a browser: one flat text in pieces, and what belongs to pages apart from it. */
export interface WordDocument {
  /** The file that the library reads. */
  readonly file: Uint8Array;
  readonly sections: readonly WordSection[];
  readonly hasEvenHeads: boolean;
  readonly hyphenates: boolean;
  /** Margins change sides on even pages. */
  readonly mirrors: boolean;
  /** That it brings with it. */
  readonly fonts: readonly string[];
  /** Points from one tab to the next where none is set. */
  readonly tabEvery: number;
}

/**
 * Reads a text document (ISO/IEC 29500). What a library makes of paragraphs, tables and pictures is left to it; pages, lists,
 * fields, notes and changes it does not know, or not well, are settled here and marked.
 *
 * @throws PdfError where it is damaged, or takes too much
 */
export function readWord(
  bytes: Uint8Array,
  asked: Form,
): { readonly document: WordDocument; readonly laid: LaidOut; readonly remarks: readonly string[] } {
  const form = formFor('word-processing', asked);
  const { changes = false, comments = false } = form;
  const word = openWord(bytes);
  const settings = word.part('settings')?.root;
  const stylesRoot = word.part('styles')?.root;
  const styles = readStyles(stylesRoot);
  const reading: Reading = {
    styles,
    labels: listLabels(word.part('numbering')?.root, styles),
    shown: { changes, comments },
    referred: [],
    noteForms: {
      footnote: valueOf(childOf(settings, 'w:footnotePr'), 'w:numFmt') ?? 'decimal',
      endnote: valueOf(childOf(settings, 'w:endnotePr'), 'w:numFmt') ?? 'lowerRoman',
    },
    pictures: new Map(),
    places: placesAskedFor(word.main.root),
    leftOut: new Count(),
  };
  const sections = sectionsOf(word.main).map((section) => onPaper(section, paperOf(form), form.orientation));
  const text = textOf(word.main, sections, reading);
  const notes = notesOf(word, reading);
  const heads = headsOf(word, sections, reading);
  const body = element('w:body', {}, [...text, ...notes, ...heads]);
  return {
    document: {
      file: zipOf(word, element('w:document', {}, [body]), stylesRoot && withoutPaging(stylesRoot), reading.pictures),
      sections,
      hasEvenHeads: isSet(settings, 'w:evenAndOddHeaders'),
      hyphenates: isSet(settings, 'w:autoHyphenation'),
      mirrors: isSet(settings, 'w:mirrorMargins'),
      fonts: fontsWithin(word.part('fontTable')?.root),
      tabEvery: pointsOf(valueOf(settings, 'w:defaultTabStop'), 36),
    },
    laid: laidOut('word-processing', asked, { changes, comments }),
    remarks: reading.leftOut.remarks(word.names),
  };
}

/** Names of fonts that a document brings (ISO/IEC 29500-1, 17.8.3.3 and the like). */
const fontsWithin = (table: XmlNode | undefined): string[] =>
  childrenOf(table, 'w:font').flatMap((font) =>
    elementsOf(font).some(({ name }) => name.startsWith('w:embed')) ? [font.attributes['w:name'] ?? ''] : [],
  );

const isSet = (settings: XmlNode | undefined, name: string): boolean => {
  const found = childOf(settings, name);
  return found !== undefined && !['0', 'false', 'off'].includes(found.attributes['w:val'] ?? '1');
};

const paperOf = ({ paper }: Form): { width: number; height: number } | null =>
  paper === undefined ? null : readSizeName(paper);

/** All sections in their order; each has what the one before it has where it says nothing of its own. */
function sectionsOf(main: WordPart): WordSection[] {
  const body = childOf(main.root, 'w:body');
  const said = [...sectionMarks(elementsOf(body)), childOf(body, 'w:sectPr')];
  return said.reduce<WordSection[]>((before, node) => [...before, readSection(node, before.at(-1) ?? null, main)], []);
}

/** Properties of sections stand in the last paragraph of each, which may be within a content control. */
const sectionMarks = (nodes: readonly XmlNode[]): XmlNode[] =>
  nodes.flatMap((node) => {
    if (node.name === 'w:p') return childrenOf(childOf(node, 'w:pPr'), 'w:sectPr');
    return node.name === 'w:sdt' || node.name === 'w:sdtContent' || node.name === 'w:customXml'
      ? sectionMarks(elementsOf(node))
      : [];
  });

function textOf(main: WordPart, sections: readonly WordSection[], reading: Reading): XmlNode[] {
  let at = 0;
  const page = pageOf(sections[0]!);
  const story: Story = {
    reading,
    part: main,
    isHead: false,
    fields: [],
    page,
    endSection: () => {
      at += 1;
      const next = sections[at];
      if (!next) return [];
      Object.assign(page, pageOf(next));
      return [markBetween({ piece: { kind: 'section', at } })];
    },
  };
  return [
    markBetween({ piece: { kind: 'section', at: 0 } }),
    ...blocksOf(elementsOf(childOf(main.root, 'w:body')), story),
  ];
}

const pageOf = ({ width, margins, headAt }: WordSection): Story['page'] => ({
  left: margins.left,
  top: margins.top,
  width: width - margins.left - margins.right,
  pageWidth: width,
  headAt,
});

const NOTE_PARTS = { footnote: 'footnotes', endnote: 'endnotes', comment: 'comments' } as const;

/** Notes and comments that the text refers to, in its order. */
function notesOf(word: WordPackage, reading: Reading): XmlNode[] {
  const parts = new Map<string, WordPart | undefined>();
  const page = pageOf(readSection(undefined, null, word.main));
  return reading.referred.flatMap(({ kind, id, number }) => {
    if (!parts.has(kind)) parts.set(kind, word.part(NOTE_PARTS[kind]));
    const part = parts.get(kind);
    const note = part && childrenOf(part.root, `w:${kind}`).find(({ attributes }) => attributes['w:id'] === id);
    if (!part || !note) return [];
    const story: Story = { reading, part, isHead: false, number, fields: [], page };
    const who = note.attributes['w:author'] ?? note.attributes['w:initials'] ?? '';
    const piece = kind === 'comment' ? ({ kind, who, number } as const) : ({ kind, id } as const);
    const isNumbered = kind === 'comment' || findIn(note, `w:${kind}Ref`) !== undefined;
    return [markBetween({ piece }), ...blocksOf(isNumbered ? elementsOf(note) : numbered(note, kind), story)];
  });
}

/** A note that does not show its number itself. */
function numbered(note: XmlNode, kind: string): XmlNode[] {
  const run = element('w:r', {}, [
    element('w:rPr', {}, [element('w:vertAlign', { 'w:val': 'superscript' })]),
    element(`w:${kind}Ref`),
  ]);
  const [first, ...rest] = elementsOf(note);
  if (first?.name !== 'w:p') return [element('w:p', {}, [run]), ...elementsOf(note)];
  const properties = childrenOf(first, 'w:pPr');
  const content = elementsOf(first).filter(({ name }) => name !== 'w:pPr');
  return [{ ...first, children: [...properties, run, ...content] }, ...rest];
}

/** Heads and feet that any section has, each once. */
function headsOf(word: WordPackage, sections: readonly WordSection[], reading: Reading): XmlNode[] {
  const owners = new Map<string, WordSection>();
  for (const section of sections) {
    for (const name of [...Object.values(section.heads), ...Object.values(section.feet)]) {
      if (!owners.has(name)) owners.set(name, section);
    }
  }
  return [...owners].flatMap(([name, section]) => {
    const part = readPart(word.parts, name);
    if (!part) return [];
    const story: Story = { reading, part, isHead: true, fields: [], page: pageOf(section) };
    return [markBetween({ piece: { kind: 'head', part: name } }), ...blocksOf(elementsOf(part.root), story)];
  });
}

const RELATION = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const CONTENT = 'application/vnd.openxmlformats-officedocument.wordprocessingml';

/** The file as the library reads it: the text in one part, what it looks like, and its pictures. */
function zipOf(
  word: WordPackage,
  text: XmlNode,
  styles: XmlNode | undefined,
  pictures: ReadonlyMap<string, string>,
): Uint8Array {
  const parts: Record<string, Uint8Array> = { 'word/document.xml': strToU8(writeTree(text)) };
  const relations: [id: string, kind: string, target: string][] = [];
  const add = (id: string, kind: string, name: string, bytes: Uint8Array | undefined): void => {
    if (!bytes) return;
    parts[name] = bytes;
    relations.push([id, kind, `/${name}`]);
  };
  if (styles) add('styles', 'styles', 'word/styles.xml', strToU8(writeTree(styles)));
  for (const { kind, target, isOutside } of word.main.relations.values()) {
    if ((kind === 'theme' || kind === 'fontTable') && !isOutside) add(kind, kind, target, word.parts[target]);
  }
  // Fonts that the file brings, and where they stand.
  for (const [name, bytes] of Object.entries(word.parts)) {
    if (/(^|\/)(fonts\/[^/]+|_rels\/fontTable\.xml\.rels)$/.test(name)) parts[name] = bytes;
  }
  for (const [id, target] of pictures) add(id, 'image', target, word.parts[target]);
  const listed = (list: readonly (readonly [string, string, string])[]): Uint8Array =>
    strToU8(
      writeTree(
        element(
          'Relationships',
          {},
          list.map(([Id, kind, Target]) => element('Relationship', { Id, Type: `${RELATION}/${kind}`, Target })),
        ),
        ' xmlns="http://schemas.openxmlformats.org/package/2006/relationships"',
      ),
    );
  parts['word/_rels/document.xml.rels'] = listed(relations);
  parts['_rels/.rels'] = listed([['main', 'officeDocument', 'word/document.xml']]);
  const types = element('Types', {}, [
    element('Default', { Extension: 'xml', ContentType: 'application/xml' }),
    element('Override', { PartName: '/word/document.xml', ContentType: `${CONTENT}.document.main+xml` }),
  ]);
  parts['[Content_Types].xml'] = strToU8(
    writeTree(types, ' xmlns="http://schemas.openxmlformats.org/package/2006/content-types"'),
  );
  return zipSync(parts, { level: 0 });
}
