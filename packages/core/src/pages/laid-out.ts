import type { FromSchema } from 'json-schema-to-ts';
import type { formSchema } from './form.schema';

/** How a document without pages of its own is laid out; what it leaves out is as the document itself has it. */
export type Form = FromSchema<typeof formSchema>;

/** What of a form means something for each kind of document that has no pages of its own. */
export const FORM_PARTS = {
  workbook: ['paper', 'orientation', 'sheets', 'fit', 'gridLines', 'headings', 'wholeSheet', 'hidden'],
  csv: ['paper', 'orientation', 'fit', 'gridLines', 'headings', 'delimiter', 'encoding', 'header'],
  'web-page': ['paper', 'orientation', 'style', 'typeSize', 'pictures', 'links', 'backgrounds'],
  markdown: ['paper', 'orientation', 'typeSize'],
  'word-processing': ['paper', 'orientation', 'changes', 'comments'],
  mail: ['paper', 'orientation', 'typeSize', 'pictures', 'backgrounds'],
  text: ['paper', 'orientation', 'typeSize', 'columns', 'encoding'],
} as const satisfies Readonly<Record<string, readonly (keyof Form)[]>>;

/** A kind of document that has no pages of its own. */
export type FormKind = keyof typeof FORM_PARTS;

export const FORM_KINDS = Object.keys(FORM_PARTS) as readonly FormKind[];

/** A sheet of a workbook. */
export interface SheetFound {
  readonly name: string;
  /** Left out of what is printed unless it is asked for by name. */
  readonly hidden: boolean;
}

/** How a document without pages of its own came to the pages it has. */
export interface LaidOut {
  readonly kind: FormKind;
  /** What was asked for; only what means something for its kind. */
  readonly form: Form;
  /** Whatever of the form was not asked for, as it was taken: as the document says, or as it was guessed. */
  readonly taken: Form;
  /** Of a workbook: all its sheets, in its own order. */
  readonly sheets?: readonly SheetFound[];
  /** Of a mail's message: names of the attachments that can be documents of their own. */
  readonly attachments?: readonly string[];
  /** Only its first pages are there: the others still come, so many of how many laid out, or never will, for a reason in a sentence. */
  readonly unfinished?: { readonly trouble: string | null; readonly done?: number; readonly of?: number };
}

/** What of a form means something for a kind, in one order, so that alike forms are written alike; anything may come by mail. */
export function formFor(kind: FormKind, asked: Form): Form {
  const parts: readonly (keyof Form)[] = ['attachment', ...FORM_PARTS[kind]];
  return Object.fromEntries(parts.flatMap((part) => (asked[part] === undefined ? [] : [[part, asked[part]]])));
}

/** How a document was laid out: as was asked, and all else as its own. */
export function laidOut(kind: FormKind, asked: Form, own: Form): Pick<LaidOut, 'kind' | 'form' | 'taken'> {
  const form = formFor(kind, asked);
  return { kind, form, taken: Object.fromEntries(Object.entries(own).filter(([part]) => !(part in form))) };
}

/** Whether a document is laid out as is asked; one that has pages of its own always is. */
export const isLaidOutAs = (laid: Pick<LaidOut, 'kind' | 'form'> | undefined, asked: Form): boolean =>
  laid === undefined || JSON.stringify(formFor(laid.kind, asked)) === JSON.stringify(formFor(laid.kind, laid.form));
