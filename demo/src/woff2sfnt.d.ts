declare module 'woff2sfnt-sfnt2woff' {
  /** A WOFF file's font as OpenType has it (W3C, WOFF File Format 1.0). */
  export function toSfnt(woff: Buffer): Buffer;
}
