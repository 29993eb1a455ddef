import { damagedDocument, tooMuch } from '@foglio/pdf';
import { posix } from 'node:path';
import { unpack, type PackageParts } from '../office/package-parts';
import { childrenOf, MOST_OF_TREE, readTree, type XmlNode } from '../office/tree';

/** What a part refers to by an id of its own. */
export interface Relation {
  /** The last word of its type: "image", "header", "hyperlink". */
  readonly kind: string;
  /** The name of a part; of what is outside, its address. */
  readonly target: string;
  readonly isOutside: boolean;
}

/** A part of a text document that holds content, and what it refers to. */
export interface WordPart {
  readonly name: string;
  readonly root: XmlNode;
  readonly relations: ReadonlyMap<string, Relation>;
}

/** A text document, its parts unpacked. */
export interface WordPackage {
  readonly parts: PackageParts;
  /** Of all parts, also those that are not unpacked. */
  readonly names: readonly string[];
  readonly main: WordPart;
  /** A part that the main one refers to, by its kind; undefined where there is none. */
  readonly part: (kind: string) => WordPart | undefined;
}

/** What is never opened: what runs, and other documents within. */
const CLOSED = /vbaProject|vbaData|\/embeddings\/|\/activeX\/|\/customXml\//i;

/** @throws PdfError where it is no text document, is damaged, or takes too much room */
export function openWord(bytes: Uint8Array): WordPackage {
  const { parts, names } = unpack(bytes, (name) => !CLOSED.test(name));
  const [main] = [...relationsOf(parts, '').values()].filter(({ kind }) => kind === 'officeDocument');
  const found = main && readPart(parts, main.target);
  if (!found) throw damagedDocument('its text is missing');
  return {
    parts,
    names,
    main: found,
    part: (kind) => {
      const [relation] = [...found.relations.values()].filter((one) => one.kind === kind && !one.isOutside);
      return relation && readPart(parts, relation.target);
    },
  };
}

/** @returns undefined where there is no such part */
export function readPart(parts: PackageParts, name: string): WordPart | undefined {
  const bytes = parts[name];
  if (!bytes) return undefined;
  if (bytes.length > MOST_OF_TREE) throw tooMuch('room');
  return { name, root: readTree(bytes, name), relations: relationsOf(parts, name) };
}

/** ISO/IEC 29500-2, 6.5: what a part refers to stands in a folder beside it; what the whole does, beside no part. */
function relationsOf(parts: PackageParts, name: string): Map<string, Relation> {
  const folder = name === '' ? '' : `${posix.dirname(name)}/`;
  const bytes = parts[`${folder}_rels/${posix.basename(name)}.rels`];
  const listed = bytes ? childrenOf(readTree(bytes, 'the list of its parts'), 'Relationship') : [];
  return new Map(
    listed.map(({ attributes: { Id = '', Type = '', Target = '', TargetMode } }) => {
      const isOutside = TargetMode === 'External';
      const target = isOutside ? Target : posix.normalize(Target.startsWith('/') ? Target.slice(1) : folder + Target);
      return [Id, { kind: Type.slice(Type.lastIndexOf('/') + 1), target, isOutside }];
    }),
  );
}
