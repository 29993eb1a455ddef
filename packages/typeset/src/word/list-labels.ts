import { childOf, childrenOf, isOn, valueOf, type XmlNode } from '../office/tree';
import { sayNumber, symbolOf } from './number-forms';
import type { WordStyles } from './word-styles';

/** What stands before a paragraph of a list. */
export interface ListLabel {
  readonly text: string;
  /** What parts it from the paragraph's own text. */
  readonly suffix: 'tab' | 'space' | 'nothing';
  /** How it looks, where that differs from the paragraph's text. */
  readonly run: XmlNode | undefined;
  /** How far paragraphs of this level are set in, where they do not say it themselves. */
  readonly indent: XmlNode | undefined;
}

/** Numbers the lists of a document as its paragraphs come (ISO/IEC 29500-1, 17.9). */
export interface ListLabels {
  /** @returns null where there is no such list, or nothing stands before its paragraphs */
  readonly next: (numId: string, level: number) => ListLabel | null;
}

interface Level {
  readonly start: number;
  readonly format: string;
  readonly text: string;
  readonly isLegal: boolean;
  readonly restartsAfter: number;
  readonly label: Omit<ListLabel, 'text'>;
}

interface List {
  /** Lists of one kind are counted together. */
  readonly kind: string;
  readonly levels: ReadonlyMap<number, Level>;
  /** Where this one begins anew. */
  readonly starts: ReadonlyMap<number, number>;
}

const SUFFIXES = { space: 'space', nothing: 'nothing' } as const;

function levelOf(node: XmlNode): Level {
  const at = Number(node.attributes['w:ilvl'] ?? 0);
  const suffix = valueOf(node, 'w:suff') as keyof typeof SUFFIXES;
  return {
    start: Number(valueOf(node, 'w:start') ?? 0),
    format: valueOf(node, 'w:numFmt') ?? 'decimal',
    text: valueOf(node, 'w:lvlText') ?? '',
    isLegal: isOn(node, 'w:isLgl') ?? false,
    // Begins anew after any level above, unless it says after which.
    restartsAfter: Number(valueOf(node, 'w:lvlRestart') ?? at),
    label: {
      suffix: SUFFIXES[suffix] ?? 'tab',
      run: childOf(node, 'w:rPr'),
      indent: childOf(childOf(node, 'w:pPr'), 'w:ind'),
    },
  };
}

const levelsOf = (node: XmlNode): [number, Level][] =>
  childrenOf(node, 'w:lvl').map((level) => [Number(level.attributes['w:ilvl'] ?? 0), levelOf(level)]);

/** @param root of the part that says how lists are numbered */
export function listLabels(root: XmlNode | undefined, styles: WordStyles): ListLabels {
  const kinds = new Map(
    childrenOf(root, 'w:abstractNum').map((kind) => [kind.attributes['w:abstractNumId'] ?? '', kind]),
  );
  const numbers = new Map(childrenOf(root, 'w:num').map((one) => [one.attributes['w:numId'] ?? '', one]));
  const lists = new Map<string, List | null>();
  const counted = new Map<string, Map<number, number>>();
  const begun = new Set<string>();

  const listOf = (numId: string): List | null => {
    const known = lists.get(numId);
    if (known !== undefined) return known;
    const number = numbers.get(numId);
    let kind = valueOf(number, 'w:abstractNumId') ?? '';
    // One that takes its levels from a style (17.9.21) is counted with the style's own.
    const linked = valueOf(kinds.get(kind), 'w:numStyleLink');
    const ofStyle = linked && valueOf(styles.find(linked, 'w:numPr'), 'w:numId');
    if (ofStyle) kind = valueOf(numbers.get(ofStyle), 'w:abstractNumId') ?? kind;
    const found = kinds.get(kind);
    const overrides = childrenOf(number, 'w:lvlOverride');
    const list = found
      ? {
          kind,
          levels: new Map([...levelsOf(found), ...overrides.flatMap(levelsOf)]),
          starts: new Map(
            overrides.flatMap((one): [number, number][] => {
              const start = valueOf(one, 'w:startOverride');
              return start === undefined ? [] : [[Number(one.attributes['w:ilvl'] ?? 0), Number(start)]];
            }),
          ),
        }
      : null;
    lists.set(numId, list);
    return list;
  };

  return {
    next: (numId, at) => {
      const list = listOf(numId);
      const level = list?.levels.get(at);
      if (!list || !level) return null;
      const counts = counted.get(list.kind) ?? new Map<number, number>();
      counted.set(list.kind, counts);
      const anew = list.starts.get(at);
      if (anew !== undefined && !begun.has(`${numId} ${at}`)) counts.set(at, anew - 1);
      begun.add(`${numId} ${at}`);
      counts.set(at, (counts.get(at) ?? level.start - 1) + 1);
      for (const [deeper, { restartsAfter }] of list.levels) {
        if (deeper > at && restartsAfter > at) counts.delete(deeper);
      }
      const text =
        level.format === 'bullet'
          ? symbolOf(level.text)
          : level.text.replace(/%([1-9])/g, (_, digit: string) => {
              const of = Number(digit) - 1;
              const shown = list.levels.get(of);
              const count = counts.get(of) ?? shown?.start ?? 1;
              return sayNumber(count, level.isLegal ? 'decimal' : (shown?.format ?? 'decimal'));
            });
      return level.format === 'none' && text === '' ? null : { text, ...level.label };
    },
  };
}
