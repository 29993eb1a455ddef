import { childOf, childrenOf, isOn, type XmlNode } from '../office/tree';
import type { WordPart } from './word-package';

/** Which pages a head or foot is for. */
export type HeadKind = 'default' | 'first' | 'even';

/** A stretch of a text document with paper of its own (ISO/IEC 29500-1, 17.6); lengths in points. */
export interface WordSection {
  readonly width: number;
  readonly height: number;
  readonly margins: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
  /** From the paper's edge to the head and the foot. */
  readonly headAt: number;
  readonly footAt: number;
  /** Names of their parts. */
  readonly heads: Readonly<Partial<Record<HeadKind, string>>>;
  readonly feet: Readonly<Partial<Record<HeadKind, string>>>;
  /** Whether its first page has a head and a foot of its own, be they empty. */
  readonly hasFirst: boolean;
  readonly begins: 'page' | 'odd' | 'even' | 'here';
  readonly columns: number;
  readonly columnGap: number;
  readonly hasColumnLine: boolean;
  /** What its first page is numbered; null: on from before. */
  readonly startsAt: number | null;
  readonly numberForm: string;
  /** Lines around each page. */
  readonly isFramed: boolean;
}

/** Points of the twentieths in which it is written, or of a measure with its unit (ISO/IEC 29500-1, 22.9.2.14). */
export function pointsOf(measure: string | undefined, otherwise: number): number {
  const [, number, unit] = /^(-?[\d.]+)(mm|cm|in|pt|pc|pi)?$/.exec(measure ?? '') ?? [];
  if (number === undefined) return otherwise;
  const per = { mm: 72 / 25.4, cm: 72 / 2.54, in: 72, pt: 1, pc: 12, pi: 12 }[unit ?? ''] ?? 1 / 20;
  return Number(number) * per;
}

/** Without a word of its own a section is of A4 (ISO 216) and these margins (common practice). */
const OTHERWISE = { width: 595.3, height: 841.9, margin: 72, edge: 36 };

const BEGINS: Readonly<Record<string, WordSection['begins']>> = {
  continuous: 'here',
  oddPage: 'odd',
  evenPage: 'even',
};

/** Less is no page that anything fits on, in points. */
const LEAST_TEXT = 36;

/**
 * @param node its properties; undefined where the document has none
 * @param before the section before it, whose heads and feet it has where it has none of its own
 */
export function readSection(node: XmlNode | undefined, before: WordSection | null, main: WordPart): WordSection {
  const { attributes: size = {} } = childOf(node, 'w:pgSz') ?? {};
  const { attributes: margin = {} } = childOf(node, 'w:pgMar') ?? {};
  const { attributes: columns = {} } = childOf(node, 'w:cols') ?? {};
  const { attributes: number = {} } = childOf(node, 'w:pgNumType') ?? {};
  const width = pointsOf(size['w:w'], OTHERWISE.width);
  const height = pointsOf(size['w:h'], OTHERWISE.height);
  const [left, right] = withRoom(
    width,
    pointsOf(margin['w:left'], OTHERWISE.margin) + pointsOf(margin['w:gutter'], 0),
    pointsOf(margin['w:right'], OTHERWISE.margin),
  );
  // A negative one: whatever the head's height (ISO/IEC 29500-1, 17.6.11).
  const [top, bottom] = withRoom(
    height,
    Math.abs(pointsOf(margin['w:top'], OTHERWISE.margin)),
    Math.abs(pointsOf(margin['w:bottom'], OTHERWISE.margin)),
  );
  const partsOf = (name: string): Partial<Record<HeadKind, string>> =>
    Object.fromEntries(
      childrenOf(node, name).flatMap(({ attributes: { 'w:type': type = 'default', 'r:id': id = '' } }) => {
        const relation = main.relations.get(id);
        return relation ? [[type, relation.target]] : [];
      }),
    );
  const startsAt = number['w:start'];
  return {
    width,
    height,
    margins: { top, right, bottom, left },
    headAt: pointsOf(margin['w:header'], OTHERWISE.edge),
    footAt: pointsOf(margin['w:footer'], OTHERWISE.edge),
    heads: { ...before?.heads, ...partsOf('w:headerReference') },
    feet: { ...before?.feet, ...partsOf('w:footerReference') },
    hasFirst: isOn(node, 'w:titlePg') ?? false,
    begins: BEGINS[childOf(node, 'w:type')?.attributes['w:val'] ?? ''] ?? 'page',
    columns: Math.max(
      1,
      Math.min(20, Number(columns['w:num'] ?? (childrenOf(childOf(node, 'w:cols'), 'w:col').length || 1))),
    ),
    columnGap: pointsOf(columns['w:space'], 36),
    hasColumnLine: ['1', 'true', 'on'].includes(columns['w:sep'] ?? ''),
    startsAt: startsAt === undefined ? null : Number(startsAt),
    numberForm: number['w:fmt'] ?? 'decimal',
    isFramed: childOf(node, 'w:pgBorders') !== undefined,
  };
}

/** Margins that leave no room between them are made smaller. */
function withRoom(length: number, before: number, after: number): [before: number, after: number] {
  const most = Math.max(0, length - LEAST_TEXT);
  return before + after <= most
    ? [before, after]
    : [(most * before) / (before + after), (most * after) / (before + after)];
}

/** The same section on paper that was asked for: as wide as before it is laid out anew, its margins kept. */
export function onPaper(
  section: WordSection,
  paper: { readonly width: number; readonly height: number } | null,
  orientation: 'portrait' | 'landscape' | undefined,
): WordSection {
  const { width, height } = paper ?? section;
  const isWide = orientation ? orientation === 'landscape' : section.width > section.height;
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  const [across, down] = isWide ? [long, short] : [short, long];
  const { margins } = section;
  const [left, right] = withRoom(across, margins.left, margins.right);
  const [top, bottom] = withRoom(down, margins.top, margins.bottom);
  return { ...section, width: across, height: down, margins: { top, right, bottom, left } };
}
