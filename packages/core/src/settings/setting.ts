/** Who carries a setting: the ticket for all of the job, a route for its pages, one of the documents for itself. */
export type Carrier = 'ticket' | 'route' | 'document';

/** What a setting is, said once; whatever reads tickets is folded from these (`settings/README.md`). */
export interface Setting {
  /** JSON Schema, draft 7. `description` says what it means, `default` what holds where nothing is said. */
  readonly schema: { readonly description: string; readonly default?: unknown };
  readonly carriers: readonly Carrier[];
  /** How a printer is told, where it is told at all; what it is not told reaches paper by the imposed pages. */
  readonly told?: Told;
  /** What of a printer's profile tells whether it can be had. */
  readonly known?: Known;
  /** Why a value that the schema takes cannot be planned. */
  readonly contradiction?: (value: never) => Contradiction | null;
  /** The value for a route's pages: what the route says laid over the ticket's, where that is not just one for the other. */
  readonly laidOver?: (base: never, own: never) => unknown;
}

/** The job template attribute of IPP that tells a printer (RFC 8011, section 5.2, unless the setting names another). */
export interface Told {
  readonly attribute: string;
  /** Said once for a job, or for each of its sheets: then it may stand in `overrides` and with a document as well. */
  readonly of: 'job' | 'sheet';
  readonly syntax: 'integer' | 'keyword' | 'enum' | 'enums' | 'collection';
  /** Of a sheet: what a person is told where it is not what was seen, "the output". */
  readonly said?: string;
  /** What the attribute says for a value of the setting, where that is another word; booleans by their names. */
  readonly values?: Readonly<Record<string, string | number>>;
}

/** One field of the printer profile, and how the printer is asked for it. */
export interface Known {
  readonly field: string;
  /** JSON Schema of the field, with its default. */
  readonly schema: object;
  /** The printer's attribute, and the syntax of its values. */
  readonly asked: string;
  readonly syntax: 'keyword' | 'boolean' | 'enum';
  /** The field as the attribute's values tell it; none where the printer did not say. */
  readonly read: (values: readonly string[]) => unknown;
  /** The field of a printer that has all these values, where one with the default has not. */
  readonly needed?: (values: readonly never[]) => unknown;
  /** What a printer with this field answers: `read` of it is the field again. */
  readonly answer: (field: never) => readonly string[];
}

/** Why a value cannot be planned: what no schema can see. */
export interface Contradiction {
  /** Where in the setting, as it is written behind its name: ".columns", "[0].text". */
  readonly part: string;
  readonly problem: string;
  readonly repair: string;
  /** Where in a text, in characters from 0, and how many of them. */
  readonly position?: number;
  readonly length?: number;
}
