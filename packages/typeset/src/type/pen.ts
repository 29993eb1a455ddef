import type { Face, Run, Typeface } from './typeface';

/** What the PDF library has beside its typings: a font in use, and how it names letters in a page (pinned with its version). */
interface FontInUse {
  readonly id: string;
  ref(): unknown;
  encode(text: string): [codes: string[], positions: { xAdvance: number; advanceWidth: number }[]];
}

interface Inside {
  _font: FontInUse;
  addContent(operators: string): void;
  page: { fonts: Record<string, unknown> };
}

/** Alphabets whose letters change their shape or run to the left: they are set as a whole. */
const SHAPED = /[\u0590-\u08ff\u0900-\u0dff\u0e00-\u0eff\ufb1d-\ufeff]/;

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/;

const FIRST_STRONG = /[\p{L}]/u;

interface Encoded {
  readonly codes: string;
  /** In points of a text of one point. */
  readonly width: number;
}

const n = (value: number): string => String(Math.round(value * 1000) / 1000);

/**
 * Writes on the pages of a document of the PDF library, y growing downward, by operators of its own: of a table of a million
 * cells the library's own way to set text takes most of the time. A letter is encoded once.
 */
export class Pen {
  private readonly fonts = new Map<string, FontInUse>();
  private readonly encoded = new Map<Face, Map<string, Encoded>>();
  private readonly colors = new Map<string, string>();
  private operators: string[] = [];

  constructor(private readonly document: PDFKit.PDFDocument) {}

  /** Whatever was written since goes to the page that is open. */
  flush(): void {
    if (this.operators.length > 0) this.inside.addContent(this.operators.join('\n'));
    this.operators = [];
  }

  raw(operators: string): void {
    this.operators.push(operators);
  }

  save(): void {
    this.raw('q');
  }

  restore(): void {
    this.raw('Q');
  }

  /** Moves and scales all that follows. */
  transform(scale: number, x: number, y: number): void {
    this.raw(`${n(scale)} 0 0 ${n(scale)} ${n(x)} ${n(y)} cm`);
  }

  clip(x: number, y: number, width: number, height: number): void {
    this.raw(`${n(x)} ${n(y)} ${n(width)} ${n(height)} re W n`);
  }

  fill(x: number, y: number, width: number, height: number, color: string): void {
    this.raw(`${this.colorOf(color)} rg ${n(x)} ${n(y)} ${n(width)} ${n(height)} re f`);
  }

  line(from: readonly [number, number], to: readonly [number, number], width: number, color: string, dash = ''): void {
    const [x, y] = from;
    this.raw(`${this.colorOf(color)} RG ${n(width)} w [${dash}] 0 d ${n(x)} ${n(y)} m ${n(to[0])} ${n(to[1])} l S`);
  }

  /** @param y of the line that the letters stand on */
  text(text: string, typeface: Typeface, size: number, x: number, y: number, color: string): void {
    let at = x;
    const parts: string[] = [];
    for (const run of inReadingOrder(typeface.runs(text))) {
      const { codes, width } = this.encode(run);
      parts.push(`/${this.use(run.face).id} ${n(size)} Tf 1 0 0 -1 ${n(at)} ${n(y)} Tm <${codes}> Tj`);
      at += width * size;
    }
    this.raw(`BT ${this.colorOf(color)} rg ${parts.join(' ')} ET`);
  }

  private get inside(): Inside {
    return this.document as unknown as Inside;
  }

  /** A font has to be named by every page that uses it. */
  private use(face: Face): FontInUse {
    let font = this.fonts.get(face.key);
    if (!font) {
      this.document.registerFont(face.key, face.bytes);
      this.document.font(face.key);
      font = this.inside._font;
      this.fonts.set(face.key, font);
    }
    const { fonts } = this.inside.page;
    fonts[font.id] ??= font.ref();
    return font;
  }

  private encode({ face, text }: Run): Encoded {
    const known = this.encoded.get(face) ?? new Map<string, Encoded>();
    this.encoded.set(face, known);
    const encodeWhole = (part: string): Encoded => {
      const found = known.get(part);
      if (found) return found;
      const [codes, positions] = this.use(face).encode(part);
      const width = positions.reduce((sum, { xAdvance }) => sum + xAdvance, 0) / 1000;
      const encoded = { codes: codes.join(''), width };
      known.set(part, encoded);
      return encoded;
    };
    if (SHAPED.test(text)) return encodeWhole(text);
    let codes = '';
    let width = 0;
    for (const letter of text) {
      const one = encodeWhole(letter);
      codes += one.codes;
      width += one.width;
    }
    return { codes, width };
  }

  private colorOf(color: string): string {
    const known = this.colors.get(color);
    if (known) return known;
    const parts = [1, 3, 5].map((at) => n(Number.parseInt(color.slice(at, at + 2), 16) / 255));
    // A grey is written in all three: what prints it in black alone is decided later, for all documents alike.
    this.colors.set(color, parts.join(' '));
    return parts.join(' ');
  }
}

/** Where a text begins with a letter that runs to the left, its stretches stand from right to left. */
function inReadingOrder(runs: readonly Run[]): readonly Run[] {
  const first = runs.map(({ text }) => FIRST_STRONG.exec(text)?.[0]).find((letter) => letter !== undefined);
  return first !== undefined && RIGHT_TO_LEFT.test(first) ? runs.toReversed() : runs;
}
